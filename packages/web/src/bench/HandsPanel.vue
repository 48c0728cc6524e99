<script lang="ts">
/** What hands can do with simulated devices, and with nothing else. */
</script>

<script setup lang="ts">
import { leastOf, reaches } from '@plain-slate/core'
import { computed } from 'vue'
import Margin from '../parts/Margin.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import HandsComputer from './HandsComputer.vue'
import HandsDevice from './HandsDevice.vue'

const say = useSay()
const session = useSessionStore()
const hands = useRead('hands')
const bench = useRead('bench')
const ports = computed(() => bench.data.value?.ports.map(({ name }) => name) ?? [])
const may = computed(() => reaches(session.person?.role, leastOf('bench.hands')))
/** Those on a port first, in the ports' order; the others as their slips are numbered. */
const devices = computed(() => {
  const place = ({ port, name }: { readonly port: string | null; readonly name: string }) =>
    port === null ? `2 ${name}` : `1 ${port}`
  return [...(hands.data.value ?? [])].sort((a, b) => place(a).localeCompare(place(b)))
})
const MINUTE = 60
const pace = computed(() => hands.data.value?.[0]?.pace ?? 0)
</script>

<template>
  <Margin
    v-if="hands.data.value && hands.data.value.length > 0"
    :title="say('hands.title')"
    :right="String(hands.data.value.length)"
  >
    <p class="dim">
      {{ say('hands.lede') }}
      {{
        pace === 0
          ? say('hands.pace.none')
          : say('hands.pace', { seconds: Math.round((MINUTE / pace) * 10) / 10 })
      }}
    </p>
    <template v-if="may && bench.data.value?.simulated">
      <HandsComputer v-for="one in bench.data.value.computers" :key="one.agent" :computer="one" />
    </template>
    <HandsDevice
      v-for="device in devices"
      :key="device.serial"
      :device="device"
      :ports="ports"
      :may="may"
    />
  </Margin>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
</style>
