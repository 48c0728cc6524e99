<script lang="ts">
/** What a plan was decided with, and whether the same comes of it again. */
</script>

<script setup lang="ts">
import type { TakenShown } from '@plain-slate/api'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'

const props = defineProps<{ decided: NonNullable<TakenShown['decided']> }>()
const say = useSay()
const SHORT = 8
const again = computed(() => {
  const { same, was, now } = props.decided
  if (same) return say('plan.decided.same', { digest: was.slice(0, SHORT) })
  return now === null
    ? say('plan.decided.none')
    : say('plan.decided.other', { was: was.slice(0, SHORT), now: now.slice(0, SHORT) })
})
const made = computed(() =>
  say('plan.decided', {
    family: props.decided.family.id,
    version: props.decided.family.version,
    readings: props.decided.readings,
    packages: props.decided.packages,
  }),
)
</script>

<template>
  <p class="small dim" data-claim="decided">
    {{ made }} <span :class="{ amiss: !decided.same }">{{ again }}</span>
  </p>
</template>
