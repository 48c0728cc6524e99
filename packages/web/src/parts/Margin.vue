<script lang="ts">
/** The margin's heading line and its notes, one rule between each. */
</script>

<script setup lang="ts">
defineProps<{ title: string; right?: string }>()
</script>

<template>
  <div class="head">
    <span>{{ title }}</span>
    <span>{{ right }}</span>
  </div>
  <slot />
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  font-size: 13px;
  color: var(--ink-2);
  margin-bottom: 8px;
}
</style>
