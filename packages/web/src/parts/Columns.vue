<script lang="ts">
/**
 * A table by its columns: the titles at its head, rows in the slot. Named by its heading, or by itself; wide
 * ones scroll by themselves, and then take the focus so that keys scroll them too.
 */
</script>

<script setup lang="ts">
defineProps<{
  columns: readonly string[]
  /** The id of the heading that names it. */
  by?: string
  label?: string
  /** Its own name as a region that scrolls: for tables that are wider than a phone. */
  scrolls?: string
}>()
defineSlots<{ default: () => unknown }>()
</script>

<template>
  <div
    class="scroll-x"
    :tabindex="scrolls ? 0 : undefined"
    :role="scrolls ? 'group' : undefined"
    :aria-label="scrolls"
  >
    <table class="rows" :aria-labelledby="by" :aria-label="label">
      <thead>
        <tr>
          <th v-for="column in columns" :key="column" scope="col">{{ column }}</th>
        </tr>
      </thead>
      <tbody>
        <slot />
      </tbody>
    </table>
  </div>
</template>
