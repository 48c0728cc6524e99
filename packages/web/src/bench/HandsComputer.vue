<script lang="ts">
/** What can be done with the computer of simulated devices: drivers put on and off, another program, what it saves. */
</script>

<script setup lang="ts">
import type { ComputerShown, StandInAct } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const props = defineProps<{ computer: ComputerShown }>()
const say = useSay()
const client = useQueryClient()
const act = useChange('handsAct')
const SLEEPS = 15

async function go(body: StandInAct) {
  await act.mutateAsync({ body }).catch(() => undefined)
  renew(client, 'bench')
}
const told = computed(() => props.computer.told)
/** Which computer is meant: the one of its ports. */
const at = computed(() => {
  const [port] = props.computer.ports
  return port === undefined ? {} : { at: port }
})
const rivalAt = (port: string) => told.value?.rivals.some((one) => one.port === port) === true
const savesAt = (port: string) => told.value?.powerSaving.includes(port) === true
const hubAt = (port: string) => told.value?.hubs.includes(port) === true
const versions = (newest: number) => Array.from({ length: newest }, (_, index) => index + 1)
function install(driver: string, event: Event) {
  const { value } = event.target as HTMLSelectElement
  void go({ kind: 'driver', driver, version: value === '' ? null : Number(value), ...at.value })
}
</script>

<template>
  <details v-if="told">
    <summary>
      {{
        computer.bench === null
          ? say('hands.computer')
          : say('computer.title.of', { bench: computer.bench })
      }}
    </summary>
    <p v-for="driver in computer.drivers" :key="driver.id">
      <label>
        {{ driver.maker }}, {{ driver.name }}
        <select class="pick" :value="driver.version ?? ''" @change="install(driver.id, $event)">
          <option value="">{{ say('hands.computer.none') }}</option>
          <option v-for="version in versions(driver.newest)" :key="version" :value="version">
            {{ say('hands.computer.version', { n: version }) }}
          </option>
        </select>
      </label>
    </p>
    <ul>
      <li v-for="port in computer.ports" :key="port">
        <span class="mono">{{ port }}</span>
        <button
          type="button"
          class="act"
          @click="
            go({ kind: 'rival', port, program: rivalAt(port) ? null : say('hands.computer.other') })
          "
        >
          {{ say(rivalAt(port) ? 'hands.rival.off' : 'hands.rival.on', { port }) }}
        </button>
        <button
          type="button"
          class="act"
          @click="go({ kind: 'power-saving', port, on: !savesAt(port) })"
        >
          {{ say(savesAt(port) ? 'hands.saving.off' : 'hands.saving.on', { port }) }}
        </button>
        <button type="button" class="act" @click="go({ kind: 'hub', port, on: !hubAt(port) })">
          {{ say(hubAt(port) ? 'hands.hub.off' : 'hands.hub.on', { port }) }}
        </button>
      </li>
    </ul>
    <p>
      <button
        type="button"
        class="act"
        @click="go({ kind: 'sleep', minutes: told.sleepMinutes === null ? SLEEPS : null, ...at })"
      >
        {{
          told.sleepMinutes === null ? say('hands.sleep.on', { n: SLEEPS }) : say('hands.sleep.off')
        }}
      </button>
    </p>
    <Trouble v-if="act.error.value" :trouble="troubleOf(act.error.value)" quiet />
  </details>
</template>

<style scoped>
details {
  border-top: 1px solid var(--rule);
  padding: 6px 0;
}
p {
  margin: 2px 0;
}
ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  padding: 2px 0;
}
.act {
  min-height: 26px;
}
</style>
