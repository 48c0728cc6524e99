<script lang="ts">
/** What to try when a job fails, the likeliest cure for its cost first; what was tried is said and stands last. */
</script>

<script setup lang="ts">
import type { Job } from '@plain-slate/api'
import type { HouseRules, Offered, RemedyAct, Trouble } from '@plain-slate/core'
import { REMEDY_ACTS, msOf, remediesFor, triedTopic } from '@plain-slate/core'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'
import { useJob } from '../job.ts'

const props = defineProps<{
  job: Job
  trouble: Trouble
  house: Pick<HouseRules, 'transfer'> | undefined
  /** What was said before this moment was of an earlier trouble; undefined: all of it counts. */
  since?: string | undefined
  /** The same cable was tried before. */
  lostBefore?: boolean
  inDoubt?: boolean
}>()
const say = useSay()
const { may, tell } = useJob()
const first = computed(() => props.house?.transfer ?? 'again')
const isTried = (does: RemedyAct): boolean => {
  if (does === 'again' && props.lostBefore) return true
  const topic = triedTopic(props.trouble, does)
  const said = props.job.lines.find((one) => one.topic === topic)
  const old = props.since !== undefined && said !== undefined && msOf(said.at) < msOf(props.since)
  return said?.answer === 'no-cure' && !old
}
const offered = computed(() =>
  remediesFor(
    { remedies: props.job.family?.remedies ?? [] },
    {
      trouble: props.trouble,
      tried: new Set(REMEDY_ACTS.filter(isTried)),
      first: first.value,
      inDoubt: props.inDoubt === true,
      keepData: props.job.keepData,
    },
  ),
)
const allTried = computed(() => !offered.value.some(({ stands }) => stands === 'open'))
const figure = ({ chance, minutes, of }: Offered) => say('remedies.figure', { chance, minutes, of })
const isHouses = ({ does }: Offered) =>
  props.trouble === 'transfer' && does === 'cable' && first.value === 'cable'
const put = (does: RemedyAct, answer: 'no-cure' | 'untried') =>
  tell([{ topic: triedTopic(props.trouble, does), answer }])
</script>

<template>
  <section v-if="offered.length > 0" aria-labelledby="remedies">
    <h2 id="remedies">
      {{ say('remedies.title') }} <small>{{ say('remedies.small') }}</small>
    </h2>
    <p v-if="allTried" class="amiss">{{ say('remedies.none') }}</p>
    <ol class="remedies">
      <li v-for="(one, at) in offered" :key="one.does" :data-remedy="one.does" :class="one.stands">
        <component :is="at === 0 && one.stands === 'open' ? 'b' : 'span'">
          {{ say(`remedy.does.${one.does}`) }}
        </component>
        <span class="dim small">
          <template v-if="one.held">{{ say(`remedies.held.${one.held}`) }}</template>
          <template v-else>
            {{ figure(one) }}. <template v-if="isHouses(one)">{{ say('remedies.house') }}</template>
          </template>
        </span>
        <span class="end no-print">
          <button
            v-if="may && one.stands === 'open'"
            type="button"
            class="act"
            :aria-label="say('remedies.tried.of', { what: say(`remedy.does.${one.does}`) })"
            @click="put(one.does, 'no-cure')"
          >
            {{ say('remedies.tried') }}
          </button>
          <template v-if="one.stands === 'tried'">
            {{ say('remedies.was-tried') }}
            <button
              v-if="may && !(one.does === 'again' && lostBefore)"
              type="button"
              class="act"
              @click="put(one.does, 'untried')"
            >
              {{ say('remedies.untried') }}
            </button>
          </template>
        </span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.remedies {
  list-style: none;
  padding: 0;
  margin: 0 0 14px;
}
.remedies li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 2px 16px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
.tried > :first-child {
  text-decoration: line-through;
}
@media (max-width: 700px) {
  .remedies li {
    grid-template-columns: 1fr;
  }
}
</style>
