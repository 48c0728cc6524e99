<script lang="ts">
/** Findings, gravest first: peg, claim, marks. */
</script>

<script setup lang="ts">
import type { FindingShown } from '@plain-slate/api'
import { findingWords } from '@plain-slate/texts'
import { useBrowserStore } from '../base/browser.ts'
import Marks from '../pictures/Marks.vue'
import Peg from '../pictures/Peg.vue'

defineProps<{ findings: readonly FindingShown[] }>()
const browser = useBrowserStore()
const words = (finding: FindingShown) => findingWords(browser.language, finding)
</script>

<template>
  <ul>
    <li v-for="finding in findings" :key="finding.rule">
      <Peg :verdict="finding.verdict" />
      <span>
        {{ words(finding) }}
        <Marks :marks="finding.marks" />
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
</style>
