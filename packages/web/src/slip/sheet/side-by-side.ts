/** Two plans held against each other, step by step. Reads their steps in words; gives rows of what is alike and what is not. */
import { diffArrays } from 'diff'

/** Steps that both have, as many as stand one after the other; or what each has in that place. */
export type Beside =
  | { readonly kind: 'alike'; readonly steps: readonly string[] }
  | { readonly kind: 'differ'; readonly now: readonly string[]; readonly then: readonly string[] }

export function sideBySide(now: readonly string[], then: readonly string[]): readonly Beside[] {
  return diffArrays([...now], [...then]).reduce<readonly Beside[]>(
    (rows, { value, added, removed }) => {
      if (!added && !removed) return [...rows, { kind: 'alike', steps: value }]
      const last = rows.at(-1)
      const before = last?.kind === 'differ' ? last : { kind: 'differ' as const, now: [], then: [] }
      const kept = last?.kind === 'differ' ? rows.slice(0, -1) : rows
      const mine = removed ? value : []
      const its = added ? value : []
      return [...kept, { ...before, now: [...before.now, ...mine], then: [...before.then, ...its] }]
    },
    [],
  )
}
