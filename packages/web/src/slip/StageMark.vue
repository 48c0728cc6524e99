<script lang="ts">
/**
 * Where a stage lies: a heavy outline where the slip is, a thin one ahead. What is behind bears no
 * mark until a verdict stands there; a thread runs through it.
 */
</script>

<script setup lang="ts">
import type { StagePlace } from '@plain-slate/core'
import { useSay } from '../said.ts'

defineProps<{ place: StagePlace }>()
const say = useSay()
</script>

<template>
  <i class="mark" :class="place" :title="say(`slip.stage.${place}`)" aria-hidden="true" />
</template>

<style scoped>
.mark {
  width: 14px;
  height: 14px;
  flex: none;
  display: block;
}
.here {
  border: 3px solid var(--ink);
  background: var(--sheet);
}
.ahead {
  border: 1.5px solid var(--line);
}
.behind {
  border-left: 2px solid var(--line);
  margin-left: 6px;
  width: 8px;
}
</style>
