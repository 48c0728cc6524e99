<script lang="ts">
/**
 * The peg: a verdict and nothing else. Full: fits; notched on the right: fits if; outlined with a bar
 * through it: does not fit; dotted: cannot tell yet.
 */
</script>

<script setup lang="ts">
import type { Verdict } from '@plain-slate/core'
import { useSay } from '../base/said.ts'

defineProps<{ verdict: Verdict }>()
const say = useSay()
const NOTCHED = 'M0 0H14V4L8 7L14 10V14H0Z'
</script>

<template>
  <svg
    class="peg"
    :class="verdict"
    width="14"
    height="14"
    viewBox="0 0 14 14"
    role="img"
    :aria-label="say(`verdict.${verdict}`)"
  >
    <title>{{ say(`verdict.${verdict}`) }}</title>
    <rect v-if="verdict === 'fits'" width="14" height="14" class="full" />
    <path v-else-if="verdict === 'fits-if'" :d="NOTCHED" class="full" />
    <template v-else>
      <rect x="1" y="1" width="12" height="12" class="outline" />
      <path v-if="verdict === 'does-not-fit'" d="M0 7H14" class="bar" />
    </template>
  </svg>
</template>

<style scoped>
.peg {
  flex: none;
  display: inline-block;
  vertical-align: -2px;
}
.fits .full {
  fill: var(--lichen);
}
.fits-if .full {
  fill: var(--ochre);
}
.outline {
  fill: none;
  stroke-width: 2;
}
.does-not-fit .outline {
  stroke: var(--brick);
}
.bar {
  stroke: var(--brick);
  stroke-width: 3;
}
.cannot-tell .outline {
  stroke: var(--ink-2);
  stroke-dasharray: 2 2;
}
</style>
