<script lang="ts">
/** The list's own short list: how many slips are in each state. */
</script>

<script setup lang="ts">
import { SLIP_STATES } from '@plain-slate/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useSay } from '../../base/said.ts'
import { useRead } from '../../server/query.ts'
import { changedTo, readListQuery, writeListQuery } from './query.ts'

const say = useSay()
const route = useRoute()
const query = computed(() => readListQuery(route.query))
const slips = useRead('slips', () => ({ query: { q: query.value.q } }), { keep: true })
const states = computed(() => ['', ...SLIP_STATES] as const)
const count = (state: string) =>
  state === '' ? slips.data.value?.total : (slips.data.value?.states[state] ?? 0)
const to = (state: string) => ({ query: writeListQuery(changedTo(query.value, { state })) })
</script>

<template>
  <ul class="short-list" :aria-label="say('slips.states')">
    <li v-for="state in states" :key="state" :class="{ on: query.state === state }">
      <router-link :to="to(state)" :aria-current="query.state === state ? 'true' : undefined">
        <span>{{ state === '' ? say('slips.state.all') : say(`state.${state}`) }}</span>
        <span class="mono">{{ count(state) }}</span>
      </router-link>
    </li>
  </ul>
</template>
