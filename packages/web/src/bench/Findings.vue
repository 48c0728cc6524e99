<script lang="ts">
/** Findings, gravest first: peg, claim, marks. */
</script>

<script setup lang="ts">
import type { FindingShown } from '@plain-slate/api'
import type { Code } from '@plain-slate/texts'
import { isCode, sayAny } from '@plain-slate/texts'
import { useBrowserStore } from '../browser.ts'
import Peg from '../parts/Peg.vue'
import { useSay } from '../said.ts'

defineProps<{ findings: readonly FindingShown[] }>()
const say = useSay()
const browser = useBrowserStore()
const words = ({ code, facts }: FindingShown) =>
  isCode(code) ? sayAny(browser.language, code as Code, facts) : code
</script>

<template>
  <ul>
    <li v-for="finding in findings" :key="finding.rule">
      <Peg :verdict="finding.verdict" />
      <span>
        {{ words(finding) }}
        <span v-for="mark in finding.marks" :key="mark.kind" class="mark">
          {{
            mark.kind === 'risky'
              ? say('mark.risky', { seconds: mark.seconds ?? 0 })
              : say('mark.irreversible')
          }}
        </span>
      </span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  gap: 9px;
  align-items: baseline;
  padding: 3px 0;
}
.mark {
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 0 5px;
  font-size: 12.5px;
  white-space: nowrap;
}
</style>
