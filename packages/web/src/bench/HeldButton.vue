<script lang="ts">
/** Keys of a simulated device that are held as long as the button is: how long they were goes with them. */
</script>

<script setup lang="ts">
import { onScopeDispose, ref } from 'vue'
import { useSay } from '../base/said.ts'

const props = defineProps<{ label: string; band: readonly [number, number]; title?: string }>()
const emit = defineEmits<{ held: [seconds: number] }>()
const say = useSay()
const TICK_MS = 100
const SECOND_MS = 1000
const since = ref<number>()
const passed = ref(0)
let ticking: ReturnType<typeof setInterval> | undefined

function down() {
  if (since.value !== undefined) return
  since.value = performance.now()
  passed.value = 0
  ticking = setInterval(() => (passed.value = heldFor()), TICK_MS)
}
const heldFor = () => (performance.now() - (since.value ?? performance.now())) / SECOND_MS
function up() {
  if (since.value === undefined) return
  const seconds = heldFor()
  drop()
  emit('held', seconds)
}
function drop() {
  clearInterval(ticking)
  since.value = undefined
}
onScopeDispose(drop)
const isPress = ({ key }: KeyboardEvent) => key === ' ' || key === 'Enter'
const keyDown = (event: KeyboardEvent) => {
  if (!isPress(event)) return
  event.preventDefault()
  down()
}
const keyUp = (event: KeyboardEvent) => {
  if (!isPress(event)) return
  event.preventDefault()
  up()
}
const words = () =>
  since.value === undefined
    ? say('hands.hold', { what: props.label, low: props.band[0], high: props.band[1] })
    : say('hands.holding', { n: passed.value.toFixed(1) })
</script>

<template>
  <button
    type="button"
    class="act"
    :title="title"
    @pointerdown="down"
    @pointerup="up"
    @pointerleave="up"
    @keydown="keyDown"
    @keyup="keyUp"
    @blur="drop"
  >
    {{ words() }}
  </button>
</template>
