<script lang="ts">
/** A form of one line that names something of the bench: its fields in the slot, then its button; what was refused stands under it. */
</script>

<script setup lang="ts">
import Trouble from '../parts/Trouble.vue'
import { troubleOf } from '../server/call.ts'

defineProps<{
  label: string
  go: string
  disabled: boolean
  error: Error | null
  /** A field more than three. */
  wide?: boolean
}>()
defineEmits<{ named: [] }>()
defineSlots<{ default: () => unknown; hint: () => unknown }>()
</script>

<template>
  <form class="no-print" :aria-label="label" @submit.prevent="$emit('named')">
    <div class="laid" :class="{ wide }">
      <slot />
      <v-btn type="submit" :disabled="disabled">{{ go }}</v-btn>
    </div>
    <slot name="hint" />
    <Trouble v-if="error" :trouble="troubleOf(error)" quiet />
  </form>
</template>

<style scoped>
.laid {
  display: grid;
  grid-template-columns: 120px 1fr 1fr auto;
  gap: 10px;
  margin-top: 14px;
}
.laid.wide {
  grid-template-columns: 120px 1fr 1fr 160px auto;
}
@media (max-width: 700px) {
  .laid,
  .laid.wide {
    grid-template-columns: 1fr;
  }
}
</style>
