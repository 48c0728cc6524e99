<script lang="ts">
/** What a family has tried in each trouble: the chance, what it costs, and on how many troubles that rests. */
</script>

<script setup lang="ts">
import type { Family } from '@plain-slate/core'
import { TROUBLES, remediesFor } from '@plain-slate/core'
import { computed } from 'vue'
import Columns from '../parts/Columns.vue'
import { useSay } from '../base/said.ts'

const props = defineProps<{ family: Family }>()
const say = useSay()
const offered = computed(() =>
  TROUBLES.flatMap((trouble) =>
    remediesFor(props.family, {
      trouble,
      tried: new Set(),
      first: 'again',
      inDoubt: false,
      keepData: false,
    }),
  ),
)
</script>

<template>
  <template v-if="offered.length > 0">
    <h2 id="remedies">
      {{ say('family.remedies') }} <small>{{ say('family.remedies.small') }}</small>
    </h2>
    <Columns
      by="remedies"
      :columns="[
        say('family.remedies.trouble'),
        say('family.remedies.does'),
        say('family.remedies.chance'),
        say('family.remedies.cost'),
        say('family.remedies.of'),
      ]"
    >
      <tr v-for="one in offered" :key="`${one.trouble} ${one.does}`">
        <td>{{ say(`trouble.${one.trouble}`) }}</td>
        <th scope="row">{{ say(`remedy.does.${one.does}`) }}</th>
        <td class="mono">{{ one.chance }} %</td>
        <td class="mono">{{ one.minutes }}, {{ one.hands }}</td>
        <td class="mono">{{ one.of }}</td>
      </tr>
    </Columns>
  </template>
</template>
