/**
 * What a family would do: its rules fired, its modes reached, its partitions written, before anybody takes it in. All of it
 * is done on the twin, by the profile alone. Reads a profile that is sound; gives what was tried, each with its end, and
 * what can never happen.
 */
import type { Family } from '../family/profile.ts'
import { mibIn, partitionsOf } from '../family/layout.ts'
import type { Kind } from './device.ts'
import { kindName, kindsOf, tried } from './device.ts'
import type { ModeTried } from './modes.ts'
import { modesTried } from './modes.ts'
import type { PartTried } from './parts.ts'
import { partsTried } from './parts.ts'
import type { RuleTried } from './starts.ts'
import { startsTried } from './starts.ts'

export { REACHED } from './modes.ts'
export type { ModeTried } from './modes.ts'
export { WRITTEN } from './parts.ts'
export type { PartTried } from './parts.ts'
export type { RuleTried } from './starts.ts'

export type Trial = {
  /** Each start rule, in the family's order. */
  readonly starts: readonly RuleTried[]
  readonly modes: readonly ModeTried[]
  /** Partitions layout by layout, each on the first kind of device that has it; `kinds`: how many have it. */
  readonly parts: readonly {
    readonly on: string
    readonly kinds: number
    readonly parts: readonly PartTried[]
  }[]
  /** How many things of the profile can never happen. */
  readonly never: number
}

/** Tries a family. */
export function trialOf(family: Family): Trial {
  const laid = layoutsOf(family)
  const [first] = laid
  const starts = startsTried(
    family,
    laid.map(({ kind }) => kind),
  )
  const modes = first === undefined ? [] : modesTried(family, tried(family, first.kind))
  const parts = laid.map(({ kind, kinds }) => ({
    on: kindName(kind),
    kinds,
    parts: partsTried(family, tried(family, kind)),
  }))
  const unwritten = new Set(
    parts.flatMap((one) =>
      one.parts.flatMap(({ partition, written }) => (written === 'none' ? [partition] : [])),
    ),
  )
  const never =
    starts.filter(({ fires }) => !fires).length +
    modes.filter(({ reached, left }) => reached === 'never' || !left).length +
    unwritten.size
  return { starts, modes, parts, never }
}

/** The layouts that a family's devices have, each with the first kind that has it: more of a kind have no more to show. */
function layoutsOf(family: Family): readonly { readonly kind: Kind; readonly kinds: number }[] {
  const laid = new Map<string, { kind: Kind; kinds: number }>()
  for (const kind of kindsOf(family)) {
    const key = JSON.stringify(
      partitionsOf(family, kind).map((one) => [one.name, mibIn(one, kind)]),
    )
    const known = laid.get(key)
    if (known === undefined) laid.set(key, { kind, kinds: 1 })
    else known.kinds += 1
  }
  return [...laid.values()]
}
