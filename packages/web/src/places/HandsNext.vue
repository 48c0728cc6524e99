<script lang="ts">
/** Runs that wait for somebody, the most urgent first; nothing where none does. */
</script>

<script setup lang="ts">
import type { Port } from '@plain-slate/api'
import { endOf } from '@plain-slate/texts'
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const bench = useRead('bench')
/** Words that ask for somebody, in this order. */
const ASKING: readonly Port['word'][] = ['hands-now', 'in-doubt', 'stopped', 'done']
const waiting = computed(() =>
  ASKING.flatMap((word) => (bench.data.value?.ports ?? []).filter((port) => port.word === word)),
)
</script>

<template>
  <template v-if="waiting.length > 0">
    <h2 id="hands-next">
      {{ say('counter.hands') }} <small>{{ say('counter.hands.small') }}</small>
    </h2>
    <ul class="next-up" aria-labelledby="hands-next">
      <li v-for="port in waiting" :key="port.name" :data-state="port.word">
        <router-link
          :to="
            port.slip === null
              ? `/bench/${port.name}`
              : `/slips/${port.slip.number}/${port.slip.stage}`
          "
          >{{
            say('counter.hands.at', { word: say(`port.${port.word}`), port: port.name })
          }}</router-link
        >
        <span v-if="port.run" class="dim">
          {{ port.run.title }} <span class="mono">…{{ endOf(port.run.serial) }}</span>
        </span>
      </li>
    </ul>
  </template>
</template>

<style scoped>
li[data-state='hands-now'] {
  border-left: 6px solid var(--ochre);
  padding-left: 10px;
}
</style>
