/** A key that is held: tells once, when it was down for the full time. Repeats count as being held. */
import type { Ref } from 'vue'
import { onScopeDispose, ref } from 'vue'
import { HOLD_MS } from './hold.ts'

/** Calls `held` when the key was held; `active` says whether it means anything now. Answers whether it is down. */
export function useHeldKey(
  key: string,
  active: () => boolean,
  held: () => void,
): Readonly<Ref<boolean>> {
  const isDown = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined
  const letGo = () => {
    clearTimeout(timer)
    timer = undefined
    isDown.value = false
  }
  const down = (event: KeyboardEvent) => {
    if (event.key !== key || event.repeat || timer !== undefined || !active()) return
    isDown.value = true
    timer = setTimeout(() => {
      letGo()
      if (active()) held()
    }, HOLD_MS)
  }
  const up = (event: KeyboardEvent) => {
    if (event.key === key) letGo()
  }
  window.addEventListener('keydown', down)
  window.addEventListener('keyup', up)
  window.addEventListener('blur', letGo)
  onScopeDispose(() => {
    letGo()
    window.removeEventListener('keydown', down)
    window.removeEventListener('keyup', up)
    window.removeEventListener('blur', letGo)
  })
  return isDown
}
