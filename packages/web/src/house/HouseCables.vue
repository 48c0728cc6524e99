<script lang="ts">
/** The cables: named, struck out for good, which is held. Where each hangs is changed on the Bench. */
</script>

<script setup lang="ts">
import type { Bench } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import Columns from '../parts/Columns.vue'
import EmptyNote from '../parts/EmptyNote.vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'
import HoldButton from '../keys/HoldButton.vue'
import LaidForm from './LaidForm.vue'

const props = defineProps<{ bench: Bench; may: boolean }>()
const say = useSay()
const client = useQueryClient()
const add = useChange('cableAdd')
const strike = useChange('cableStrike')
const draft = reactive({ name: '', port: '', note: '' })
/** The cable that is to be struck out. */
const worn = ref('')
const places = computed(() => [
  { value: '', title: say('bench.in-drawer') },
  ...props.bench.ports.map(({ name }) => ({ value: name, title: name })),
])

async function go() {
  const { name, port, note } = draft
  const body = { name, note, port: port === '' ? null : port }
  const done = await add.mutateAsync({ body }).catch(() => undefined)
  renew(client, 'bench')
  if (done !== undefined) Object.assign(draft, { name: '', port: '', note: '' })
}
async function out(cable: string) {
  const done = await strike.mutateAsync({ params: { cable } }).catch(() => undefined)
  if (done !== undefined) worn.value = ''
  renew(client, 'bench')
}
</script>

<template>
  <EmptyNote
    v-if="bench.cables.length === 0"
    :what="say('house.cables.none')"
    :todo="say('house.cables.none.todo')"
  />
  <Columns
    v-else
    by="house-cables"
    :columns="[say('bench.cable'), say('bench.hangs-on'), say('bench.history'), say('bench.note')]"
  >
    <tr v-for="cable in bench.cables" :key="cable.name">
      <td class="mono">{{ cable.name }}</td>
      <td>
        <span v-if="cable.port" class="mono">{{ cable.port }}</span>
        <span v-else class="dim">{{ say('bench.in-drawer') }}</span>
      </td>
      <td>{{ say('bench.losses', { runs: cable.runs, losses: cable.losses }) }}</td>
      <td>{{ cable.note }}</td>
    </tr>
  </Columns>
  <p v-if="may && bench.cables.length > 0" class="row no-print">
    <select v-model="worn" class="pick" :aria-label="say('house.cable.worn')">
      <option value="">{{ say('house.cable.worn') }}</option>
      <option v-for="{ name } in bench.cables" :key="name" :value="name">{{ name }}</option>
    </select>
    <HoldButton
      v-if="worn !== ''"
      :label="say('house.cable.strike', { cable: worn })"
      :disabled="strike.isPending.value"
      @held="out(worn)"
    />
  </p>
  <Trouble v-if="strike.error.value" :trouble="troubleOf(strike.error.value)" quiet />
  <LaidForm
    v-if="may"
    :label="say('house.cable.add')"
    :go="say('house.cable.go')"
    :disabled="draft.name.trim() === '' || add.isPending.value"
    :error="add.error.value"
    @named="go"
  >
    <v-text-field v-model="draft.name" :label="say('house.cable.name')" maxlength="12" />
    <v-select v-model="draft.port" :items="places" :label="say('bench.hangs-on')" />
    <v-text-field v-model="draft.note" :label="say('bench.note')" maxlength="80" />
  </LaidForm>
</template>
