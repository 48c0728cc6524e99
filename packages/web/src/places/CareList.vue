<script lang="ts">
/** What is due on slips after their work, the first first; nothing where nothing is. */
</script>

<script setup lang="ts">
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import { addressOf } from '../server/call.ts'
import { useRead } from '../server/query.ts'
import { dayAndMonth } from '../time/words.ts'
import { useShop } from '../time/shop.ts'

const say = useSay()
const { now, when } = useShop()
const care = useRead('care')
/** A day is told a week before; a copy of somebody's data for as long as it is kept. */
const SOON_MS = 7 * 86_400_000
const all = computed(() => care.data.value ?? [])
const near = computed(() =>
  all.value.filter((one) => isCopy(one.care) || Date.parse(one.due) <= now.value + SOON_MS),
)
const later = computed(() => all.value.length - near.value.length)
/** A copy is due on an hour, whatever else on a day. */
const isCopy = (care: string) => care === 'ask-owner' || care === 'delete-copy'
const isLate = (due: string) => Date.parse(due) < now.value
</script>

<template>
  <template v-if="all.length > 0">
    <h2 id="care">
      {{ say('counter.care') }} <small>{{ say('counter.care.small') }}</small>
    </h2>
    <ul v-if="near.length > 0" class="next-up" aria-labelledby="care">
      <li
        v-for="one in near"
        :key="`${one.number} ${one.care}`"
        :data-care="one.number"
        :data-what="one.care"
      >
        <router-link class="mono" :to="`/slips/${one.number}/hand-back`">{{
          one.number
        }}</router-link>
        <span>
          <b>{{ one.device }}</b> <span class="dim">{{ one.customer }}</span>
        </span>
        <span>{{ say(`counter.care.${one.care}`) }}</span>
        <span :class="{ late: isLate(one.due) }">
          {{ isCopy(one.care) ? when(one.due) : dayAndMonth(Date.parse(one.due), 'UTC') }}
          {{ isLate(one.due) ? say('counter.late') : '' }}
        </span>
      </li>
    </ul>
    <p class="small no-print">
      <template v-if="later > 0">{{ say('counter.care.later', { n: later }) }} </template>
      <a :href="addressOf('careFile', {})">{{ say('counter.care.calendar') }}</a>
    </p>
  </template>
</template>

<style scoped>
.late {
  color: var(--brick);
  font-weight: 600;
}
</style>
