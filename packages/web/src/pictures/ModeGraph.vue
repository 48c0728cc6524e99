<script lang="ts">
/** A family's modes and the ways between them: full lines by hand, dashes by command. What it shows stands in a table. */
</script>

<script setup lang="ts">
import type { Family } from '@plain-slate/core'
import { computed } from 'vue'
import { NODE, edgesOf, nodesOf } from './graph.ts'

const props = defineProps<{ family: Pick<Family, 'modes' | 'ways'>; label: string }>()
const nodes = computed(() => nodesOf(props.family))
const edges = computed(() => edgesOf(props.family))
const ROOM = 12
const size = computed(() => ({
  wide: Math.max(...nodes.value.map(({ x }) => x)) + NODE.wide + ROOM,
  high: Math.max(...nodes.value.map(({ y }) => y)) + NODE.high + ROOM,
}))
</script>

<template>
  <svg
    class="graph"
    :viewBox="`0 0 ${size.wide} ${size.high}`"
    :style="{ maxWidth: `${size.wide}px` }"
    role="img"
    :aria-label="label"
  >
    <defs>
      <marker
        id="head"
        viewBox="0 0 8 8"
        refX="7"
        refY="4"
        markerWidth="7"
        markerHeight="7"
        orient="auto"
      >
        <path d="M0 0 L8 4 L0 8 Z" class="head" />
      </marker>
    </defs>
    <path
      v-for="edge in edges"
      :key="`${edge.from} ${edge.to} ${edge.say}`"
      class="edge"
      :class="{ command: !edge.hands }"
      :d="edge.path"
      marker-end="url(#head)"
    >
      <title>{{ edge.say }}</title>
    </path>
    <g v-for="node in nodes" :key="node.id">
      <rect :x="node.x" :y="node.y" :width="NODE.wide" :height="NODE.high" />
      <text :x="node.x + NODE.wide / 2" :y="node.y + NODE.high / 2 + 5" text-anchor="middle">
        {{ node.name }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.graph {
  display: block;
  width: 100%;
}
rect {
  fill: var(--field);
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
text {
  font-size: 14px;
  fill: var(--ink);
}
.edge {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.6;
}
.edge.command {
  stroke-dasharray: 5 4;
  stroke: var(--sky);
}
.head {
  fill: var(--ink-2);
}
</style>
