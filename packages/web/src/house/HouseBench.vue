<script lang="ts">
/** Ports and cables of the house: named, hung, struck out. What a file on a bench's machine names is shown, and left to it. */
</script>

<script setup lang="ts">
import { leastOf, reaches } from '@plain-slate/core'
import { computed, nextTick, watch } from 'vue'
import { useRoute } from 'vue-router'
import Resource from '../parts/Resource.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import HouseCables from './HouseCables.vue'
import HousePorts from './HousePorts.vue'

const say = useSay()
const session = useSessionStore()
const bench = useRead('bench')
const mayLay = computed(() => reaches(session.person?.role, leastOf('bench.lay')))
/** Whoever is led to ports or cables stands before them once they are there. */
const route = useRoute()
watch(
  [() => route.hash, () => bench.data.value === undefined],
  async ([hash, isAway]) => {
    if (isAway || !hash.startsWith('#house-')) return
    await nextTick()
    document.getElementById(hash.slice(1))?.scrollIntoView()
  },
  { immediate: true },
)
const mayCable = computed(() => reaches(session.person?.role, leastOf('bench.cables')))
</script>

<template>
  <Resource v-slot="{ data }" :read="bench">
    <h2 id="house-ports">
      {{ say('house.ports') }} <small>{{ say('house.ports.small') }}</small>
    </h2>
    <HousePorts :bench="data" :may="mayLay" />
    <h2 id="house-cables">
      {{ say('bench.cables') }} <small>{{ say('house.cables.small') }}</small>
    </h2>
    <HouseCables :bench="data" :may="mayCable" />
  </Resource>
</template>
