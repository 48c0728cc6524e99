<script lang="ts">
/**
 * Findings in the margin, gravest first: peg, number, claim, marks, evidence, a remedy that acts. What
 * merely holds, with nothing to say about it, is counted and unfolds.
 */
</script>

<script setup lang="ts">
import type { FindingShown, RemedyShown } from '@plain-slate/api'
import type { Stage } from '@plain-slate/core'
import { topicOf } from '@plain-slate/core'
import { findingWords } from '@plain-slate/texts'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useBrowserStore } from '../../base/browser.ts'
import Marks from '../../pictures/Marks.vue'
import Peg from '../../pictures/Peg.vue'
import { useSay } from '../../base/said.ts'
import { useJob } from '../job.ts'
import { askedAt } from './Ask.vue'
import Overrule from './Overrule.vue'
import { isTold } from './routes.ts'

const props = defineProps<{
  findings: readonly FindingShown[]
  number?: (finding: FindingShown) => number | undefined
  /** The key of the package that is judged, where its rules can be overruled. */
  package?: string
}>()
const told = computed(() => props.findings.filter(isTold))
const held = computed(() => props.findings.filter((one) => !isTold(one)))
const say = useSay()
const browser = useBrowserStore()
const { number: slip } = useJob()
const route = useRoute()
const claim = (finding: FindingShown) => findingWords(browser.language, finding)

/** Where each kind of remedy is done; one that does itself has no address. */
const PLACE: Readonly<Record<RemedyShown['kind'], Stage | 'shelf' | undefined>> = {
  read: 'readings',
  look: 'compare',
  'by-eye': 'readings',
  ask: 'intake',
  fetch: 'shelf',
  publish: 'proof',
  charge: 'ready',
  consent: 'ready',
  permit: 'firmware',
  card: 'intake',
  along: undefined,
  overruled: undefined,
}
function remedyOf({ remedy }: FindingShown) {
  if (remedy === null || remedy.kind === 'overruled') return undefined
  const topic = remedy.kind === 'ask' ? topicOf(remedy.topic ?? '') : undefined
  const place = topic?.stage ?? PLACE[remedy.kind]
  const text =
    remedy.kind === 'ask'
      ? say('remedy.ask', { stage: say(`stage.${topic?.stage ?? 'intake'}`) })
      : say(`remedy.${remedy.kind}`)
  if (place === undefined) return { text, to: undefined }
  if (place === 'shelf') return { text, to: '/shelf' }
  /* Where one stands already, there is nowhere to go. */
  if (place === route.params['stage'] && topic === undefined) return undefined
  const asked = topic === undefined ? '' : askedAt(topic.topic)
  return { text, to: `/slips/${slip.value}/${place}${asked}` }
}
/** Something rules the package out that nobody overrules: then overruling another rule helps nobody. */
const isShut = computed(() =>
  props.findings.some((one) => one.verdict === 'does-not-fit' && one.overruled === 'nobody'),
)
/** A rule that rules a package out may be overruled for it, or was. */
const isOpen = ({ verdict, remedy, overruled }: FindingShown) =>
  remedy?.kind === 'overruled' ||
  (overruled !== 'nobody' && verdict === 'does-not-fit' && !isShut.value)
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
      <Overrule v-if="package && isOpen(finding)" :finding="finding" :package="package" />
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
