import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { effectScope } from 'vue'
import { useMainAction, useShortcutStore } from './shortcuts.ts'

beforeEach(() => setActivePinia(createPinia()))

/** Something on the page that offers a main action for as long as it is shown. */
function shown(name: string, told: string[]) {
  const scope = effectScope()
  scope.run(() => useMainAction(() => told.push(name)))
  return scope
}

describe('the main action', () => {
  it('is the newest that is shown, and the one before it once that is gone', () => {
    const told: string[] = []
    const store = useShortcutStore()
    const page = shown('page', told)
    const card = shown('card', told)
    store.mainAction?.()
    card.stop()
    store.mainAction?.()
    page.stop()
    expect(told).toEqual(['card', 'page'])
    expect(store.mainAction).toBe(undefined)
  })

  it('stays the newest when one under it goes', () => {
    const told: string[] = []
    const page = shown('page', told)
    shown('card', told)
    page.stop()
    useShortcutStore().mainAction?.()
    expect(told).toEqual(['card'])
  })
})
