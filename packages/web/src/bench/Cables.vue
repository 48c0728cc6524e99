<script lang="ts">
/** The cables: where each hangs, how often a run lost its device on it. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { Bench } from '@plain-slate/api'
import { leastOf, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import EmptyNote from '../parts/EmptyNote.vue'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

defineProps<{ bench: Bench }>()
const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const move = useChange('cableMove')
const mayMove = computed(() => reaches(session.person?.role, leastOf('bench.hands')))

async function hang(cable: string, event: Event) {
  const port = (event.target as HTMLSelectElement).value
  await move
    .mutateAsync({ body: { cable, port: port === '' ? null : port } })
    .catch(() => undefined)
  renew(client, 'bench')
}
</script>

<template>
  <h2 id="cables">
    {{ say('bench.cables') }} <small>{{ say('bench.cables.small') }}</small>
  </h2>
  <Trouble v-if="move.error.value" :trouble="troubleOf(move.error.value)" quiet />
  <EmptyNote v-if="bench.cables.length === 0" :what="say('house.cables.none')" todo="">
    <router-link to="/house#house-cables">{{ say('bench.none.cables') }}</router-link>
  </EmptyNote>
  <Columns
    v-else
    by="cables"
    :columns="[say('bench.cable'), say('bench.hangs-on'), say('bench.history'), say('bench.note')]"
  >
    <tr v-for="cable in bench.cables" :key="cable.name">
      <td class="mono">{{ cable.name }}</td>
      <td>
        <select
          v-if="mayMove"
          class="pick"
          :value="cable.port ?? ''"
          :aria-label="say('bench.hangs-on.of', { cable: cable.name })"
          @change="hang(cable.name, $event)"
        >
          <option value="">{{ say('bench.in-drawer') }}</option>
          <option v-for="port in bench.ports" :key="port.name" :value="port.name">
            {{ port.name }}
          </option>
        </select>
        <span v-else-if="cable.port" class="mono">{{ cable.port }}</span>
        <span v-else class="dim">{{ say('bench.in-drawer') }}</span>
      </td>
      <td>{{ say('bench.losses', { runs: cable.runs, losses: cable.losses }) }}</td>
      <td>{{ cable.note }}</td>
    </tr>
  </Columns>
</template>
