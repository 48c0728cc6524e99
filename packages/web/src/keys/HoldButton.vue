<script lang="ts">
/**
 * A button for what cannot be undone: Space or the pointer held for 1.5 s while a ring fills. Enter,
 * a click and a repeating key do nothing. `held` is told once, when the time is full.
 */
</script>

<script setup lang="ts">
import { useRafFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useSay } from '../base/said.ts'
import { heldShare } from './hold.ts'

const props = defineProps<{
  /** What will happen, with its object named. */
  label: string
  disabled?: boolean
}>()
const emit = defineEmits<{ held: [] }>()

const say = useSay()
const since = ref<number>()
const now = ref(0)
const share = computed(() => heldShare(since.value, now.value))
/** Circumference of the ring, radius 8. */
const AROUND = 2 * Math.PI * 8

const frames = useRafFn(
  ({ timestamp }) => {
    since.value ??= timestamp
    now.value = timestamp
    if (share.value < 1) return
    letGo()
    emit('held')
  },
  { immediate: false },
)

function hold() {
  if (props.disabled || frames.isActive.value) return
  since.value = undefined
  frames.resume()
}
function letGo() {
  frames.pause()
  since.value = undefined
}
</script>

<template>
  <button
    type="button"
    class="hold"
    :disabled="disabled"
    :data-state="share > 0 ? 'held' : 'idle'"
    @pointerdown.left="hold"
    @pointerup="letGo"
    @pointerleave="letGo"
    @pointercancel="letGo"
    @keydown.space.prevent="hold"
    @keyup.space.prevent="letGo"
    @keydown.enter.prevent
    @blur="letGo"
    @contextmenu.prevent
  >
    <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
      <circle cx="10" cy="10" r="8" class="track" />
      <circle
        cx="10"
        cy="10"
        r="8"
        class="fill"
        :stroke-dasharray="`${AROUND * share} ${AROUND}`"
        transform="rotate(-90 10 10)"
      />
    </svg>
    {{ label }}
    <kbd>{{ share > 0 ? say('hold.keep') : say('hold.hint') }}</kbd>
  </button>
</template>

<style scoped>
.hold {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 38px;
  padding: 0 14px;
  border: 2px solid var(--brick);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--brick);
  font: 600 15px/1.2 var(--sans);
  cursor: pointer;
  touch-action: none;
  user-select: none;
}
.hold:disabled {
  border-color: var(--line);
  color: var(--ink-2);
  cursor: default;
}
circle {
  fill: none;
  stroke-width: 3;
}
.track {
  stroke: var(--rule);
}
.fill {
  stroke: var(--brick);
}
</style>
