<script lang="ts">
/** The top: name, places with their keys, the find box, the shop's clock, the person. */
</script>

<script setup lang="ts">
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { useSay } from '../base/said.ts'
import { useShop } from '../time/shop.ts'
import { clockTime } from '../time/words.ts'
import FindBox from './FindBox.vue'
import PersonMark from './PersonMark.vue'
import { PLACES, aroundKey } from './places.ts'

const emit = defineEmits<{ keys: [] }>()
const say = useSay()
const route = useRoute()
const { shop, now, zone } = useShop()
const box = ref<InstanceType<typeof FindBox>>()

defineExpose({
  find: () => box.value?.focus(),
  scanned: (text: string) => box.value?.take(text),
})
</script>

<template>
  <header class="top">
    <router-link to="/counter" class="mark"
      ><i aria-hidden="true" />{{ say('app.name') }}</router-link
    >
    <nav class="places" :aria-label="say('frame.places')">
      <router-link
        v-for="place in PLACES"
        :key="place.name"
        :to="place.path"
        :class="{ on: route.meta.place === place.name }"
        :aria-current="route.meta.place === place.name ? 'page' : undefined"
        :aria-keyshortcuts="place.key"
      >
        <template v-for="(part, at) in aroundKey(say(place.label), place.key)" :key="at">
          <u v-if="at === 1">{{ part }}</u><template v-else>{{ part }}</template>
        </template>
      </router-link>
    </nav>
    <FindBox ref="box" />
    <time
      class="mono clock"
      :title="
        shop?.demo === true
          ? say('frame.clock.demo', { time: clockTime(now, zone) })
          : say('frame.clock', { time: clockTime(now, zone) })
      "
      >{{ clockTime(now, zone) }}</time
    >
    <PersonMark @keys="emit('keys')" />
  </header>
</template>

<style scoped>
.top {
  grid-area: top;
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 0 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
}
.mark {
  display: flex;
  gap: 9px;
  align-items: center;
  font-weight: 700;
  font-size: 16px;
  letter-spacing: -0.01em;
  color: var(--ink);
  text-decoration: none;
  white-space: nowrap;
}
.mark i {
  width: 18px;
  height: 14px;
  background: #25323a;
  outline: 1px solid var(--rule);
  border-radius: 1px;
  box-shadow: 0 3px 0 -1px var(--wood);
}
.places {
  display: flex;
  gap: 2px;
}
.places a {
  padding: 6px 11px;
  color: var(--ink-2);
  border-radius: 3px;
  text-decoration: none;
}
.places u {
  text-underline-offset: 3px;
  text-decoration-thickness: 1px;
}
.places a.on {
  background: var(--board);
  color: var(--chalk);
}
.places a:hover:not(.on) {
  background: var(--raised);
}
.clock {
  color: var(--ink-2);
}
@media (max-width: 1100px) {
  .top {
    gap: 10px;
  }
  .places a {
    padding: 6px 8px;
  }
}
@media (max-width: 700px) {
  .top {
    flex-wrap: wrap;
    padding: 8px 14px;
    row-gap: 6px;
  }
  .places {
    order: 9;
    width: 100%;
    overflow-x: auto;
  }
  .clock {
    margin-left: auto;
  }
}
@media print {
  .top {
    display: none;
  }
}
</style>
