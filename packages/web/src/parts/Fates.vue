<script lang="ts">
/** What becomes of each of the customer's things, and why. */
</script>

<script setup lang="ts">
import Columns from './Columns.vue'
import type { PlanShown } from '@plain-slate/api'
import { sayAny } from '@plain-slate/texts'
import { useBrowserStore } from '../base/browser.ts'
import { useSay } from '../base/said.ts'

defineProps<{ fates: PlanShown['fates'] }>()
const say = useSay()
const browser = useBrowserStore()
const whyWords = ({ why, partition }: PlanShown['fates'][number]) =>
  sayAny(browser.language, `fate.why.${why}`, { partition })
</script>

<template>
  <h2 id="fates">{{ say('plan.fates') }}</h2>
  <Columns
    by="fates"
    :columns="[say('plan.fate.item'), say('plan.fate.will'), say('plan.fate.why')]"
  >
    <tr v-for="item in fates" :key="item.item" :data-item="item.item">
      <td>{{ item.name }}</td>
      <td>
        <b :class="item.fate">{{ say(`fate.${item.fate}`) }}</b>
      </td>
      <td>{{ whyWords(item) }}</td>
    </tr>
  </Columns>
</template>

<style scoped>
.kept {
  color: var(--lichen);
}
.wiped,
.unpromised,
.unreadable {
  color: var(--brick);
}
</style>
