<script lang="ts">
/** Plan: a headline that names the worst, wall and strip, the fate of each thing, the steps; take it. */
</script>

<script setup lang="ts">
import type { Job, PlanShown } from '@plain-slate/api'
import { leastOf, reaches } from '@plain-slate/core'
import { changesWords, assumedWords, orderWords, planLede, planTitle } from '@plain-slate/texts'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import StepList from '../../bench/StepList.vue'
import EmptyNote from '../../parts/EmptyNote.vue'
import Fates from '../../parts/Fates.vue'
import Resource from '../../parts/Resource.vue'
import { useSessionStore } from '../../people/session.ts'
import Strip from '../../pictures/Strip.vue'
import Wall from '../../pictures/Wall.vue'
import { useSay } from '../../base/said.ts'
import { addressOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import Decided from '../sheet/Decided.vue'
import Departures from '../sheet/Departures.vue'
import Otherwise from '../sheet/Otherwise.vue'
import StageSheet from '../sheet/StageSheet.vue'
import { useJob } from '../job.ts'
import { usePlanPage, wallOf } from '../sheet/plan-page.ts'

const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const { when } = useShop()
const { job, params, over } = useJob()
const { read, plan } = usePlanPage()
const take = useChange('jobTake')
const may = computed(() => !over.value && reaches(session.person?.role, leastOf('slip.plan')))
const taken = computed(() => read.data.value?.taken ?? null)
const stale = computed(() => taken.value?.changes ?? null)

function title(): string {
  if (stale.value !== null && job.data.value?.run === null)
    return say('plan.page.stale', { what: changesWords(say, stale.value) })
  return plan.value === undefined ? say('plan.page.none') : planTitle(say, plan.value)
}
const taking = (data: NonNullable<typeof taken.value>) => ({
  when: when(data.at),
  by: data.by ?? '',
})
function lede(): string {
  if (taken.value !== null && stale.value !== null) {
    const why = read.data.value?.why ?? null
    return why === null
      ? say('plan.page.stale.do', taking(taken.value))
      : say('plan.page.stale.none', { ...taking(taken.value), why })
  }
  return plan.value === undefined ? (read.data.value?.why ?? '') : rehearsed(plan.value)
}
const rehearsed = ({ ends }: PlanShown) =>
  `${endsWords(ends)} ${ends.shows === null ? '' : say('plan.rehearsed.shows', { shows: ends.shows })}`.trim()
const endsWords = (ends: PlanShown['ends']) =>
  say('plan.rehearsed', {
    build: ends.build,
    outcome: say(`outcome.${ends.outcome}`),
    readable: say(`plan.data.${ends.data}`),
    lock: say(`plan.lock.${ends.lock as 'closed'}`),
  })
async function go() {
  const digest = plan.value?.digest
  if (digest === undefined || take.isPending.value) return
  await take.mutateAsync({ params: params.value, body: { digest } }).catch(() => undefined)
  renew(client, 'slip')
}
const main = computed(() => {
  const open = taken.value === null || stale.value !== null
  const data: Job | undefined = job.data.value
  if (!open || plan.value?.reaches !== true || !may.value || data?.run !== null) return
  return { label: say('plan.take'), act: () => void go(), busy: take.isPending.value }
})
/** What the rehearsal took to be so, since nobody read it. */
const assumed = computed(() => (plan.value === undefined ? '' : assumedWords(say, plan.value)))
const print = () => window.print()
const card = computed(() => addressOf('jobCard', { params: params.value }))
</script>

<template>
  <StageSheet stage="plan" :title="title" :lede="lede" :main="main" :error="take.error.value">
    <Resource :read="read">
      <EmptyNote
        v-if="plan === undefined"
        :what="say('plan.page.none')"
        :todo="say('stage.firmware.will')"
      />
      <template v-if="plan">
        <p v-if="taken && stale === null" role="status">{{ say('plan.taken', taking(taken)) }}</p>
        <Decided v-if="taken?.decided" :decided="taken.decided" />
        <p>{{ planLede(say, plan) }}</p>
        <h2>
          {{ say('plan.wall') }} <small>{{ say('plan.wall.small') }}</small>
        </h2>
        <Wall :partitions="plan.wall.partitions" :courses="wallOf(say, plan)" legend />
        <h2>
          {{ say('plan.strip') }} <small>{{ say('plan.strip.small') }}</small>
        </h2>
        <Strip :plan="plan" />
        <Fates :fates="plan.fates" />
        <h2 id="steps">{{ say('plan.steps') }}</h2>
        <StepList :steps="plan.steps" />
        <template v-if="plan.order.length > 0">
          <h2 id="order">{{ say('plan.order') }}</h2>
          <ul class="order" aria-labelledby="order">
            <li
              v-for="one in plan.order"
              :key="`${one.code} ${one.facts['first'] ?? ''}`"
              :data-order="one.code"
            >
              {{ orderWords(say, one) }}
            </li>
          </ul>
        </template>
        <Departures />
        <Otherwise :plan="plan" />
        <p v-if="assumed !== ''" class="dim small">{{ say('plan.assumed', { what: assumed }) }}</p>
        <p v-if="plan.scale > 1" class="dim small">
          {{ say('plan.scale', { scale: plan.scale }) }}
        </p>
      </template>
    </Resource>
    <template #beside>
      <v-btn v-if="plan" variant="outlined" @click="print">{{ say('plan.print') }}</v-btn>
      <a v-if="job.data.value?.plan" :href="card">{{ say('slip.card') }}</a>
    </template>
  </StageSheet>
</template>

<style scoped>
.order {
  margin: 0 0 8px;
  padding-left: 18px;
  max-width: 84ch;
}
p {
  margin: 0 0 6px;
  max-width: 84ch;
}
</style>
