/** Counting seconds with a pair of hands, act after act; the clock is the browser's own, and starts where they do. */
import { computed, onScopeDispose, ref } from 'vue'

const TICK_MS = 100
const SECOND_MS = 1000

export function useCount() {
  /** The act that hands are at; -1: not begun. */
  const at = ref(-1)
  const since = ref(0)
  const now = ref(0)
  let ticking: ReturnType<typeof setInterval> | undefined
  const stop = () => {
    clearInterval(ticking)
    ticking = undefined
  }
  /** On to the next act, whose time begins now. */
  function next() {
    at.value += 1
    since.value = now.value = performance.now()
    ticking ??= setInterval(() => (now.value = performance.now()), TICK_MS)
  }
  function reset() {
    stop()
    at.value = -1
  }
  onScopeDispose(stop)
  const passed = computed(() => (now.value - since.value) / SECOND_MS)
  return { at, passed, next, reset, stop }
}
