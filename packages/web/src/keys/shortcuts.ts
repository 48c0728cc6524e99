/**
 * What keys do at the moment: places always, more while a page that brings some is open. The card that
 * `?` shows is made from this very table, so it cannot promise what does not work.
 */
import type { PlainCode } from '@plain-slate/texts'
import { defineStore } from 'pinia'
import { onScopeDispose, shallowReactive, shallowRef } from 'vue'

export type Group = 'places' | 'slip' | 'everywhere'

export type Shortcut = {
  /** The key as it is pressed, lower case. */
  readonly key: string
  /** As the card writes it; the key itself when left out. */
  readonly shown?: string
  readonly label: PlainCode
  readonly group: Group
  readonly act: () => void
  /** Left off the card because a neighbour stands for it (the stages 2 to 0). */
  readonly unlisted?: boolean
}

export const useShortcutStore = defineStore('shortcuts', () => {
  const table = shallowReactive(new Map<string, Shortcut>())
  const mainAction = shallowRef<(() => void) | undefined>()

  /** Adds shortcuts; answers the way to take them out again. */
  function add(shortcuts: readonly Shortcut[]): () => void {
    for (const shortcut of shortcuts) table.set(shortcut.key, shortcut)
    return () => {
      for (const shortcut of shortcuts)
        if (table.get(shortcut.key) === shortcut) table.delete(shortcut.key)
    }
  }
  return { table, mainAction, add }
})

/** Shortcuts that live as long as the component that brings them. */
export function useShortcuts(shortcuts: readonly Shortcut[]): void {
  onScopeDispose(useShortcutStore().add(shortcuts))
}

/** The sheet's one main action, which Enter starts outside fields. Never for what must be held. */
export function useMainAction(act: () => void): void {
  const store = useShortcutStore()
  store.mainAction = act
  onScopeDispose(() => {
    if (store.mainAction === act) store.mainAction = undefined
  })
}
