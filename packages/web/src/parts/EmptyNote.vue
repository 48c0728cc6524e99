<script lang="ts">
/** Nothing there yet, or nothing that answers: said in a line, with what to do. */
</script>

<script setup lang="ts">
defineProps<{ what: string; todo: string }>()
</script>

<template>
  <p class="empty">
    <b>{{ what }}</b> {{ todo }}
    <slot />
  </p>
</template>

<style scoped>
.empty {
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  padding: 14px 0;
  margin: 8px 0;
}
</style>
