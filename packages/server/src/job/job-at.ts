/** A slip's job as everything about it reads it. */
import type { LineShown, PlanShown, Slip } from '@plain-slate/api'
import type {
  BroughtPermit,
  Changed,
  DeviceFacts,
  Family,
  HouseRules,
  Identity,
  Lines,
  Move,
  Reading,
} from '@plain-slate/core'
import type { AtPort } from '../devices/case.ts'
import type { ProvenPackage } from '../shelf/shelf.ts'
import type { CableRow } from '../tables/bench.ts'
import type { ComputerRow, DeviceRow, Sight } from '../tables/devices.ts'
import type { MadePlan } from '../plans/made.ts'
import type { PlanRow, Tallies } from '../tables/job.ts'
import type { LookRow } from '../tables/looks.ts'
import type { RunRow } from '../tables/runs.ts'

/** The plan that was taken, with what it is shown as now. */
export type TakenPlan = Omit<PlanRow, 'made'> & {
  readonly made: MadePlan
  readonly shown: PlanShown
}

/** The picked route: what it is called, its moves, and the package it ends in. */
export type Picked = {
  /** Picked by its own name; by that of its package it is whichever is best. */
  readonly exact: boolean
  readonly name: string
  readonly moves: readonly Move[]
  readonly aim: ProvenPackage
}

export type JobAt = {
  /** The hour it was read in, ms of the shop's clock: words and readings grow old by it. */
  readonly now: number
  /** Its intent is that of the work at hand. */
  readonly slip: Slip
  readonly all: readonly LineShown[]
  readonly lines: Lines
  /** When the newest piece of work on it began, ms of the shop's clock; undefined: there was no other before. */
  readonly since: number | undefined
  /** Those that stand; what was taken back is on record alone. */
  readonly readings: readonly Reading[]
  /** Of them those that follow from lines and from the port: they are answered there. */
  readonly ofLines: readonly Reading[]
  /** When a run changed what was read before. */
  readonly changed: Changed
  readonly family: Family | undefined
  readonly identity: Identity
  readonly keepData: boolean
  /** The permit of its maker's that was brought. */
  readonly permit: BroughtPermit | undefined
  /** The house rules as they are for this slip. */
  readonly house: HouseRules
  /** Ids of the family's own things; none where no family is known. */
  readonly things: readonly string[]
  /** True when somebody looked at the board since the readings that disagree with its fuses. */
  readonly byEye: boolean
  readonly serial: string | undefined
  /** Where its device answers now. */
  readonly sight: { readonly port: string; readonly facts: DeviceFacts } | undefined
  readonly sights: readonly Sight[]
  /** The bench beside: whether an agent lives, its computers, its cables, the runs that hold a port. */
  readonly bench: {
    readonly agent: boolean
    readonly computers: readonly ComputerRow[]
    readonly cables: readonly CableRow[]
    readonly runs: readonly RunRow[]
  }
  /** The look that was asked for it last. */
  readonly look: LookRow | undefined
  /** Serials that other open slips claim, each with its slip. */
  readonly others: ReadonlyMap<string, string>
  readonly device: DeviceRow | undefined
  /** The case; undefined while the family, or what it is, is not known well enough. */
  readonly found: AtPort | undefined
  readonly shelf: readonly ProvenPackage[]
  readonly picked: Picked | undefined
  readonly taken: TakenPlan | undefined
  /** The customer's things as they were counted before and after. */
  readonly tally: Tallies
  /** The run of this job; one that was stopped and put away is none any more. */
  readonly run: RunRow | undefined
}
