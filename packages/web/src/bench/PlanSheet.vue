<script lang="ts">
/** A plan for the device at a port: its headline, what becomes of things, its steps, its start. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { Port, Seen } from '@plain-slate/api'
import { computed, watch } from 'vue'
import Fates from '../parts/Fates.vue'
import Resource from '../parts/Resource.vue'
import { mib, planLede, planTitle, reasonWords } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import Findings from './Findings.vue'
import StartCard from './StartCard.vue'
import StepList from './StepList.vue'
import { usePort } from './bench-query.ts'

const props = defineProps<{ seen: Seen; slip: Port['slip'] }>()
const say = useSay()
const { port, intent, keepData, pack, address } = usePort()
const asked = computed(() => ({
  port: port.value,
  package: pack.value,
  intent: intent.value,
  keepData: keepData.value,
}))
const plan = useRead('plan', () => ({ body: asked.value }))
/* A device in another mode or with another build is another plan: it is made anew. */
const sight = computed(() => `${props.seen.serial} ${props.seen.mode.id} ${props.seen.build ?? ''}`)
watch(sight, () => void plan.refetch())
</script>

<template>
  <p class="no-print">
    <router-link :to="address({ package: '' })">{{ say('at.back') }}</router-link>
  </p>
  <Resource v-slot="{ data }" :read="plan">
    <h1>{{ planTitle(say, data) }}</h1>
    <p class="lede">
      <b>{{ data.title }}</b>. {{ planLede(say, data) }}
      <template v-if="data.scale > 1">{{ say('plan.scale', { scale: data.scale }) }}</template>
    </p>
    <StartCard :seen="seen" :slip="slip" :asked="asked" />
    <h2>{{ say('plan.findings') }}</h2>
    <Findings :findings="data.findings" />
    <Fates :fates="data.fates" />
    <h2 id="writes">{{ say('plan.writes') }}</h2>
    <Columns
      by="writes"
      :columns="[
        say('plan.writes.part'),
        say('plan.writes.size'),
        say('plan.writes.act'),
        say('plan.writes.why'),
      ]"
    >
      <tr v-for="(one, at) in data.writes" :key="at">
        <td class="mono">{{ one.partition }}</td>
        <td class="mono">{{ say('run.mib', { n: mib(one.bytes) }) }}</td>
        <td>
          <b v-if="one.write">{{ say('write.written') }}</b>
          <span v-else class="dim">{{ say('write.left') }}</span>
        </td>
        <td>{{ reasonWords(say, one) }}</td>
      </tr>
    </Columns>
    <h2 id="steps">{{ say('plan.steps') }}</h2>
    <StepList :steps="data.steps" />
  </Resource>
</template>

<style scoped>
p {
  margin: 0 0 6px;
}
</style>
