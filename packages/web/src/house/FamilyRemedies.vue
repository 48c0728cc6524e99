<script lang="ts">
/** What a family has tried in each trouble: the chance, what it costs, and on how many troubles that rests. */
</script>

<script setup lang="ts">
import type { Family, RemedyAct } from '@plain-slate/core'
import { TROUBLES, remediesFor } from '@plain-slate/core'
import { computed } from 'vue'
import Columns from '../parts/Columns.vue'
import { useSay } from '../base/said.ts'

const props = defineProps<{ family: Family }>()
const say = useSay()
const offered = computed(() =>
  TROUBLES.flatMap((trouble) => {
    const asked = { trouble, tried: new Set<RemedyAct>(), first: 'again' } as const
    const each = remediesFor(props.family, { ...asked, inDoubt: false, keepData: false })
    return each.map((one, at) => ({ ...one, rows: at === 0 ? each.length : 0 }))
  }),
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
        <th v-if="one.rows > 0" scope="rowgroup" :rowspan="one.rows">
          {{ say(`trouble.${one.trouble}`) }}
        </th>
        <td>{{ say(`remedy.does.${one.does}`) }}</td>
        <td class="mono">{{ one.chance }} %</td>
        <td class="mono">{{ one.minutes }}, {{ one.hands }}</td>
        <td class="mono">{{ one.of }}</td>
      </tr>
    </Columns>
  </template>
</template>
