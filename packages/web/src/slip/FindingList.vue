<script lang="ts">
/** Findings in the margin, gravest first: peg, number, claim, marks, evidence, a remedy that acts. */
</script>

<script setup lang="ts">
import type { FindingShown } from '@plain-slate/api'
import type { Code } from '@plain-slate/texts'
import { isCode, sayAny } from '@plain-slate/texts'
import { useBrowserStore } from '../browser.ts'
import Marks from '../pictures/Marks.vue'
import Peg from '../pictures/Peg.vue'
import { useSay } from '../said.ts'
import { useJob } from './job.ts'

defineProps<{
  findings: readonly FindingShown[]
  number?: (finding: FindingShown) => number | undefined
}>()
const say = useSay()
const browser = useBrowserStore()
const { number: slip } = useJob()
const claim = ({ code, facts }: FindingShown) =>
  isCode(code) ? sayAny(browser.language, code as Code, facts) : code

/** Where a remedy is done; one that does itself has no address. */
const GOES = { charge: 'ready', prove: 'proof', read: 'readings', consent: 'intake' } as const
type Named = keyof typeof GOES
const isNamed = (remedy: string): remedy is Named => Object.hasOwn(GOES, remedy)
function remedyOf({ remedy }: FindingShown) {
  if (remedy === null) return undefined
  if (remedy === 'fetch') return { text: say('remedy.fetch'), to: '/shelf' }
  if (isNamed(remedy))
    return { text: say(`remedy.${remedy}`), to: `/slips/${slip.value}/${GOES[remedy]}` }
  return { text: say('remedy.along'), to: undefined }
}
</script>

<template>
  <div v-for="(finding, at) in findings" :key="at" class="finding" :data-rule="finding.rule">
    <Peg :verdict="finding.verdict" />
    <div>
      <b>
        <span v-if="number?.(finding)" class="told">{{ number(finding) }}</span>
        {{ claim(finding) }}
      </b>
      <p v-if="finding.marks.length > 0"><Marks :marks="finding.marks" /></p>
      <p class="mono dim">{{ say('finding.rule', { rule: finding.rule }) }}</p>
      <p v-if="remedyOf(finding)">
        <router-link v-if="remedyOf(finding)?.to" :to="remedyOf(finding)?.to ?? ''">{{
          remedyOf(finding)?.text
        }}</router-link>
        <template v-else>{{ remedyOf(finding)?.text }}</template>
      </p>
    </div>
  </div>
</template>

<style scoped>
.told {
  margin-left: 0;
}
.finding {
  display: grid;
  grid-template-columns: 26px 1fr;
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
p {
  margin: 2px 0 0;
}
.mono {
  font-size: 12.5px;
}
</style>
