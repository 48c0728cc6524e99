<script lang="ts">
/** The ruler: a build id cut into its named parts; equal ones dimmed, the deciding one underlined. */
</script>

<script setup lang="ts">
export type RulerSegment = {
  readonly name: string
  readonly text: string
  readonly mark: 'same' | 'deciding' | 'differs' | 'plain'
}
defineProps<{ segments: readonly RulerSegment[]; label: string }>()
</script>

<template>
  <span class="ruler">
    <span class="visually-hidden">{{ label }}</span>
    <span
      v-for="segment in segments"
      :key="segment.name"
      :class="['segment', segment.mark]"
      :title="`${segment.name}: ${segment.text}`"
      aria-hidden="true"
    >
      <span class="text mono">{{ segment.text }}</span>
      <span class="name">{{ segment.name }}</span>
    </span>
  </span>
</template>

<style scoped>
.ruler {
  display: inline-flex;
  gap: 4px;
}
.segment {
  display: inline-flex;
  flex-direction: column;
  align-items: center;
  min-width: 44px;
}
.text {
  font-size: 21px;
  line-height: 1.2;
  align-self: stretch;
  text-align: center;
  padding: 0 5px;
  border-bottom: 3px solid var(--rule);
}
.same .text {
  color: var(--ink-2);
}
.deciding .text {
  font-weight: 650;
  border-color: var(--lichen);
}
.differs .text {
  font-weight: 650;
  border-color: var(--line);
}
.name {
  font-size: 12.5px;
  margin-top: 3px;
}
</style>
