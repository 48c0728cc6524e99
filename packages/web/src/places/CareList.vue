<script lang="ts">
/** Copies of customers' data that are still kept, and what is to be done with each; nothing where none is. */
</script>

<script setup lang="ts">
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import { useShop } from '../time/shop.ts'

const say = useSay()
const { now, when } = useShop()
const care = useRead('care')
const isLate = (due: string) => Date.parse(due) < now.value
</script>

<template>
  <template v-if="(care.data.value ?? []).length > 0">
    <h2 id="care">
      {{ say('counter.care') }} <small>{{ say('counter.care.small') }}</small>
    </h2>
    <ul class="next-up" aria-labelledby="care">
      <li v-for="one in care.data.value" :key="one.number" :data-care="one.number">
        <router-link class="mono" :to="`/slips/${one.number}/hand-back`">{{
          one.number
        }}</router-link>
        <span>
          <b>{{ one.device }}</b> <span class="dim">{{ one.customer }}</span>
        </span>
        <span>{{
          say(one.care === 'delete-copy' ? 'counter.care.delete' : 'counter.care.ask')
        }}</span>
        <span :class="{ late: isLate(one.due) }">
          {{ when(one.due) }} {{ isLate(one.due) ? say('counter.late') : '' }}
        </span>
      </li>
    </ul>
  </template>
</template>

<style scoped>
.late {
  color: var(--brick);
  font-weight: 600;
}
</style>
