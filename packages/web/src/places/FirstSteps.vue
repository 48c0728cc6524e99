<script lang="ts">
/** No slip is open: what a new shop still lacks before its first write, the next led to; else how one is opened. */
</script>

<script setup lang="ts">
import { computed } from 'vue'
import EmptyNote from '../parts/EmptyNote.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const families = useRead('families')
const bench = useRead('bench')
const shelf = useRead('shelf')
const isRead = computed(() =>
  [families, bench, shelf].every(({ data }) => data.value !== undefined),
)
const steps = computed(() => [
  { step: 'family', to: '/house/families', done: (families.data.value?.length ?? 0) > 0 },
  { step: 'port', to: '/house#house-ports', done: (bench.data.value?.ports.length ?? 0) > 0 },
  { step: 'cable', to: '/house#house-cables', done: (bench.data.value?.cables.length ?? 0) > 0 },
  {
    step: 'package',
    to: '/shelf',
    done: (shelf.data.value?.packages ?? []).some(({ state }) => state === 'whole'),
  },
  { step: 'slip', to: '/slips/new', done: false },
])
const next = computed(() => steps.value.find(({ done }) => !done)?.step)
</script>

<template>
  <EmptyNote v-if="isRead && next === 'slip'" :what="say('counter.none')" todo="">
    <router-link to="/slips/new">{{ say('slips.new') }}</router-link>
  </EmptyNote>
  <section v-else-if="isRead" aria-labelledby="first-steps">
    <h2 id="first-steps">{{ say('first.title') }}</h2>
    <ol>
      <li
        v-for="{ step, to, done } in steps"
        :key="step"
        :data-step="step"
        :aria-current="step === next ? 'step' : undefined"
      >
        <span class="word">{{ done ? say('first.done') : say('first.open') }}</span>
        <router-link :to="to">
          <b>{{ say(`first.${step as 'port'}`) }}</b>
        </router-link>
        <span class="dim why">{{ say(`first.${step as 'port'}.why`) }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  margin: 8px 0;
}
li {
  border-top: 1px solid var(--rule);
  padding: 9px 0;
}
li[aria-current] {
  border-left: 4px solid var(--sky);
  padding-left: 10px;
}
.why {
  margin-left: 8px;
}
.word {
  display: inline-block;
  width: 84px;
  color: var(--ink-2);
}
</style>
