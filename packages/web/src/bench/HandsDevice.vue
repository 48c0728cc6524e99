<script lang="ts">
/** One simulated device: where it is, and what hands can do with it now. */
</script>

<script setup lang="ts">
import type { StandInAct, StandInDevice } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
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
const percent = ref(CHARGED)

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
/** What goes wrong with it, and is mended: by a button, or of a list. */
const wrongs = computed((): readonly Offered[] => {
  const { chord, serial: of } = props.device
  return [
    ...chord.flatMap(({ key, works }): readonly Offered[] =>
      works
        ? []
        : [
            {
              label: say('hands.key.mend', { key }),
              act: { kind: 'key', serial: of, key, works: true },
            },
          ],
    ),
    { label: say('hands.like'), act: { kind: 'like', serial: of } },
  ]
})
/** Lists of which one thing is chosen, each with what is done with it. */
const lists = computed(() => {
  const { chord, parts, serial: of } = props.device
  const whole = chord.flatMap(({ key, works }) => (works ? [key] : []))
  return [
    {
      label: say('hands.key.break'),
      name: say('hands.key.of', { serial: of }),
      options: whole,
      act: (key: string): StandInAct => ({ kind: 'key', serial: of, key, works: false }),
    },
    {
      label: say('hands.tear'),
      name: say('hands.tear.of', { serial: of }),
      options: parts,
      act: (part: string): StandInAct => ({ kind: 'tear', serial: of, part }),
    },
  ].filter(({ options }) => options.length > 0)
})
/** Does what was chosen of a list, which then shows nothing again. */
function choose(event: Event, act: (value: string) => StandInAct) {
  const list = event.target as HTMLSelectElement
  const { value } = list
  list.value = ''
  if (value !== '') void go(act(value))
}
const plug = (port: string): StandInAct => ({ kind: 'plug', serial: serial.value, port })
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
          @change="choose($event, plug)"
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
        <li>
          <form @submit.prevent="go({ kind: 'charge', serial, percent })">
            <input
              v-model.number="percent"
              class="pick mono"
              type="number"
              min="1"
              max="100"
              :aria-label="say('hands.charge.to', { serial })"
            />
            <button class="act">{{ say('hands.charge', { n: percent }) }}</button>
          </form>
        </li>
      </ul>
      <details>
        <summary>{{ say('hands.wrong') }}</summary>
        <ul>
          <li v-for="one in wrongs" :key="one.label">
            <button type="button" class="act" @click="go(one.act)">{{ one.label }}</button>
          </li>
          <li v-for="list in lists" :key="list.name">
            <label>
              {{ list.label }}
              <select
                class="pick"
                value=""
                :aria-label="list.name"
                @change="choose($event, list.act)"
              >
                <option value="" />
                <option v-for="one in list.options" :key="one">{{ one }}</option>
              </select>
            </label>
          </li>
        </ul>
      </details>
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
form {
  display: inline-flex;
  align-items: baseline;
  gap: 8px;
}
input[type='number'] {
  width: 64px;
}
/* A target by itself, however near the next one lies. */
summary {
  padding: 4px 0;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 8px 14px;
}
</style>
