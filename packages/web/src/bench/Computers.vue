<script lang="ts">
/**
 * The computers of the bench as each tells of itself: drivers by mode with their age, who else holds a port, what puts
 * port or machine to sleep, each with its remedy. Where nobody tells, that is said.
 */
</script>

<script setup lang="ts">
import type { ComputerShown } from '@plain-slate/api'
import { useSay } from '../base/said.ts'
import Columns from '../parts/Columns.vue'

defineProps<{ computers: readonly ComputerShown[] }>()
const say = useSay()
type Driver = ComputerShown['drivers'][number]

function stands({ is, version, newest, least }: Driver): string {
  const behind = newest - (version ?? 0)
  return say(`computer.driver.${is}`, { version: String(version ?? ''), newest, least, behind })
}
const isAmiss = ({ is }: Driver) => is === 'missing' || is === 'too-old'
/** What is seen beside the drivers, each with whether it wants something done. */
function others({ told, freeMiB, version, same }: ComputerShown) {
  const line = (amiss: boolean, text: string) => ({ amiss, text })
  const rivals = (told?.rivals ?? []).map(({ port, program }) =>
    line(true, say('computer.rival', { port, program })),
  )
  const saving = told?.powerSaving ?? []
  const hubs = told?.hubs ?? []
  return [
    ...rivals,
    ...(saving.length > 0
      ? [line(true, say('computer.saving', { ports: saving.join(', ') }))]
      : []),
    ...(hubs.length > 0 ? [line(true, say('computer.hub', { ports: hubs.join(', ') }))] : []),
    ...(told === null
      ? [line(false, say('computer.untold'))]
      : told.sleepMinutes === null
        ? [line(false, say('computer.awake'))]
        : [line(true, say('computer.sleeps', { n: told.sleepMinutes }))]),
    ...(told !== null && rivals.length === 0 ? [line(false, say('computer.alone'))] : []),
    ...(freeMiB === null ? [] : [line(false, say('computer.free', { n: freeMiB }))]),
    ...(version === null
      ? []
      : [line(!same, say(same ? 'computer.agent' : 'computer.agent.other', { version }))]),
  ]
}
</script>

<template>
  <section v-for="one in computers" :key="one.agent" data-claim="computer">
    <h2 :id="`computer-${one.agent}`">
      {{
        one.bench === null ? say('computer.title') : say('computer.title.of', { bench: one.bench })
      }}
      <small>{{ say('computer.holds', { ports: one.ports.join(', ') }) }}</small>
    </h2>
    <Columns
      v-if="one.drivers.length > 0"
      :by="`computer-${one.agent}`"
      :columns="[say('computer.driver'), say('computer.for'), say('computer.stands')]"
    >
      <tr v-for="driver in one.drivers" :key="driver.id" :data-driver="driver.id">
        <td>{{ driver.maker }}, {{ driver.name }}</td>
        <td>{{ driver.modes.join(', ') }}</td>
        <td :class="{ wrong: isAmiss(driver) }">{{ stands(driver) }}</td>
      </tr>
    </Columns>
    <ul>
      <li v-for="(line, index) in others(one)" :key="index" :class="{ wrong: line.amiss }">
        {{ line.text }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  padding: 1px 0;
}
.wrong {
  font-weight: 600;
  border-left: 4px solid var(--ochre);
  padding-left: 8px;
}
</style>
