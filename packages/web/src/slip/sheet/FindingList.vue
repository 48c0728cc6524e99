<script lang="ts">
/**
 * Findings in the margin, gravest first: peg, number, claim, marks, evidence, a remedy that acts. What
 * merely holds, with nothing to say about it, is counted and unfolds.
 */
</script>

<script setup lang="ts">
import type { FindingShown } from '@plain-slate/api'
import { findingWords } from '@plain-slate/texts'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useBrowserStore } from '../../base/browser.ts'
import Marks from '../../pictures/Marks.vue'
import Peg from '../../pictures/Peg.vue'
import { useSay } from '../../base/said.ts'
import { useJob } from '../job.ts'
import { isTold } from './routes.ts'

const props = defineProps<{
  findings: readonly FindingShown[]
  number?: (finding: FindingShown) => number | undefined
}>()
const told = computed(() => props.findings.filter(isTold))
const held = computed(() => props.findings.filter((one) => !isTold(one)))
const say = useSay()
const browser = useBrowserStore()
const { number: slip } = useJob()
const route = useRoute()
const claim = (finding: FindingShown) => findingWords(browser.language, finding)

/** Where a remedy is done; one that does itself has no address. */
const GOES = {
  charge: 'ready',
  publish: 'proof',
  read: 'readings',
  'by-eye': 'readings',
  consent: 'ready',
} as const
type Named = keyof typeof GOES
const isNamed = (remedy: string): remedy is Named => Object.hasOwn(GOES, remedy)
function remedyOf({ remedy }: FindingShown) {
  if (remedy === null) return undefined
  if (remedy === 'fetch') return { text: say('remedy.fetch'), to: '/shelf' }
  /* Where one stands already, there is nowhere to go. */
  if (isNamed(remedy) && GOES[remedy] === route.params['stage']) return undefined
  if (isNamed(remedy))
    return { text: say(`remedy.${remedy}`), to: `/slips/${slip.value}/${GOES[remedy]}` }
  return { text: say('remedy.along'), to: undefined }
}
</script>

<template>
  <div v-for="(finding, at) in told" :key="at" class="finding" :data-rule="finding.rule">
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
  <slot />
  <details v-if="held.length > 0" :open="told.length === 0">
    <summary>{{ say('finding.held', { n: held.length }) }}</summary>
    <div v-for="(finding, at) in held" :key="at" class="finding small" :data-rule="finding.rule">
      <Peg :verdict="finding.verdict" />
      <div>
        {{ claim(finding) }}
        <span class="mono dim">{{ finding.rule }}</span>
      </div>
    </div>
  </details>
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
details {
  border-top: 1px solid var(--rule);
}
summary {
  cursor: pointer;
  padding: 8px 0;
}
p {
  margin: 2px 0 0;
}
.mono {
  font-size: 12.5px;
}
</style>
