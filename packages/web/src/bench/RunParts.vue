<script lang="ts">
/** Partition by partition: what is new, what is in doubt, what is as it was, what was read back. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { RunShown } from '@plain-slate/api'
import { computed } from 'vue'
import { mib } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'

const props = defineProps<{ run: RunShown }>()
const say = useSay()
/* While somebody drives it, the piece under way is just that. */
const driven = computed(() => props.run.state === 'running' && props.run.word !== 'in-doubt')
const size = (bytes: number) =>
  bytes === 0 ? '' : say('run.mib', { n: mib(bytes * props.run.scale) })
</script>

<template>
  <h2 id="parts">{{ say('run.parts') }}</h2>
  <Columns
    by="parts"
    :columns="[
      say('run.parts.part'),
      say('run.parts.new'),
      say(driven ? 'run.parts.way' : 'run.parts.doubt'),
      say('run.parts.old'),
      say('run.parts.back'),
    ]"
  >
    <tr v-for="part in run.parts" :key="`${part.partition} ${part.image}`">
      <td class="mono">{{ part.partition }}</td>
      <td class="mono">{{ size(part.kept) }}</td>
      <td class="mono">
        <b>{{ size(part.doubt) }}</b>
      </td>
      <td class="mono dim">{{ size(part.bytes - part.kept - part.doubt) }}</td>
      <td :class="{ dim: !part.readBack }">
        {{ say(part.readBack ? 'run.parts.yes' : 'run.parts.no') }}
      </td>
    </tr>
  </Columns>
</template>
