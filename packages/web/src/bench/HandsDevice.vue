<script lang="ts">
/** One simulated device: where it is, and what hands can do with it now. */
</script>

<script setup lang="ts">
import type { StandInAct, StandInDevice } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const props = defineProps<{
  device: StandInDevice
  ports: readonly string[]
  may: boolean
}>()
const say = useSay()
const client = useQueryClient()
const act = useChange('handsAct')
const CHARGED = 80

async function go(body: StandInAct) {
  await act.mutateAsync({ body }).catch(() => undefined)
  renew(client, 'bench')
}
const serial = computed(() => props.device.serial)
const mode = computed(() =>
  props.device.mode === null ? say('hands.restarting') : props.device.mode.name,
)
const place = computed(() => {
  const { port, battery: n } = props.device
  const about = { mode: mode.value, n }
  return port === null ? say('hands.off', about) : say('hands.at', { ...about, port })
})
const refused = computed(() =>
  act.data.value?.done === false ? act.data.value.sentence : undefined,
)
function plug(event: Event) {
  const port = (event.target as HTMLSelectElement).value
  if (port !== '') void go({ kind: 'plug', serial: serial.value, port })
}
</script>

<template>
  <section :aria-label="device.name">
    <b>{{ device.name }}</b>
    <p>
      <span class="mono">{{ device.model }} {{ device.serial }}</span>
    </p>
    <p class="dim">
      {{ place }}<template v-if="device.cellOut">, {{ say('hands.cell-out') }}</template>
    </p>
    <ul v-if="may">
      <li v-if="device.port === null">
        <label>
          {{ say('hands.plug') }}
          <select
            class="pick"
            value=""
            :aria-label="say('hands.plug.of', { serial: device.serial })"
            @change="plug"
          >
            <option value="" />
            <option v-for="port in ports" :key="port">{{ port }}</option>
          </select>
        </label>
      </li>
      <li v-else>
        <button type="button" class="act" @click="go({ kind: 'unplug', serial })">
          {{ say('hands.unplug') }}
        </button>
      </li>
      <li v-if="device.removable">
        <button
          type="button"
          class="act"
          @click="go({ kind: device.cellOut ? 'cell-in' : 'cell-out', serial })"
        >
          {{ say(device.cellOut ? 'hands.cell.in' : 'hands.cell.out') }}
        </button>
      </li>
      <li v-if="device.battery < CHARGED">
        <button type="button" class="act" @click="go({ kind: 'charge', serial, percent: CHARGED })">
          {{ say('hands.charge') }}
        </button>
      </li>
      <li v-if="device.mode?.kind === 'system'">
        <button
          type="button"
          class="act"
          @click="go({ kind: 'permit', serial, given: !device.permission })"
        >
          {{ say(device.permission ? 'hands.permit.off' : 'hands.permit.on') }}
        </button>
      </li>
      <li v-if="device.canReset">
        <button type="button" class="act" @click="go({ kind: 'reset', serial })">
          {{ say('hands.reset') }}
        </button>
      </li>
      <li v-if="device.mode?.kind === 'system' && device.lockSwitch !== null">
        <button
          type="button"
          class="act"
          @click="go({ kind: 'lock-switch', serial, on: !device.lockSwitch })"
        >
          {{ say(device.lockSwitch ? 'hands.lock-switch.off' : 'hands.lock-switch.on') }}
        </button>
      </li>
      <li v-for="store in device.installs" :key="store.id">
        <button type="button" class="act" @click="go({ kind: 'install', serial, store: store.id })">
          {{ say('hands.install', { store: store.name }) }}
        </button>
      </li>
      <li v-if="device.asks !== null">
        <button type="button" class="act" @click="go({ kind: 'confirm', serial })">
          {{ say('hands.confirm', { say: device.asks }) }}
        </button>
      </li>
      <li v-for="key in device.keys" :key="key.to.id">
        <button
          type="button"
          class="act"
          :title="key.say"
          @click="go({ kind: 'keys', serial, to: key.to.id })"
        >
          {{ say('hands.keys', { to: key.to.name }) }}
        </button>
      </li>
    </ul>
    <p v-if="refused" role="status">{{ refused }}</p>
    <Trouble v-if="act.error.value" :trouble="troubleOf(act.error.value)" quiet />
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
p {
  margin: 1px 0 0;
  overflow-wrap: anywhere;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 3px 14px;
}
</style>
