<script lang="ts">
/** Where no route is open, or none that reaches the wish: the smallest sets of what would open one, each with what can be done about it. */
</script>

<script setup lang="ts">
import type { BlockedShown } from '@plain-slate/api'
import { movesWords } from '@plain-slate/texts'
import { useSay } from '../../base/said.ts'
import FindingList from './FindingList.vue'

defineProps<{ blocked: readonly BlockedShown[]; title?: string }>()
const say = useSay()
</script>

<template>
  <h2>{{ title ?? say('routes.blocked') }}</h2>
  <ul class="blocked">
    <li v-for="one in blocked" :key="one.package" :data-blocked="one.package">
      <b>
        <template v-if="one.first.length > 0">{{
          say('routes.first', { first: movesWords(say, one.first) }) + ' '
        }}</template>
        <span class="mono">{{ one.title }}</span><template v-if="one.then.length > 0">{{
          ', ' + say('routes.then', { then: movesWords(say, one.then) })
        }}</template>
      </b>
      <span class="dim small block">{{
        say('routes.blocked.for', { title: one.title, n: one.obstacles.length })
      }}</span>
      <FindingList
        v-for="{ finding, package: pack } in one.obstacles"
        :key="`${finding.rule} ${pack}`"
        :findings="[finding]"
        :package="pack"
      />
    </li>
  </ul>
</template>

<style scoped>
.blocked {
  list-style: none;
  margin: 0;
  padding: 0;
}
.blocked > li {
  border-top: 1px solid var(--rule);
  padding: 9px 0;
}
.block {
  display: block;
}
</style>
