/** What the worker of What if is asked, and what it answers: plain data both ways. */
import type {
  Fate,
  Miss,
  MoveSaid,
  PackedState,
  PlanWay,
  Supposed,
  Verdict,
} from '@plain-slate/core'

export type Asked = {
  readonly id: number
  /** As the server packed it; sent once, and again when it changed. */
  readonly state?: PackedState
  readonly supposed: Supposed
}

/** A route as the sheet says it in a line. */
export type Told = {
  readonly name: string
  readonly title: string
  readonly first: readonly MoveSaid[]
  readonly then: readonly MoveSaid[]
  readonly way: PlanWay
  readonly verdict: Verdict
  readonly minutes: number
  readonly data: Fate
  readonly misses: readonly Miss[]
}
/** Routes as they are, as they would be, and where none would be open, what would open one. */
export type Answered = {
  readonly id: number
  readonly asIs: readonly Told[]
  readonly supposed: readonly Told[]
  readonly blocked: readonly {
    readonly title: string
    readonly code: string
    readonly facts: Readonly<Record<string, string | number>>
  }[]
}
export type Failed = { readonly id: number; readonly failed: string }
