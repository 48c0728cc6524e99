/** Entering a run of the past, with what the book says of its beginning and its end. */
import { createHash } from 'node:crypto'
import type { ms } from '@plain-slate/core'
import { placeOf } from '@plain-slate/core'
import type { Transaction } from '@plain-slate/server'
import { planDigest, enter, insertPast, partitionsOf } from '@plain-slate/server'
import type { DemoName } from '../people.ts'
import { idOf } from '../people.ts'
import type { PastRun } from './past-run.ts'
import { commandsOf } from './past-run.ts'

/** An id that a name stands for, the same at each set-up. */
export function idFor(name: string): string {
  const hex = createHash('sha256').update(name).digest('hex')
  return [hex.slice(0, 8), hex.slice(8, 12), `4${hex.slice(13, 16)}`, `8${hex.slice(17, 20)}`]
    .concat(hex.slice(20, 32))
    .join('-')
}

export type Entered = {
  readonly id: string
  readonly run: PastRun
  readonly slip: string | null
  readonly port: string
  readonly cable: string
  readonly by: DemoName
  readonly startedAt: number
  /** How many journal entries it came to; all when left out. */
  readonly upTo?: number
  readonly putAway: boolean
}

/** Seconds of model time that a run took. */
export const secondsOfRun = ({ made }: PastRun): number =>
  Math.round((made.journal.at(-1)?.at ?? 0) / 1000)

/** Enters a run as it stands in the tables; the book is told by the caller, in the order of time. */
export async function enterRun(trx: Transaction, entered: Entered): Promise<void> {
  const { run, upTo, startedAt } = entered
  const journal = run.made.journal.slice(0, upTo)
  const ended = upTo === undefined
  const last = journal.at(-1)
  await insertPast(trx, {
    id: entered.id,
    slip: entered.slip,
    serial: run.plan.serial,
    port: entered.port,
    cable: entered.cable,
    package: run.plan.packages.at(-1)?.manifest.id ?? '',
    plan: run.plan,
    commands: commandsOf(run.plan),
    steps: run.steps,
    places: [],
    wall: partitionsOf(run.at),
    by: idOf(entered.by),
    startedAt: new Date(startedAt),
    made: run.recipe,
    shown: {
      phase: ended ? { kind: 'ended' } : { kind: 'doing' },
      next: placeOf(journal).next,
      got: 0,
      at: last?.at ?? 0,
      runAt: 1,
      stepAt: last?.at ?? 0,
      waiting: null,
      says: null,
      losses: run.made.losses,
    },
    state: ended ? 'ended' : 'running',
    endedAt: ended ? new Date(startedAt + secondsOfRun(run) * 1000) : null,
    putAway: entered.putAway,
    journal,
  })
}

type At = { readonly clock: { readonly now: () => Promise<ReturnType<typeof ms>> } }

/** What the book says when a run begins. */
export const tellStart = (trx: Transaction, at: At, { id, run, slip, port, by }: Entered) =>
  enter(at, trx, {
    by: idOf(by),
    act: 'run.started',
    ...(slip === null ? {} : { slip }),
    facts: {
      run: id,
      serial: run.plan.serial,
      port,
      package: run.plan.packages.at(-1)?.manifest.id ?? '',
      plan: planDigest(run.plan),
    },
  })

/** What the book says when it ended: the digest of its journal, and the seed it was made from. */
export const tellEnd = (trx: Transaction, at: At, { id, run, slip }: Entered, seed: number) =>
  enter(at, trx, {
    by: null,
    act: 'run.ended',
    ...(slip === null ? {} : { slip }),
    facts: {
      run: id,
      serial: run.plan.serial,
      commands: commandsOf(run.plan).length,
      seconds: secondsOfRun(run),
      losses: run.made.losses,
      seed,
      plan: planDigest(run.plan),
      journal: run.journalDigest,
    },
  })
