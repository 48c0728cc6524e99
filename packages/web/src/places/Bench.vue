<script lang="ts">
/** The bench as far as it is there: ports and cables. */
</script>

<script setup lang="ts">
import Resource from '../parts/Resource.vue'
import { useSay } from '../said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const bench = useRead('bench')
</script>

<template>
  <Resource v-slot="{ data }" :read="bench">
    <h1>{{ say('bench.title', { ports: data.ports.length, cables: data.cables.length }) }}</h1>
    <p class="lede">{{ say('bench.lede') }}</p>
    <h2 id="ports">{{ say('bench.ports') }}</h2>
    <table class="rows" aria-labelledby="ports">
      <thead>
        <tr>
          <th scope="col">{{ say('bench.port') }}</th>
          <th scope="col">{{ say('bench.cable') }}</th>
          <th scope="col">{{ say('slips.column.state') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="port in data.ports" :key="port.name">
          <td class="mono">{{ port.name }}</td>
          <td class="mono">{{ port.cable ?? '' }}</td>
          <td>{{ say('port.free') }}</td>
        </tr>
      </tbody>
    </table>
    <h2 id="cables">{{ say('bench.cables') }}</h2>
    <table class="rows" aria-labelledby="cables">
      <thead>
        <tr>
          <th scope="col">{{ say('bench.cable') }}</th>
          <th scope="col">{{ say('bench.hangs-on') }}</th>
          <th scope="col">{{ say('bench.note') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="cable in data.cables" :key="cable.name">
          <td class="mono">{{ cable.name }}</td>
          <td>
            <span v-if="cable.port" class="mono">{{ cable.port }}</span>
            <span v-else class="dim">{{ say('bench.in-drawer') }}</span>
          </td>
          <td>{{ cable.note }}</td>
        </tr>
      </tbody>
    </table>
  </Resource>
</template>
