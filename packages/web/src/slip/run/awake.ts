/** The screen kept awake while a run goes on, and a call when somebody is needed: sound and notification. */
import { useWakeLock } from '@vueuse/core'
import type { Ref } from 'vue'
import { ref, watch } from 'vue'

/** Keeps the screen awake while `on` is so; says whether this browser can. */
export function useAwake(on: Ref<boolean>) {
  const lock = useWakeLock()
  watch(
    on,
    (now) => {
      if (!lock.isSupported.value) return
      /* A browser may refuse (low battery, hidden page): the page says so by `isActive`. */
      const done = now ? lock.request('screen') : lock.release()
      void done.catch(() => undefined)
    },
    { immediate: true },
  )
  return { kept: lock.isActive, able: lock.isSupported }
}

const TONE = { hertz: 660, seconds: 0.35, gap: 0.5, times: 3 } as const

function sound(context: AudioContext): void {
  for (let n = 0; n < TONE.times; n += 1) {
    const tone = context.createOscillator()
    tone.frequency.value = TONE.hertz
    tone.connect(context.destination)
    tone.start(context.currentTime + n * TONE.gap)
    tone.stop(context.currentTime + n * TONE.gap + TONE.seconds)
  }
}

/** Calls whoever walked away, once a change of `what`; only after they asked for it. */
export function useCall(what: Ref<string | undefined>) {
  const on = ref(false)
  let context: AudioContext | undefined
  async function ask() {
    context ??= new AudioContext()
    await context.resume()
    if ('Notification' in window && Notification.permission === 'default')
      await Notification.requestPermission()
    on.value = true
  }
  watch(what, (now) => {
    if (!on.value || now === undefined) return
    if (context !== undefined) sound(context)
    if ('Notification' in window && Notification.permission === 'granted') new Notification(now)
  })
  return { on, ask }
}
