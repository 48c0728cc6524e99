<script lang="ts">
/** The cables: named, struck out. Where each hangs is changed on the Bench. */
</script>

<script setup lang="ts">
import type { Bench } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import Columns from '../parts/Columns.vue'
import EmptyNote from '../parts/EmptyNote.vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const props = defineProps<{ bench: Bench; may: boolean }>()
const say = useSay()
const client = useQueryClient()
const add = useChange('cableAdd')
const strike = useChange('cableStrike')
const draft = reactive({ name: '', port: '', note: '' })
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
  await strike.mutateAsync({ params: { cable } }).catch(() => undefined)
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
    :columns="[
      say('bench.cable'),
      say('bench.hangs-on'),
      say('bench.history'),
      say('bench.note'),
      ...(may ? [say('house.act')] : []),
    ]"
  >
    <tr v-for="cable in bench.cables" :key="cable.name">
      <td class="mono">{{ cable.name }}</td>
      <td>
        <span v-if="cable.port" class="mono">{{ cable.port }}</span>
        <span v-else class="dim">{{ say('bench.in-drawer') }}</span>
      </td>
      <td>{{ say('bench.losses', { runs: cable.runs, losses: cable.losses }) }}</td>
      <td>{{ cable.note }}</td>
      <td v-if="may">
        <button
          type="button"
          class="act"
          :disabled="strike.isPending.value"
          @click="out(cable.name)"
        >
          {{ say('house.cable.strike', { cable: cable.name }) }}
        </button>
      </td>
    </tr>
  </Columns>
  <Trouble v-if="strike.error.value" :trouble="troubleOf(strike.error.value)" quiet />
  <form v-if="may" class="no-print" :aria-label="say('house.cable.add')" @submit.prevent="go">
    <div class="laid">
      <v-text-field v-model="draft.name" :label="say('house.cable.name')" maxlength="12" />
      <v-select v-model="draft.port" :items="places" :label="say('bench.hangs-on')" />
      <v-text-field v-model="draft.note" :label="say('bench.note')" maxlength="80" />
      <v-btn type="submit" :disabled="draft.name.trim() === '' || add.isPending.value">
        {{ say('house.cable.go') }}
      </v-btn>
    </div>
    <Trouble v-if="add.error.value" :trouble="troubleOf(add.error.value)" quiet />
  </form>
</template>

<style scoped>
.laid {
  display: grid;
  grid-template-columns: 120px 1fr 1fr auto;
  gap: 10px;
}
@media (max-width: 700px) {
  .laid {
    grid-template-columns: 1fr;
  }
}
</style>
