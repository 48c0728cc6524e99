<script lang="ts">
/** The steps of a plan or a run: what, how long, what a cut there leaves, and where a run is. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { StepShown } from '@plain-slate/api'
import { rangeWords, stepWords } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'

const props = defineProps<{
  steps: readonly StepShown[]
  /** The step a run is at, and whether it stopped there; left out for a plan. */
  at?: number
  stopped?: boolean
}>()
const say = useSay()
const GRAVE = ['dead', 'data-lost']

function place(number: number) {
  if (props.at === undefined) return undefined
  if (number < props.at) return 'done' as const
  if (number > props.at) return 'ahead' as const
  return props.stopped ? ('stopped' as const) : ('now' as const)
}
</script>

<template>
  <Columns
    by="steps"
    :columns="[
      say('plan.step.number'),
      say('plan.step.what'),
      say('plan.step.time'),
      say('plan.step.cut'),
    ]"
  >
    <tr
      v-for="step in steps"
      :key="step.number"
      :class="place(step.number)"
      :aria-current="step.number === at ? 'step' : undefined"
    >
      <td class="mono">{{ step.number }}</td>
      <td>
        {{ stepWords(say, step) }}
        <span v-if="step.hands" class="hands">{{ say('plan.hands') }}</span>
        <b v-if="place(step.number) && place(step.number) !== 'ahead'" class="where">{{
          say(`run.steps.${place(step.number) as 'now'}`)
        }}</b>
      </td>
      <td class="mono nowrap">{{ rangeWords(say, step.seconds) }}</td>
      <td :class="{ dim: step.worst === 'unaffected', grave: GRAVE.includes(step.worst) }">
        <svg
          v-if="GRAVE.includes(step.worst)"
          width="12"
          height="11"
          viewBox="0 0 12 11"
          aria-hidden="true"
        >
          <path d="M6 0L12 11H0Z" />
        </svg>
        {{ say(`cut.${step.worst}`) }}
      </td>
    </tr>
  </Columns>
</template>

<style scoped>
.nowrap {
  white-space: nowrap;
}
.hands {
  font-size: 12.5px;
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 0 5px;
  color: var(--ochre);
}
.where {
  font-size: 12.5px;
  margin-left: 6px;
}
.done td {
  color: var(--ink-2);
}
.now td,
.stopped td {
  background: var(--raised);
}
.grave {
  color: var(--brick);
}
path {
  fill: var(--brick);
}
</style>
