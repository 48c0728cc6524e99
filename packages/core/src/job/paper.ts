/**
 * What a customer's paper may say: what the journals, the tally, the answers and the device itself show,
 * and nothing from the plan alone. Reads every run of a slip as it stands, the fates that were promised,
 * what was seen after; gives it as data, for sheet and page alike. A job that was stopped or failed is
 * told like any other.
 */
import type { Fate } from '../match/rules/data-fate.ts'
import type { PartStanding } from '../run/standing.ts'
import type { PartRole } from '../terms/device.ts'
import type { AfterFacts, Worse } from './first-start.ts'
import { worseAfter, worseUnwritten } from './first-start.ts'
import { said } from './intake.ts'
import type { LighterName } from './lighter.ts'
import { curedBy } from './lighter.ts'

/** One run of the slip, as its journal tells it. */
export type PaperRun = {
  readonly ended: boolean
  readonly step: number
  readonly steps: number
  readonly parts: readonly (PartStanding & { readonly role: PartRole | undefined })[]
}

/** Its floors, each by its fact, and its loader; what was not read is not there. */
export type Levels = {
  readonly floors: Readonly<Record<string, number>>
  readonly loader: number | undefined
}

export type PaperFacts = {
  readonly runs: readonly PaperRun[]
  readonly fates: readonly { readonly item: string; readonly name: string; readonly fate: Fate }[]
  /** What the device was, and what it said of itself after; undefined: nobody asked it. */
  readonly was: Levels
  readonly now: Levels | undefined
  /** Marks that it bears, as its family says them. */
  readonly bears: readonly string[]
  readonly after: AfterFacts
}

/** What was done to the device. */
export type Done =
  | { readonly kind: 'nothing' }
  /** Nothing was written: something lighter cured it. */
  | { readonly kind: 'cured'; readonly by: LighterName }
  /** The last run came to its end. */
  | { readonly kind: 'ended' }
  /** It did not: partitions that are new, and those that are half written or in doubt. */
  | {
      readonly kind: 'broken-off'
      readonly step: number
      readonly steps: number
      readonly whole: readonly string[]
      readonly part: readonly string[]
    }

/** How a thing was found: shown to be as promised, shown not to be, or not seen. */
export type Found = 'as-promised' | 'not-as-promised' | 'unseen'

export type Paper = {
  readonly done: Done
  readonly things: readonly {
    readonly item: string
    readonly name: string
    readonly fate: Fate
    readonly found: Found
  }[]
  /** What stays on it for good, as far as it was written or read. */
  readonly marks: readonly ('floor' | 'loader')[]
  /** Marks that it bears, as its family says them: custom, service. */
  readonly bears: readonly string[]
  readonly worse: readonly Worse[]
}

/** Reads a job as its paper. */
export function paperOf(at: PaperFacts): Paper {
  const done = doneOf(at.runs, curedBy(at.after.lines))
  const found = done.kind === 'ended' ? foundOf(at.after) : 'unseen'
  return {
    done,
    things:
      done.kind === 'nothing' || done.kind === 'cured'
        ? []
        : at.fates.map(({ item, name, fate }) => ({
            item,
            name,
            fate,
            found: fate === 'unpromised' ? 'unseen' : found,
          })),
    marks: marksOf(at),
    bears: at.bears,
    worse:
      done.kind === 'ended'
        ? worseAfter(at.after)
        : done.kind === 'cured'
          ? worseUnwritten(at.after)
          : [],
  }
}

const isWritten = ({ kept, doubt }: PartStanding): boolean => kept + doubt > 0
const isWhole = ({ kept, bytes }: PartStanding): boolean => kept === bytes

function doneOf(runs: readonly PaperRun[], cured: LighterName | undefined): Done {
  const last = runs.at(-1)
  if (last?.ended === true) return { kind: 'ended' }
  const written = runs.flatMap(({ parts }) => parts).filter(isWritten)
  if (last === undefined || written.length === 0)
    return cured === undefined ? { kind: 'nothing' } : { kind: 'cured', by: cured }
  /* A later run may have finished what an earlier one began. */
  const newest = new Map(written.map((part) => [part.partition, part]))
  const named = (is: (part: PartStanding) => boolean) =>
    [...newest.values()].filter(is).map(({ partition }) => partition)
  return {
    kind: 'broken-off',
    step: last.step,
    steps: last.steps,
    whole: named(isWhole),
    part: named((part) => !isWhole(part)),
  }
}

/** The tally and the answer must agree that it is so; one that says otherwise is enough that it is not. */
function foundOf(after: AfterFacts): Found {
  const worse = worseAfter(after)
  if (worse.some(({ what }) => what === 'data' || what === 'tally' || what === 'opens'))
    return 'not-as-promised'
  return said(after.lines, 'after.data') === 'as-promised' ? 'as-promised' : 'unseen'
}

/** A loader that was written stays, whatever became of the rest; a floor is told by the device. */
function marksOf({ runs, was, now }: PaperFacts): Paper['marks'] {
  const written = runs.flatMap(({ parts }) => parts).filter(isWritten)
  const higher = (before: number | undefined, after: number | undefined) =>
    before !== undefined && after !== undefined && after > before
  const loader = written.some(({ role }) => role === 'loader') || higher(was.loader, now?.loader)
  const floor = Object.entries(now?.floors ?? {}).some(([fact, here]) =>
    higher(was.floors[fact], here),
  )
  return [...(floor ? (['floor'] as const) : []), ...(loader ? (['loader'] as const) : [])]
}
