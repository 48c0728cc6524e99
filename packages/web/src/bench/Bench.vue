<script lang="ts">
/** The Bench: every port with what hangs there, every cable with what it went through. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { Bench } from '@plain-slate/api'
import { computed } from 'vue'
import EmptyNote from '../parts/EmptyNote.vue'
import Resource from '../parts/Resource.vue'
import { endOf, portWord } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import Cables from './Cables.vue'
import Computers from './Computers.vue'

const say = useSay()
const bench = useRead('bench')
const count = ({ ports }: Bench) => ({
  devices: ports.filter(({ seen }) => seen !== null).length,
  free: ports.filter(({ word }) => word === 'free').length,
})
const hands = computed(
  () => bench.data.value?.ports.filter(({ word }) => word === 'hands-now').length ?? 0,
)
const title = (data: Bench) =>
  hands.value === 0
    ? say('bench.title', count(data))
    : say('bench.title.hands', { n: hands.value, free: count(data).free })
</script>

<template>
  <Resource v-slot="{ data }" :read="bench">
    <h1>{{ title(data) }}</h1>
    <p class="lede">{{ say('bench.lede') }}</p>
    <p v-if="!data.watched" class="amiss" role="status">{{ say('bench.unwatched') }}</p>
    <h2 id="ports">{{ say('bench.ports') }}</h2>
    <EmptyNote v-if="data.ports.length === 0" :what="say('house.ports.none')" todo="">
      <router-link to="/house#house-ports">{{ say('bench.none.todo') }}</router-link>
    </EmptyNote>
    <Columns
      v-else
      by="ports"
      :columns="[
        say('bench.port'),
        say('bench.state'),
        say('bench.device'),
        say('bench.battery'),
        say('bench.cable'),
        say('bench.run'),
      ]"
    >
      <tr v-for="port in data.ports" :key="port.name" class="clickable">
        <td>
          <router-link class="mono" :to="`/bench/${port.name}`">{{ port.name }}</router-link>
          <span v-if="port.bench" class="dim small build">{{ port.bench }}</span>
        </td>
        <td>
          <b :class="{ dim: port.word === 'free' }">{{ portWord(say, port) }}</b>
        </td>
        <td>
          <template v-if="port.seen">
            <span class="mono">{{ port.seen.model }}</span>
            <span class="mono dim"> …{{ endOf(port.seen.serial) }}</span>
            <span class="dim small mono build">{{ port.seen.build ?? '' }}</span>
          </template>
        </td>
        <td class="mono">
          {{ port.seen?.battery == null ? '' : say('bench.percent', { n: port.seen.battery }) }}
        </td>
        <td class="mono">{{ port.cable ?? '' }}</td>
        <td>
          <router-link v-if="port.run" :to="`/bench/${port.name}`">{{
            port.run.title
          }}</router-link>
        </td>
      </tr>
    </Columns>
    <Computers :computers="data.computers" />
    <Cables :bench="data" />
  </Resource>
</template>

<style scoped>
.build {
  display: block;
}
</style>
