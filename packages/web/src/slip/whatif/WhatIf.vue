<script lang="ts">
/**
 * What if, beside the routes: something is supposed, the same rules judge it in this browser, and the routes move.
 * Nothing of the slip is touched until it is taken over.
 */
</script>

<script setup lang="ts">
import type { PackedState } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import Margin from '../../parts/Margin.vue'
import Trouble from '../../parts/Trouble.vue'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange, useRead } from '../../server/query.ts'
import { useJob } from '../job.ts'
import { useSlip } from '../slip.ts'
import WhatIfRoutes from './WhatIfRoutes.vue'
import type { Item, Thing } from './draft.ts'
import { THINGS_SUPPOSED, intentOf, linesOf, nameOf, supposedOf } from './draft.ts'
import { movedIn, useWhatIf } from './what-if.ts'

const say = useSay()
const client = useQueryClient()
const { params, job, may, tell, put } = useJob()
const { slip } = useSlip()
const head = useChange('slipChange')
const items = reactive<Item[]>([])
const reason = ref('')
const chosen = ref('')
const read = useRead('jobCase', () => ({ params: params.value }), { keep: true })
const state = computed(() => (read.data.value?.state ?? undefined) as PackedState | undefined)
const supposed = computed(() => supposedOf(items))
const { answer, failed, busy } = useWhatIf(state, supposed)
const moved = computed(() => (answer.value === undefined ? undefined : movedIn(answer.value)))
const others = computed(() =>
  THINGS_SUPPOSED.filter((one) => !items.some(({ thing }) => nameOf(thing) === nameOf(one))),
)

function label({ kind, name }: Thing): string {
  if (kind === 'intent' || kind === 'data') return say(`what-if.${kind}`)
  if (kind === 'line') return say(`topic.${name}`)
  return kind === 'house' ? say(`house.rule.${name}`) : say(`fact.${name}`)
}
function option({ kind, name }: Thing, value: string): string {
  if (kind === 'intent') return say(`intent.${value as 'update'}`)
  if (kind === 'house') return say(`house.${name}.${value}` as 'house.writes.least')
  return say(`answer.${value as 'yes'}`)
}
/** Begins with what a fact is now; of what is chosen with what it is not. */
function valueNow(thing: Thing): string {
  if (thing.kind !== 'fact') return String(thing.of.at(-1) ?? '')
  return String(job.data.value?.facts.find(({ fact }) => fact === thing.name)?.value ?? '')
}
function add() {
  const thing = others.value.find((one) => nameOf(one) === chosen.value)
  if (thing !== undefined) items.push({ thing, value: valueNow(thing) })
  chosen.value = ''
}
const reset = () => void items.splice(0)

/** What a slip takes over: the wish, what people say, where it departs from its house. Facts are read. */
const takes = computed(() => intentOf(items) !== undefined || linesOf(items).length > 0)
const leaves = computed(() =>
  items.some(({ thing }) => thing.kind === 'fact' || thing.kind === 'data'),
)
const error = computed(() => head.error.value ?? put.error.value)
const ready = computed(
  () =>
    may.value &&
    takes.value &&
    reason.value.trim() !== '' &&
    !put.isPending.value &&
    !head.isPending.value,
)
async function takeOver() {
  /* Enter in a field of what is supposed takes nothing over. */
  if (!ready.value) return
  const from = slip.data.value?.intent
  const to = intentOf(items)
  if (to !== undefined && from !== undefined) {
    const body = { intent: { from, to } }
    const done = await head.mutateAsync({ params: params.value, body }).catch(() => undefined)
    if (done === undefined) return
  }
  const lines = linesOf(items).map((one) => ({ ...one, note: reason.value.trim() }))
  if (lines.length > 0) await tell(lines)
  renew(client, 'slip')
  if (put.error.value === null) reset()
}
</script>

<template>
  <Margin :title="say('what-if.title')" :right="busy ? say('what-if.busy') : ''">
    <p class="dim small">{{ say('what-if.lede') }}</p>
    <form class="asked no-print" @submit.prevent="takeOver">
      <label v-for="(item, index) in items" :key="nameOf(item.thing)">
        {{ label(item.thing) }}
        <span class="row">
          <select v-if="item.thing.of" v-model="item.value">
            <option v-for="one in item.thing.of" :key="one" :value="one">
              {{ option(item.thing, one) }}
            </option>
          </select>
          <input v-else v-model="item.value" maxlength="80" :placeholder="say('what-if.unread')" />
          <button type="button" class="act" @click="items.splice(index, 1)">
            {{ say('what-if.drop') }}<span class="visually-hidden">{{ label(item.thing) }}</span>
          </button>
        </span>
      </label>
      <label>
        {{ say('what-if.add') }}
        <select v-model="chosen" @change="add">
          <option value="">{{ say('what-if.none') }}</option>
          <option v-for="one in others" :key="nameOf(one)" :value="nameOf(one)">
            {{ label(one) }}
          </option>
        </select>
      </label>
      <template v-if="items.length > 0">
        <template v-if="may && takes">
          <v-text-field v-model="reason" :label="say('what-if.reason')" maxlength="300" />
          <button type="submit" class="act" :disabled="!ready">
            {{ say('what-if.take') }}
          </button>
        </template>
        <p v-if="leaves" class="dim small">{{ say('what-if.facts') }}</p>
        <button type="button" class="act" @click="reset">{{ say('what-if.reset') }}</button>
      </template>
    </form>
    <Trouble v-if="error" :trouble="troubleOf(error)" quiet />
    <p v-if="failed" class="amiss small" role="alert">
      {{ say('what-if.failed', { what: failed }) }}
    </p>
    <p v-if="read.data.value && state === undefined" class="dim small">
      {{ say('routes.title.unread') }}
    </p>
    <WhatIfRoutes v-if="moved && answer" v-bind="moved" :blocked="answer.blocked" />
  </Margin>
</template>

<style scoped>
.asked {
  display: grid;
  gap: 6px;
}
label {
  display: grid;
  gap: 2px;
  font-size: 13px;
  color: var(--ink-2);
}
select,
input {
  font: inherit;
  color: var(--ink);
  background: var(--raised);
  border: 1px solid var(--rule);
  border-radius: 3px;
  padding: 4px 6px;
  min-width: 0;
  width: 100%;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: center;
}
</style>
