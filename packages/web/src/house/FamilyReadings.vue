<script lang="ts">
/** Where each fact of a family's device is read, and how far each place is trusted. */
</script>

<script setup lang="ts">
import type { Fact, Family } from '@plain-slate/core'
import { trustOf } from '@plain-slate/core'
import { placeWords } from '@plain-slate/texts'
import { computed } from 'vue'
import Columns from '../parts/Columns.vue'
import { useSay } from '../base/said.ts'

const props = defineProps<{ family: Family }>()
const say = useSay()
const facts = computed(() =>
  Object.entries(props.family.facts).map(([name, places]) => {
    const fact = name as Fact
    return {
      fact,
      places: places.map((place) =>
        placeWords(say, props.family, {
          ...place,
          trust: trustOf(props.family, fact, place.source),
        }),
      ),
    }
  }),
)
</script>

<template>
  <h2 id="readings">
    {{ say('family.readings') }} <small>{{ say('family.readings.small') }}</small>
  </h2>
  <Columns by="readings" :columns="[say('readings.fact'), say('family.readings.small')]">
    <tr v-for="one in facts" :key="one.fact" :data-fact="one.fact">
      <th scope="row">{{ say(`fact.${one.fact}`) }}</th>
      <td>
        <span v-for="place in one.places" :key="place" class="place">{{ place }}</span>
      </td>
    </tr>
  </Columns>
</template>

<style scoped>
.place {
  display: block;
}
</style>
