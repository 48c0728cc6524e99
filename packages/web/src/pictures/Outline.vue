<script lang="ts">
/** A device in outline with its keys: which are held now, whether the cable is in and the cell is out. */
</script>

<script setup lang="ts">
import type { Outline } from '@plain-slate/core'
import { computed } from 'vue'

const props = defineProps<{
  outline: Outline
  /** Ids of keys that are down now, and of those that are still to be. */
  held: readonly string[]
  named: readonly string[]
  cable: boolean
  label: string
}>()

/** Room around the body for keys, their names and the cable. */
const ROOM = 34
const THICK = 5
const CABLE = 26
type Key = Outline['keys'][number]
const width = computed(() => props.outline.wide + 2 * ROOM)
const height = computed(() => props.outline.high + 2 * ROOM)

/** A key as a bar outside its edge. */
function bar({ side, from, to }: Key) {
  const { wide, high } = props.outline
  const along = (share: number) =>
    ROOM + share * (side === 'left' || side === 'right' ? high : wide)
  const [start, end] = [along(from), along(to)]
  switch (side) {
    case 'left':
      return { x: ROOM - THICK, y: start, width: THICK, height: end - start }
    case 'right':
      return { x: ROOM + wide, y: start, width: THICK, height: end - start }
    case 'top':
      return { x: start, y: ROOM - THICK, width: end - start, height: THICK }
    case 'bottom':
      return { x: start, y: ROOM + high, width: end - start, height: THICK }
  }
}
/** Where the cable runs from the port outwards. */
const cableLine = computed(() => {
  const { wide, high, port } = props.outline
  const across = port.side === 'left' || port.side === 'right'
  const at = ROOM + port.at * (across ? high : wide)
  const edge = { left: ROOM, right: ROOM + wide, top: ROOM, bottom: ROOM + high }[port.side]
  const out = port.side === 'left' || port.side === 'top' ? edge - CABLE : edge + CABLE
  return across ? { x1: edge, y1: at, x2: out, y2: at } : { x1: at, y1: edge, x2: at, y2: out }
})
/** The numbers that stand beside keys: names would run into each other. */
function mark(key: Key) {
  const { x, y, width: w, height: h } = bar(key)
  const away = 14
  switch (key.side) {
    case 'left':
      return { x: x - away, y: y + h / 2 + 4 }
    case 'right':
      return { x: x + w + away, y: y + h / 2 + 4 }
    case 'top':
      return { x: x + w / 2, y: y - 8 }
    case 'bottom':
      return { x: x + w / 2, y: y + h + 18 }
  }
}
</script>

<template>
  <svg class="outline" :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="label">
    <rect class="body" :x="ROOM" :y="ROOM" :width="outline.wide" :height="outline.high" rx="9" />
    <g
      v-for="(key, index) in outline.keys"
      :key="key.id"
      :class="{ down: held.includes(key.id), named: named.includes(key.id) }"
    >
      <rect class="key" v-bind="bar(key)" rx="1.5" />
      <text v-bind="mark(key)" text-anchor="middle">{{ index + 1 }}</text>
    </g>
    <line class="cable" :class="{ in: cable }" v-bind="cableLine" />
  </svg>
</template>

<style scoped>
.outline {
  display: block;
  height: 230px;
  max-width: 210px;
}
.body {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 2;
}
.key {
  fill: var(--line);
}
text {
  font-size: 11px;
  fill: var(--ink-2);
}
.named .key {
  fill: var(--ink-2);
}
.named text {
  fill: var(--ink);
  font-weight: 700;
}
.down .key {
  fill: var(--ochre);
  stroke: var(--ochre);
  stroke-width: 5;
}
.cable {
  stroke: var(--line);
  stroke-width: 3;
  stroke-dasharray: 2 4;
}
.cable.in {
  stroke: var(--ink);
  stroke-dasharray: none;
  stroke-width: 4;
}
</style>
