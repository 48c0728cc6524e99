/**
 * Lighter remedies, before any firmware: what a device like this may be cured by, and what was tried of it. Reads how far
 * it starts, what it came for, whether its data may go, and the family; gives what is offered, in the order in which it
 * is tried, the least to lose first. Each that is offered is tried or said not to be wanted, and the one that cures ends
 * the job without a write.
 */
import { isKind } from '../family/modes.ts'
import type { Family, Way } from '../family/profile.ts'
import { beginsIn } from '../family/modes.ts'
import type { Intent } from '../terms/slip.ts'
import { LIGHTER } from '../terms/line.ts'
import type { Lines } from './intake.ts'
import { said } from './intake.ts'

export type LighterName = (typeof LIGHTER)[number]
export type Lighter = {
  readonly name: LighterName
  /** How hands do it on this family, where it says so. */
  readonly say: readonly string[]
}

type At = {
  readonly family: Family | undefined
  readonly intent: Intent
  readonly keepData: boolean
  readonly lines: Lines
}

/** Intents of a device that is to be as it was, or newer: those of another variant or an older build nothing light meets. */
const MENDS: readonly Intent[] = ['restore', 'update']

/** Nothing is offered before somebody said how far it starts. */
export function lighterOffered(at: At): readonly Lighter[] {
  const starts = said(at.lines, 'history.starts')
  if (starts === undefined || !MENDS.includes(at.intent)) return []
  const all: readonly (readonly [LighterName, boolean, readonly string[]])[] = [
    ['charge', starts === 'silent', []],
    ['restart', starts === 'stops' || at.intent === 'restore', restartSays(at.family, starts)],
    ['updater', starts === 'runs' && at.intent === 'update', []],
    ['cache', starts === 'runs' && at.intent === 'restore', []],
    ['reset', mayReset(at, starts), []],
  ]
  return all.filter(([, is]) => is).map(([name, , say]) => ({ name, say }))
}

/** Off for good and on again: from a hang or a loop where it stops, as its family says it. */
function restartSays(family: Family | undefined, starts: string): readonly string[] {
  if (family === undefined || starts === 'runs') return []
  const off = family.ways.find(
    (way) => isKind(family, way.to, 'off') && way.hands && fromStuck(family, way),
  )
  return off === undefined ? [] : [off.say]
}
const fromStuck = (family: Family, way: Way): boolean =>
  family.modes.some(({ id, kind }) => (kind === 'loop' || kind === 'hang') && beginsIn(way, id))

/** A reset is the last, takes everything, and asks for an account that is still on it. */
function mayReset({ intent, keepData, lines, family }: At, starts: string): boolean {
  if (intent !== 'restore' || keepData || starts === 'silent') return false
  const asks = family?.account.asksAfterReset ?? true
  return !asks || ['absent', 'owner-able'].includes(said(lines, 'owner.account') ?? '')
}

/** The remedy that cured it; undefined: none did. */
export const curedBy = (lines: Lines): LighterName | undefined =>
  LIGHTER.find((one) => said(lines, `lighter.${one}`) === 'cured')

/** Offered, and neither tried nor refused. */
export const lighterOpen = (at: At): readonly Lighter[] =>
  curedBy(at.lines) === undefined
    ? lighterOffered(at).filter(({ name }) => !at.lines.has(`lighter.${name}`))
    : []
