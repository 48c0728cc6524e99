/**
 * What was promised, what it was, and what the device says of itself now. Reads what a run's plan promises,
 * what it was taken on, and the device's facts after; gives fact by fact whether it holds. A device that
 * could not be asked proves nothing: its facts are neither held nor not.
 */
import type { Expected } from '../plan/step.ts'
import type { DeviceFacts } from '../wire/facts.ts'

const DAY_MS = 86_400_000

/** The day on which to look for the next patch: the patch's own date and the house's days. */
export const nextPatchDay = (patchDate: string, days: number): string =>
  new Date(Date.parse(patchDate) + days * DAY_MS).toISOString().slice(0, 10)

const FLOORS = ['floor', 'floorLoader', 'floorModem', 'floorMain'] as const

/** Facts that a plan promises, and those it must leave as they were. */
const PROMISED = ['build', 'release', 'patchDate', 'loaderVersion', 'slot', ...FLOORS] as const
const LEFT = ['serial', 'region'] as const

export type Proven = {
  readonly fact: string
  readonly was: string | undefined
  readonly promised: string | number | undefined
  readonly now: string | number | undefined
  /** Undefined: the device was not asked. */
  readonly holds: boolean | undefined
}

export type ToProve = {
  readonly expected: Expected
  /** Of the package that was the aim. */
  readonly patchDate: string
  /** What a fact was when the plan was taken. */
  readonly was: (fact: string) => string | undefined
  /** What the device said after the run had ended; undefined: it was not asked. */
  readonly now: DeviceFacts | undefined
}

/** Every fact that was promised or must have stayed, and how the start went. */
export function provenFacts({ expected, patchDate, was, now }: ToProve): readonly Proven[] {
  const promised = (fact: (typeof PROMISED)[number]) =>
    fact === 'patchDate' ? patchDate : expected[fact]
  const lock = expected.bootLock ?? was('bootLock')
  return [
    /* Of a fact that some families have nothing is told where nothing was promised. */
    ...PROMISED.filter((fact) => promised(fact) !== undefined).map((fact) =>
      held(fact, was(fact), promised(fact), now?.[fact]),
    ),
    held('bootLock', was('bootLock'), lock, now?.bootLock),
    ...LEFT.map((fact) => held(fact, was(fact), was(fact), now?.[fact])),
    held('outcome', undefined, 'normal', now?.outcome),
  ]
}

function held(
  fact: string,
  was: string | undefined,
  promised: string | number | undefined,
  now: string | number | undefined,
): Proven {
  const holds = now === undefined ? undefined : String(now) === String(promised ?? '')
  return { fact, was, promised, now, holds }
}
