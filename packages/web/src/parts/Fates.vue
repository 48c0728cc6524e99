<script lang="ts">
/** What becomes of each of the customer's things, and why. */
</script>

<script setup lang="ts">
import type { PlanShown } from '@plain-slate/api'
import { useSay } from '../said.ts'

defineProps<{ fates: PlanShown['fates'] }>()
const say = useSay()
</script>

<template>
  <h2 id="fates">{{ say('plan.fates') }}</h2>
  <table class="rows" aria-labelledby="fates">
    <thead>
      <tr>
        <th scope="col">{{ say('plan.fate.item') }}</th>
        <th scope="col">{{ say('plan.fate.will') }}</th>
        <th scope="col">{{ say('plan.fate.why') }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="item in fates" :key="item.item" :data-item="item.item">
        <td>{{ item.name }}</td>
        <td>
          <b :class="item.fate">{{ say(`fate.${item.fate as 'kept'}`) }}</b>
        </td>
        <td>{{ say(`fate.why.${item.why as 'erased'}`, { partition: item.partition }) }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.kept {
  color: var(--lichen);
}
.wiped,
.unreadable {
  color: var(--brick);
}
</style>
