<script lang="ts">
/** One simulated device: where it is, and what hands can do with it now. */
</script>

<script setup lang="ts">
import type { StandInAct, StandInDevice } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import Trouble from '../parts/Trouble.vue'
import HeldButton from './HeldButton.vue'
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
type Offered = { readonly label: string; readonly act: StandInAct; readonly title?: string }
/** What hands can do as it is now, each by its words. */
const acts = computed((): readonly Offered[] => {
  const { device } = props
  const { serial: of } = device
  const runs = device.mode?.kind === 'system'
  const offer = (is: boolean, label: string, act: StandInAct): readonly Offered[] =>
    is ? [{ label, act }] : []
  const cell = device.cellOut ? 'in' : 'out'
  const permit = device.permission ? 'off' : 'on'
  const opens = device.lockSwitch === true ? 'off' : 'on'
  return [
    ...offer(device.port !== null, say('hands.unplug'), { kind: 'unplug', serial: of }),
    ...offer(device.removable, say(`hands.cell.${cell}`), { kind: `cell-${cell}`, serial: of }),
    ...offer(device.battery < CHARGED, say('hands.charge'), {
      kind: 'charge',
      serial: of,
      percent: CHARGED,
    }),
    ...offer(runs, say(`hands.permit.${permit}`), {
      kind: 'permit',
      serial: of,
      given: !device.permission,
    }),
    ...offer(device.canReset, say('hands.reset'), { kind: 'reset', serial: of }),
    ...offer(runs && device.lockSwitch !== null, say(`hands.lock-switch.${opens}`), {
      kind: 'lock-switch',
      serial: of,
      on: device.lockSwitch !== true,
    }),
    ...offer(runs && device.account, say('hands.sign-out'), { kind: 'sign-out', serial: of }),
    ...device.installs.map(({ id: store, name }) => ({
      label: say('hands.install', { store: name }),
      act: { kind: 'install', serial: of, store } as const,
    })),
    ...offer(device.asks !== null, say('hands.confirm', { say: device.asks ?? '' }), {
      kind: 'confirm',
      serial: of,
    }),
    ...device.keys.flatMap(({ to, say: title, held }) =>
      held !== null
        ? []
        : [
            {
              label: say('hands.keys', { to: to.name }),
              act: { kind: 'keys', serial: of, to: to.id } as const,
              title,
            },
          ],
    ),
  ]
})
/** Keys of which it matters how long they are held. */
const timed = computed(() =>
  props.device.keys.flatMap(({ to, say: title, held }) =>
    held === null ? [] : [{ to: to.id, label: say('hands.keys', { to: to.name }), title, held }],
  ),
)
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
    <p v-if="may && device.port === null">
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
    </p>
    <component :is="device.port === null ? 'details' : 'div'" v-if="may">
      <summary v-if="device.port === null">{{ say('hands.more') }}</summary>
      <ul>
        <li v-for="one in timed" :key="one.to">
          <HeldButton
            :label="one.label"
            :band="one.held"
            :title="one.title"
            @held="(held) => go({ kind: 'keys', serial, to: one.to, held })"
          />
        </li>
        <li v-for="one in acts" :key="one.label">
          <button type="button" class="act" :title="one.title" @click="go(one.act)">
            {{ one.label }}
          </button>
        </li>
      </ul>
    </component>
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
