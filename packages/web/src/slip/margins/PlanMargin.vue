<script lang="ts">
/** Beside a plan: findings with a condition or a price, then what it asks of battery, way back and figures. */
</script>

<script setup lang="ts">
import { rangeWords } from '@plain-slate/texts'
import { computed } from 'vue'
import Margin from '../../parts/Margin.vue'
import { useSay } from '../../base/said.ts'
import FindingList from '../sheet/FindingList.vue'
import { useJob } from '../job.ts'
import { usePlanPage } from '../sheet/plan-page.ts'

const say = useSay()
const { job } = useJob()
const { plan } = usePlanPage()
const right = computed(() =>
  plan.value?.findings.every(({ verdict }) => verdict === 'fits') === true
    ? say('plan.margin.met')
    : '',
)
type Note = { readonly title: string; readonly why?: string }
const notes = computed((): readonly Note[] => {
  if (plan.value === undefined) return []
  const { needs, draws, floor, restarts, steps, wayBack, wayBackUntil, ownRuns } = plan.value
  const battery = job.data.value?.device?.battery ?? undefined
  const most = Math.ceil(plan.value.time.high / 60) * 60
  const time = rangeWords(say, { low: most, high: most })
  return [
    {
      title:
        battery === undefined
          ? say('plan.margin.battery.unseen', { needs })
          : say('plan.margin.battery', { battery, needs }),
      why:
        floor === needs
          ? say('plan.margin.battery.floor', { floor, draws: Math.ceil(draws) })
          : say('plan.margin.battery.why', { time, restarts }),
    },
    wayBack === null || wayBackUntil === null
      ? { title: say('plan.back.none') }
      : {
          title: say('plan.margin.back'),
          why: say('plan.margin.back.why', {
            title: wayBack,
            step: wayBackUntil,
            steps: steps.length,
          }),
        },
    { title: say('plan.margin.time', { n: ownRuns }) },
  ]
})
</script>

<template>
  <Margin v-if="plan" :title="say('plan.margin')" :right="right">
    <FindingList :findings="plan.findings">
      <div v-for="note in notes" :key="note.title" class="note">
        <b>{{ note.title }}</b>
        <p v-if="note.why" class="dim">{{ note.why }}</p>
      </div>
    </FindingList>
  </Margin>
</template>

<style scoped>
.note {
  border-top: 1px solid var(--rule);
  padding: 8px 0 8px 26px;
}
p {
  margin: 2px 0 0;
}
</style>
