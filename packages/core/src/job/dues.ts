/**
 * What is due on a slip after today: updates that are held back, the next patch, the end of support, a switch that opens
 * later, a permit that was ordered. Reads what was said and what was written; gives the days that were put down, and
 * those that ought to be, each with the day that the figures suggest. A day is put down and done by people; nothing
 * waits for it.
 */
import type { Family } from '../family/profile.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Identity } from '../device/identity.ts'
import { toldOf } from '../device/identity.ts'
import type { DueKind, Line } from '../terms/line.ts'
import { DUES, dueTopic, isDay } from '../terms/line.ts'
import type { Intent } from '../terms/slip.ts'
import { nextPatchDay } from './proof.ts'

/** A day that somebody put down, as an ISO date. */
export type Due = { readonly what: DueKind; readonly on: string }
/** `on`: the day the figures suggest; undefined: nobody can know it. */
export type DueAsked = { readonly what: DueKind; readonly on: string | undefined }

type Lines = ReadonlyMap<string, Pick<Line, 'answer'>>

/** Days that stand: what was done, or is not needed, is not due. */
export const duesOf = (lines: Lines): readonly Due[] =>
  DUES.flatMap((what) => {
    const on = lines.get(dueTopic(what))?.answer
    return on !== undefined && isDay(on) ? [{ what, on }] : []
  })

export type AfterJob = {
  readonly lines: Lines
  readonly family: Pick<Family, 'lock'> | undefined
  readonly identity: Identity
  readonly intent: Intent
  /** The package that was put on last; undefined: nothing was. */
  readonly written: Pick<Manifest, 'channel' | 'patchDate' | 'supportedUntil'> | undefined
  readonly today: string
  /** Days of this house: how long updates are held back, and after how many a next patch is looked for. */
  readonly days: { readonly hold: number; readonly patch: number }
}

/** What ought to be put down and was not, in the order in which it is asked. */
export function duesAsked(at: AfterJob): readonly DueAsked[] {
  const { written, today, days } = at
  const held = written !== undefined && holdsBack(at)
  const support = written?.supportedUntil
  /* After the work it is of no account: every set-up greys it anew. */
  const switchOn = written === undefined ? switchOpens(at) : undefined
  const asked: readonly (DueAsked | undefined)[] = [
    held ? { what: 'updates', on: daysAfter(today, days.hold) } : undefined,
    written === undefined
      ? undefined
      : { what: 'patch', on: later(today, nextPatchDay(written.patchDate, days.patch)) },
    support === undefined ? undefined : { what: 'support', on: support },
    switchOn === undefined ? undefined : { what: 'lock', on: switchOn },
    at.intent === 'service' && !at.lines.has('permit.service')
      ? { what: 'permit', on: undefined }
      : undefined,
  ]
  return asked
    .filter((one) => one !== undefined)
    .filter(({ what }) => !at.lines.has(dueTopic(what)))
}

/** Whoever goes back, or takes what is not released, gets no updates, or must not take the next. */
const holdsBack = ({ intent, written }: AfterJob): boolean =>
  intent === 'downgrade' || (written !== undefined && written.channel !== 'stable')

/** The day on which a greyed switch for the lock opens; undefined: it is not greyed, or for good. */
function switchOpens({ family, identity, today }: AfterJob): string | undefined {
  if (family?.lock.opens !== 'command' || toldOf(identity, 'lockSwitch') !== 'greyed')
    return undefined
  const carrier = toldOf(identity, 'carrier')
  if (carrier !== undefined && family.lock.neverOn.includes(String(carrier))) return undefined
  return daysAfter(today, family.lock.greyedDays)
}

const DAY_MS = 86_400_000
const daysAfter = (day: string, days: number): string =>
  new Date(Date.parse(day) + days * DAY_MS).toISOString().slice(0, 10)
const later = (a: string, b: string): string => (a > b ? a : b)
