/** What if: a worker that judges a supposed state, asked again whenever something else is supposed. */
import type { PackedState, Supposed } from '@plain-slate/core'
import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { Ref } from 'vue'
import type { Answered, Asked, Failed, Told } from './asked.ts'

/** A route beside what it is today: new, or of another verdict, or the same. */
export type Moved = Told & { readonly is: 'new' | 'other' | 'same' }

/** The routes that would be, and those that would be gone. */
export function movedIn({ asIs, supposed }: Pick<Answered, 'asIs' | 'supposed'>): {
  readonly routes: readonly Moved[]
  readonly gone: readonly Told[]
} {
  const before = new Map(asIs.map((one) => [one.name, one]))
  const after = new Set(supposed.map(({ name }) => name))
  const isSame = (a: Told, b: Told) => JSON.stringify(a) === JSON.stringify(b)
  return {
    routes: supposed.map((one) => {
      const was = before.get(one.name)
      return { ...one, is: was === undefined ? 'new' : isSame(was, one) ? 'same' : 'other' }
    }),
    gone: asIs.filter(({ name }) => !after.has(name)),
  }
}

/** Asks the worker; `answer` is of what was supposed last. */
export function useWhatIf(state: Ref<PackedState | undefined>, supposed: Ref<Supposed>) {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
  const answer = shallowRef<Answered>()
  const failed = ref<string>()
  const busy = ref(false)
  let id = 0
  let sent: PackedState | undefined
  worker.addEventListener('message', ({ data }: MessageEvent<Answered | Failed>) => {
    if (data.id !== id) return
    busy.value = false
    failed.value = 'failed' in data ? data.failed : undefined
    if (!('failed' in data)) answer.value = data
  })
  watch(
    [state, supposed],
    () => {
      if (state.value === undefined) return
      id += 1
      busy.value = true
      const asked: Asked = {
        id,
        supposed: supposed.value,
        ...(state.value === sent ? {} : { state: state.value }),
      }
      sent = state.value
      /* A reactive proxy cannot be cloned. */
      worker.postMessage(JSON.parse(JSON.stringify(asked)))
    },
    { immediate: true, deep: true },
  )
  onScopeDispose(() => worker.terminate())
  return { answer, failed, busy }
}
