<script lang="ts">
/** The list's own short list: how many slips are in each state. */
</script>

<script setup lang="ts">
import { SLIP_STATES } from '@plain-slate/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useSay } from '../said.ts'
import { useRead } from '../server/query.ts'
import { readListQuery, writeListQuery } from './query.ts'

const say = useSay()
const route = useRoute()
const query = computed(() => readListQuery(route.query))
const slips = useRead('slips', () => ({ query: { q: query.value.q } }), { keep: true })
const states = computed(() => ['', ...SLIP_STATES] as const)
const count = (state: string) =>
  state === '' ? slips.data.value?.total : (slips.data.value?.states[state] ?? 0)
const to = (state: string) => ({ query: writeListQuery({ ...query.value, state }) })
</script>

<template>
  <ul :aria-label="say('slips.states')">
    <li v-for="state in states" :key="state" :class="{ on: query.state === state }">
      <router-link :to="to(state)" :aria-current="query.state === state ? 'true' : undefined">
        <span>{{ state === '' ? say('slips.state.all') : say(`state.${state}`) }}</span>
        <span class="mono">{{ count(state) }}</span>
      </router-link>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
a {
  display: flex;
  justify-content: space-between;
  padding: 7px 12px;
  color: var(--ink);
  text-decoration: none;
  border: 1px solid transparent;
  border-right: 0;
  border-radius: 3px 0 0 3px;
}
a span:first-child::first-letter {
  text-transform: uppercase;
}
a span:first-child {
  display: inline-block;
}
.on a {
  background: var(--sheet);
  border-color: var(--rule);
  font-weight: 700;
}
@media (max-width: 700px) {
  ul {
    display: flex;
    overflow-x: auto;
  }
  a {
    gap: 6px;
    white-space: nowrap;
  }
}
</style>
