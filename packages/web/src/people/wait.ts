/** Seconds still to wait before a next try, counted down. */
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'

export function useWait() {
  const until = ref(0)
  const now = ref(Date.now())
  const ticking = useIntervalFn(() => (now.value = Date.now()), 250)
  ticking.pause()
  const seconds = computed(() => Math.max(0, Math.ceil((until.value - now.value) / 1000)))
  function begin(wait: number) {
    now.value = Date.now()
    until.value = now.value + wait * 1000
    if (wait > 0) ticking.resume()
  }
  return { seconds, begin }
}
