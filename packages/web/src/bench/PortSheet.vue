<script lang="ts">
/** A port: the run that holds it, else its device and what fits it, else what to do first. */
</script>

<script setup lang="ts">
import { computed } from 'vue'
import EmptyNote from '../parts/EmptyNote.vue'
import Resource from '../parts/Resource.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import DeviceSheet from './DeviceSheet.vue'
import PlanSheet from './PlanSheet.vue'
import RunSheet from './RunSheet.vue'
import { usePort } from './bench-query.ts'

const say = useSay()
const bench = useRead('bench')
const { port, pack } = usePort()
const at = computed(() => bench.data.value?.ports.find(({ name }) => name === port.value))
/** Another program that holds this port: then nobody here is heard. */
const rival = computed(
  () =>
    bench.data.value?.computers
      .flatMap(({ told }) => told?.rivals ?? [])
      .find((one) => one.port === port.value)?.program,
)
</script>

<template>
  <Resource v-slot="{ data }" :read="bench">
    <p v-if="!data.watched" class="amiss" role="status">{{ say('bench.unwatched') }}</p>
    <template v-if="at === undefined">
      <h1>{{ say('at.unknown', { port }) }}</h1>
      <EmptyNote :what="say('at.unknown.do')" todo="" />
    </template>
    <RunSheet v-else-if="at.run" :id="at.run.id" />
    <PlanSheet v-else-if="at.seen && pack !== ''" :seen="at.seen" :slip="at.slip" />
    <DeviceSheet v-else-if="at.seen" :seen="at.seen" :last="at.look" />
    <template v-else-if="at.odd !== null">
      <h1>{{ say('at.odd', { port }) }}</h1>
      <EmptyNote :what="say('at.odd.says', { why: at.odd })" :todo="say('at.odd.do')" />
    </template>
    <template v-else>
      <h1>{{ say('at.free', { port }) }}</h1>
      <p v-if="rival" class="amiss" role="status" data-claim="rival">
        {{ say('computer.rival', { port, program: rival }) }}
      </p>
      <EmptyNote :what="say('port.free')" :todo="say('at.free.do')" />
    </template>
  </Resource>
</template>
