<script setup lang="ts">
/** What a run on its slip waits for, and the way there for a device that is off or somewhere else. */
import type { RunShown } from '@plain-slate/api'
import { ref } from 'vue'
import RunWaits from '../../bench/RunWaits.vue'
import { useSay } from '../../base/said.ts'
import WayCard from '../way/WayCard.vue'

defineProps<{ waiting: NonNullable<RunShown['waiting']>; serial: string }>()
const say = useSay()
const open = ref(false)
</script>

<template>
  <RunWaits :waiting="waiting" :serial="serial">
    <button
      v-if="waiting.mode"
      type="button"
      class="act no-print"
      :aria-expanded="open"
      @click="open = !open"
    >
      {{ say('run.waiting.off') }}
    </button>
  </RunWaits>
  <WayCard v-if="open && waiting.mode" :to="waiting.mode.id" driven />
</template>
