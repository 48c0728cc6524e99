<script lang="ts">
/** Into which mode somebody wants to come: any of the family's but those a device falls into by itself. */
</script>

<script setup lang="ts">
import type { Job } from '@plain-slate/api'
import type { Mode } from '@plain-slate/core'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'

const props = defineProps<{ modes: NonNullable<Job['family']>['looks'] }>()
const emit = defineEmits<{ chosen: [mode: Mode] }>()
const say = useSay()
const AIMS: readonly string[] = ['off', 'system', 'writing', 'rescue']
const aims = computed(() =>
  props.modes.filter(({ mode: { kind } }) => kind !== null && AIMS.includes(kind)),
)
</script>

<template>
  <p class="row small no-print" data-claim="ways">
    <span class="dim">{{ say('way.choose') }}</span>
    <button
      v-for="{ mode } in aims"
      :key="mode.id"
      type="button"
      class="act"
      @click="emit('chosen', mode.id)"
    >
      {{ mode.name }}
    </button>
  </p>
</template>
