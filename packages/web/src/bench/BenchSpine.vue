<script lang="ts">
/** The Bench's short list: its ports, each with its state word. */
</script>

<script setup lang="ts">
import { useRoute } from 'vue-router'
import { portWord } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const route = useRoute()
const bench = useRead('bench')
</script>

<template>
  <ul class="short-list" :aria-label="say('bench.ports')">
    <li
      v-for="port in bench.data.value?.ports ?? []"
      :key="port.name"
      :class="{ on: route.params['port'] === port.name }"
    >
      <router-link
        :to="`/bench/${port.name}`"
        :aria-current="route.params['port'] === port.name ? 'page' : undefined"
      >
        <span class="mono port">{{ port.name }}</span>
        <span :class="{ dim: port.word === 'free' }">{{ portWord(say, port) }}</span>
      </router-link>
    </li>
  </ul>
</template>

<style scoped>
/* A port is called as its bench calls it. */
.short-list a .port::first-letter {
  text-transform: none;
}
.port {
  white-space: nowrap;
}
</style>
