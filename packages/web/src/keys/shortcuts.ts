/**
 * What keys do at the moment: places always, more while a page that brings some is open. The card that
 * `?` shows is made from this very table, so it cannot promise what does not work.
 */
import type { PlainCode } from '@plain-slate/texts'
import { defineStore } from 'pinia'
import { computed, onScopeDispose, shallowReactive } from 'vue'

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
  /** What Enter may start: the newest that is still shown counts, and the one before it once it is gone. */
  const offered = shallowReactive<(() => void)[]>([])
  const mainAction = computed(() => offered.at(-1))

  /** Adds shortcuts; answers the way to take them out again. */
  function add(shortcuts: readonly Shortcut[]): () => void {
    for (const shortcut of shortcuts) table.set(shortcut.key, shortcut)
    return () => {
      for (const shortcut of shortcuts)
        if (table.get(shortcut.key) === shortcut) table.delete(shortcut.key)
    }
  }
  /** Offers a main action; answers the way to take it back. */
  function offer(act: () => void): () => void {
    offered.push(act)
    return () => {
      const at = offered.lastIndexOf(act)
      if (at >= 0) offered.splice(at, 1)
    }
  }
  return { table, mainAction, add, offer }
})

/** Shortcuts that live as long as the component that brings them. */
export function useShortcuts(shortcuts: readonly Shortcut[]): void {
  onScopeDispose(useShortcutStore().add(shortcuts))
}

/** The sheet's one main action, which Enter starts outside fields. Never for what must be held. */
export function useMainAction(act: () => void): void {
  onScopeDispose(useShortcutStore().offer(act))
}
