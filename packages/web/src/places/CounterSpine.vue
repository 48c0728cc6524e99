<script setup lang="ts">
import { SLIP_STATES } from '@plain-slate/core'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import { useShop } from '../time/shop.ts'
import { dayAndMonth, weekday } from '../time/words.ts'

const say = useSay()
const slips = useRead('slips', { query: {} })
const { shop, now, zone } = useShop()
</script>

<template>
  <div v-if="shop" class="day">
    <span class="dim">{{ weekday(now, zone) }}</span>
    <b class="mono">{{ dayAndMonth(now, zone) }}</b>
    <span class="dim">{{ shop.name }}, {{ shop.place }}</span>
  </div>
  <ul>
    <li v-for="state in SLIP_STATES" :key="state">
      <router-link :to="`/slips?state=${state}`">
        <b>{{ say(`state.${state}`) }}</b>
        <span class="dim">
          {{ say('counter.spine.state', { n: slips.data.value?.states[state] ?? 0 }) }}
        </span>
      </router-link>
    </li>
  </ul>
</template>

<style scoped>
.day {
  font-size: 13px;
  margin-bottom: 14px;
  padding-right: 12px;
}
.day b {
  display: block;
  font-size: 22px;
  line-height: 1.2;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li a {
  display: block;
  padding: 6px 10px 6px 30px;
  color: var(--ink);
  text-decoration: none;
}
li a:hover {
  background: var(--sheet);
}
li b {
  font-weight: 600;
}
li b::first-letter {
  text-transform: uppercase;
}
li b {
  display: block;
}
li span {
  font-size: 12.5px;
}
@media (max-width: 700px) {
  ul {
    display: none;
  }
}
</style>
