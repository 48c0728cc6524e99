<script lang="ts">
/** The ports: what answers there by which way, struck out by the house that named them; and the form for a new one. */
</script>

<script setup lang="ts">
import type { Bench } from '@plain-slate/api'
import { portWord } from '@plain-slate/texts'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import Columns from '../parts/Columns.vue'
import EmptyNote from '../parts/EmptyNote.vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'
import LaidForm from './LaidForm.vue'

const props = defineProps<{ bench: Bench; may: boolean }>()
const say = useSay()
const client = useQueryClient()
const add = useChange('portAdd')
const strike = useChange('portStrike')
const draft = reactive({ name: '', address: '', note: '', agent: '' })
/** Whose port it is is asked only where more than one bench lives. */
const benches = computed(() =>
  props.bench.computers.length < 2
    ? []
    : props.bench.computers.map(({ agent, bench }) => ({ value: agent, title: bench ?? agent })),
)
const isWhole = computed(() => draft.name.trim() !== '' && draft.address.trim() !== '')

async function go() {
  const { agent, ...rest } = draft
  const body = agent === '' ? rest : { ...rest, agent }
  const done = await add.mutateAsync({ body }).catch(() => undefined)
  renew(client, 'bench')
  if (done !== undefined) Object.assign(draft, { name: '', address: '', note: '' })
}
async function out(port: string) {
  await strike.mutateAsync({ params: { port } }).catch(() => undefined)
  renew(client, 'bench')
}
</script>

<template>
  <EmptyNote
    v-if="bench.ports.length === 0"
    :what="say('house.ports.none')"
    :todo="say('house.ports.none.todo')"
  />
  <Columns
    v-else
    by="house-ports"
    :columns="[
      say('bench.port'),
      say('house.port.way'),
      say('bench.state'),
      say('bench.note'),
      ...(may ? [say('house.act')] : []),
    ]"
  >
    <tr v-for="port in bench.ports" :key="port.name">
      <td>
        <router-link class="mono" :to="`/bench/${port.name}`">{{ port.name }}</router-link>
      </td>
      <td>
        <span v-if="port.way" class="mono">{{ port.way }}</span>
        <span v-else class="dim">{{ say('house.port.nobody') }}</span>
      </td>
      <td>{{ portWord(say, port) }}</td>
      <td>{{ port.note }}</td>
      <td v-if="may">
        <button
          v-if="port.ours || !port.way"
          type="button"
          class="act"
          :disabled="strike.isPending.value"
          @click="out(port.name)"
        >
          {{ say('house.port.strike', { port: port.name }) }}
        </button>
        <span v-else class="dim small">{{ say('house.port.filed') }}</span>
      </td>
    </tr>
  </Columns>
  <Trouble v-if="strike.error.value" :trouble="troubleOf(strike.error.value)" quiet />
  <LaidForm
    v-if="may"
    :label="say('house.port.add')"
    :go="say('house.port.go')"
    :disabled="!isWhole || add.isPending.value"
    :error="add.error.value"
    :wide="benches.length > 0"
    @named="go"
  >
    <v-text-field v-model="draft.name" :label="say('house.port.name')" maxlength="12" />
    <v-text-field
      v-model="draft.address"
      class="mono"
      :label="say('house.port.address')"
      placeholder="tcp:127.0.0.1:4100"
      maxlength="120"
    />
    <v-text-field v-model="draft.note" :label="say('bench.note')" maxlength="80" />
    <v-select
      v-if="benches.length > 0"
      v-model="draft.agent"
      :items="benches"
      :label="say('house.port.bench')"
    />
    <template #hint>
      <p class="dim small">{{ say('house.port.hint') }}</p>
    </template>
  </LaidForm>
</template>
