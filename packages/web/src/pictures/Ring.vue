<script lang="ts">
/** A ring that counts seconds with a pair of hands: the band is when the device's cue is to come. */
</script>

<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{
  /** Seconds that have passed. */
  passed: number
  /** From when to when; a window that is open from the start begins at 0. */
  band: readonly [number, number]
  label: string
}>()
const RADIUS = 52
const ROUND = 2 * Math.PI * RADIUS
/** The ring is this much longer than the band's end, so that being late is seen too. */
const LONGER = 1.25
const all = computed(() => props.band[1] * LONGER)
const share = (seconds: number) => Math.min(1, Math.max(0, seconds / all.value))
const dash = (from: number, to: number) => ({
  'stroke-dasharray': `${(share(to) - share(from)) * ROUND} ${ROUND}`,
  'stroke-dashoffset': `${-share(from) * ROUND}`,
})
const is = computed(() =>
  props.passed < props.band[0] ? 'early' : props.passed <= props.band[1] ? 'now' : 'late',
)
</script>

<template>
  <svg class="ring" :class="is" viewBox="0 0 132 132" role="img" :aria-label="label">
    <g transform="rotate(-90 66 66)">
      <circle cx="66" cy="66" :r="RADIUS" class="all" />
      <circle cx="66" cy="66" :r="RADIUS" class="band" v-bind="dash(band[0], band[1])" />
      <circle cx="66" cy="66" :r="RADIUS" class="passed" v-bind="dash(0, passed)" />
    </g>
    <text x="66" y="76" text-anchor="middle">{{ passed.toFixed(1) }}</text>
  </svg>
</template>

<style scoped>
.ring {
  display: block;
  width: 132px;
  height: 132px;
}
circle {
  fill: none;
}
.all {
  stroke: var(--rule);
  stroke-width: 6;
}
.band {
  stroke: var(--lichen);
  stroke-width: 14;
}
.passed {
  stroke: var(--ink);
  stroke-width: 6;
}
.late .passed {
  stroke: var(--brick);
}
text {
  font-size: 30px;
  font-variant-numeric: tabular-nums;
  fill: var(--ink);
}
</style>
