<script lang="ts">
/** Facts with their weighing: what is settled, contradicted or missing, who says so, where to read it. */
</script>

<script setup lang="ts">
import Columns from '../../parts/Columns.vue'
import type { FactShown } from '@plain-slate/api'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'
import { useQueryClient } from '@tanstack/vue-query'
import Trouble from '../../parts/Trouble.vue'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import { useJob } from '../job.ts'

const props = defineProps<{
  facts: readonly FactShown[]
  /** Readings put down by hand may be taken back. */
  may?: boolean
}>()
const say = useSay()
const { when } = useShop()

const shown = computed(() => props.facts.filter(({ needed, kind }) => needed || kind !== 'missing'))
/** What its family shows besides, and nobody read: this job does not wait for it. */
const besides = computed(() =>
  props.facts.filter(
    ({ needed, kind, where }) => !needed && kind === 'missing' && where.length > 0,
  ),
)
const greyed = ({ greyed: why }: FactShown): string =>
  why === null
    ? ''
    : why.carrier === null
      ? say('readings.greyed.days', { days: why.days ?? 0 })
      : say('readings.greyed.carrier', { carrier: why.carrier })
const sources = (claim: FactShown['claims'][number]) =>
  claim.sources
    .map(({ source, by, at }) =>
      [say(`source.${source}`), by, when(at)].filter((part) => part !== null).join(', '),
    )
    .join('; ')
type ClaimShown = FactShown['claims'][number]
/** A claim that lost: what its first source really tells of. */
const lost = ({ kind, value }: FactShown, claim: ClaimShown) => {
  const source = claim.sources[0]?.source
  const won = kind !== 'settled' || claim.value === value || source === undefined
  return won ? '' : `; ${say(`readings.lost.${source}`)}`
}
const claimWords = (fact: FactShown, claim: ClaimShown) =>
  say('readings.claim', {
    value: String(claim.value),
    weight: claim.weight,
    sources: sources(claim),
  }) + lost(fact, claim)
/** Why two claims settle nothing, and what would: what each of them really tells of, and the fuses. */
function contradiction({ kind, claims, where }: FactShown): string {
  const [first, second] = claims
  if (kind !== 'contradicted' || first === undefined || second === undefined) return ''
  const link = where.find(({ source }) => source === 'link')
  const told = [first, second].map((claim) => {
    const source = claim.sources[0]?.source
    return source === undefined ? '' : say(`readings.lost.${source}`)
  })
  return [
    say('readings.contradicted', { first: first.weight, second: second.weight }),
    `${told.filter((one) => one !== '').join('; ')}.`,
    link === undefined ? '' : say('readings.contradicted.link'),
  ]
    .filter((part) => part !== '')
    .join(' ')
}
const client = useQueryClient()
const { params } = useJob()
const back = useChange('jobReadingBack')
type Source = ClaimShown['sources'][number]['source']
const typed = (claim: ClaimShown) => claim.sources.filter((one) => one.typed)
const backWords = (fact: FactShown, { value }: ClaimShown, source: Source) =>
  say('readings.back.what', {
    fact: say(`fact.${fact.fact}`),
    value: String(value),
    source: say(`source.${source}`),
  })
async function takeBack({ fact }: FactShown, { value }: ClaimShown, source: Source) {
  if (source === 'link') return
  const body = { fact, value, source }
  await back.mutateAsync({ params: params.value, body }).catch(() => undefined)
  renew(client, 'slip')
}
const places = ({ where }: FactShown) =>
  where
    .map(({ source, where: place, seconds }) =>
      say('readings.where.at', { source: say(`source.${source}`), where: place, seconds }),
    )
    .join('; ')
</script>

<template>
  <h2 id="facts">
    {{ say('readings.facts') }} <small>{{ say('readings.facts.small') }}</small>
  </h2>
  <Columns
    by="facts"
    :scrolls="say('readings.facts')"
    :columns="[say('readings.fact'), say('readings.value'), say('readings.claims')]"
  >
    <tr v-for="fact in shown" :key="fact.fact" :data-fact="fact.fact" :class="`is-${fact.kind}`">
      <th scope="row">{{ say(`fact.${fact.fact}`) }}</th>
      <td class="value">
        <b v-if="fact.value !== null" class="mono">{{ fact.value }}</b>
        <span class="standing">{{ say(`standing.${fact.kind}`) }}</span>
      </td>
      <td>
        <span v-for="claim in fact.claims" :key="String(claim.value)" class="claim"
          >{{ claimWords(fact, claim) }}
          <template v-if="may">
            <button
              v-for="one in typed(claim)"
              :key="one.source"
              type="button"
              class="act no-print"
              :disabled="back.isPending.value"
              :aria-label="backWords(fact, claim, one.source)"
              @click="takeBack(fact, claim, one.source)"
            >
              {{ say('readings.back') }}
            </button>
          </template>
        </span>
        <span v-if="greyed(fact) !== ''" class="claim" data-claim="greyed">{{ greyed(fact) }}</span>
        <span v-if="contradiction(fact) !== ''" class="claim brick" data-claim="contradiction">{{
          contradiction(fact)
        }}</span>
        <span v-if="fact.kind !== 'settled' && fact.where.length > 0" class="claim dim">{{
          places(fact)
        }}</span>
        <span v-if="fact.holdsUp.length > 0" class="claim ochre">{{
          say('readings.holds-up', { titles: fact.holdsUp.join(', ') })
        }}</span>
      </td>
    </tr>
  </Columns>
  <Trouble v-if="back.error.value" :trouble="troubleOf(back.error.value)" quiet />
  <details v-if="besides.length > 0" data-claim="besides">
    <summary>{{ say('readings.besides', { n: besides.length }) }}</summary>
    <ul>
      <li v-for="fact in besides" :key="fact.fact">
        {{ say('readings.beside', { fact: say(`fact.${fact.fact}`), places: places(fact) }) }}
      </li>
    </ul>
  </details>
</template>

<style scoped>
/* The facts stand behind their mark: their title stands above them. */
:deep(thead th:first-child) {
  padding-left: 14px;
}
tbody th {
  font-size: 14px !important;
  color: var(--ink) !important;
  border-top: 1px solid var(--rule);
  vertical-align: top;
  padding: 7px 10px 7px 10px !important;
  border-left: 4px solid transparent;
}
.is-contradicted th {
  border-left-color: var(--brick);
}
.is-missing th,
.is-told th,
.is-stale th {
  border-left: 4px dotted var(--ink-2);
}
.value {
  white-space: nowrap;
}
.standing {
  font-size: 12.5px;
  margin-left: 6px;
  color: var(--ink-2);
}
.is-contradicted .standing {
  color: var(--brick);
  font-weight: 600;
}
.claim {
  display: block;
  font-size: 13.5px;
}
.brick {
  color: var(--brick);
}
.ochre {
  color: var(--ochre);
}
</style>
