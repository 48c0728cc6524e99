<script lang="ts">
/** A run as it happens: what it is at, what hands are asked for, what is new, old and in doubt. */
</script>

<script setup lang="ts">
import type { RunShown } from '@plain-slate/api'
import { computed } from 'vue'
import Resource from '../parts/Resource.vue'
import { mib, passedWords, rangeWords, runTitle } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import HoldPower from './HoldPower.vue'
import RunAgainst from './RunAgainst.vue'
import RunActs from './RunActs.vue'
import RunParts from './RunParts.vue'
import RunWaits from './RunWaits.vue'
import StepList from './StepList.vue'

const props = defineProps<{ id: string }>()
const say = useSay()
const run = useRead('run', () => ({ params: { id: props.id } }), { every: 3000 })
const step = computed(() => {
  const data = run.data.value
  return data?.steps.find(({ number }) => number === data.step)
})
const lede = (data: RunShown) => {
  const { title, serial, port } = data
  const about = { title, serial, port, time: passedWords(say, data.runSeconds) }
  return data.state === 'ended'
    ? say('run.lede.done', about)
    : say('run.lede', { ...about, step: data.step, steps: data.steps.length })
}
const share = (data: RunShown) => (data.size === 0 ? 0 : data.got / data.size)
</script>

<template>
  <Resource v-slot="{ data }" :read="run">
    <div :data-state="data.word" class="head">
      <h1 aria-live="polite">{{ runTitle(say, data) }}</h1>
      <p class="lede">
        {{ lede(data) }}
        <template v-if="data.losses > 0">{{ say('run.losses', { n: data.losses }) }}</template>
        <template v-if="data.stop">{{ say(`run.stop.waits.${data.stop}`) }}</template>
      </p>
      <template v-if="data.state === 'running' && !data.ownerless && step">
        <div v-if="data.size > 0" class="bar">
          <div :style="{ width: `${share(data) * 100}%` }" />
        </div>
        <p v-if="data.size > 0" class="mono">
          {{
            say('run.piece', {
              got: mib(data.got * data.scale),
              size: mib(data.size * data.scale),
            })
          }}
        </p>
        <p class="dim mono">
          {{
            say('run.step.time', {
              time: passedWords(say, data.stepSeconds),
              usual: rangeWords(say, step.seconds),
            })
          }}
        </p>
        <template v-if="data.waiting && data.word !== 'hands-off'">
          <RunWaits :waiting="data.waiting" :serial="data.serial" />
          <p v-if="data.word === 'in-doubt'">{{ say('run.waiting.do') }}</p>
        </template>
      </template>
      <RunAgainst :run="data" />
      <HoldPower v-if="data.hold" :part="data.hold" />
      <p v-if="data.ownerless">{{ say('run.ownerless.do') }}</p>
      <RunActs :run="data" />
    </div>
    <RunParts :run="data" />
    <h2 id="steps">{{ say('plan.steps') }}</h2>
    <StepList :steps="data.steps" :at="data.step" :stopped="data.state === 'stopped'" />
    <p class="dim small">{{ say('run.journal', { n: data.journal }) }}</p>
  </Resource>
</template>

<style scoped>
p {
  margin: 0 0 6px;
}
h1 {
  font-size: 32px;
}
.bar {
  height: 14px;
  background: var(--raised);
  border: 1px solid var(--rule);
  margin: 8px 0 4px;
}
.bar div {
  height: 100%;
  background: var(--sky);
}
</style>
