<script lang="ts">
/**
 * A stage's mark: the peg of its verdict where it has one, a thin outline where it is not reached, a heavy
 * one where the slip is. A stage that is looked at and has a verdict gets a heavy frame.
 */
</script>

<script setup lang="ts">
import type { StageState } from '@plain-slate/core'
import { computed } from 'vue'
import Peg from '../../pictures/Peg.vue'

const props = defineProps<{ is: StageState; at: boolean; on: boolean }>()
const VERDICTS = { done: 'fits', again: 'fits-if', halted: 'does-not-fit' } as const
const verdict = computed(() =>
  props.is === 'open' || props.is === 'waits' ? undefined : VERDICTS[props.is],
)
</script>

<template>
  <span class="mark" :class="{ at: at && !verdict, thin: !at && !verdict, on: on && verdict }">
    <Peg v-if="verdict" :verdict="verdict" aria-hidden="true" />
  </span>
</template>

<style scoped>
.mark {
  width: 14px;
  height: 14px;
  display: block;
  margin-top: 4px;
  justify-self: center;
  line-height: 0;
}
.at {
  border: 3px solid var(--ink);
  background: var(--sheet);
}
.thin {
  border: 1.5px solid var(--line);
}
.on {
  outline: 2px solid var(--ink);
  outline-offset: 2px;
}
</style>
