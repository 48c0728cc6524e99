<script lang="ts">
/** What becomes of each of the customer's things, and why. */
</script>

<script setup lang="ts">
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
          <b :class="item.fate">{{ say(`fate.${item.fate}`) }}</b>
        </td>
        <td>{{ whyWords(item) }}</td>
      </tr>
    </tbody>
  </table>
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
