/**
 * Before it leaves the running system: what can be done only while it starts. Reads the family, the wish for the data,
 * the house, a plan where one was taken, what is known of the device and what was said; gives what must be done, each
 * with whether it is, and whether a leg out of the system waits for it. Of a device that does not start nothing is asked.
 */
import { modeProfile } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import type { HouseRules } from '../match/house.ts'
import type { Fate } from '../match/rules/data-fate.ts'
import type { Mode } from '../terms/device.ts'
import { FATE_CONSENTS } from '../terms/line.ts'
import { HOLDS_MS } from './agreed.ts'
import type { Lines } from './intake.ts'
import { said } from './intake.ts'

export const LEAVE_ITEMS = [
  'tally',
  'backup',
  'accounts',
  'restart',
  'addons',
  'permission',
  'charge',
] as const
export type LeaveName = (typeof LEAVE_ITEMS)[number]

export type LeaveItem = {
  readonly item: LeaveName
  /** What a person says of it, and how; undefined: the system sees it by itself. */
  readonly topic: string | undefined
  readonly answers: readonly string[]
  readonly answer: string | undefined
  readonly holds: boolean
  readonly facts: Readonly<Record<string, string | number>>
}

export type Leaving = {
  readonly family: Pick<Family, 'modes' | 'ways' | 'account'>
  /** The mode of its running system. */
  readonly mode: Mode
  /** It runs as its owner knows it; false: it stands at the page that sets it up, and nothing is on it. */
  readonly inUse: boolean
  /** It is there now: what is counted over the link can be counted. */
  readonly here: boolean
  readonly keepData: boolean
  /** Things that are on it, or may be. */
  readonly things: readonly string[]
  readonly house: Pick<
    HouseRules,
    'backup' | 'accounts' | 'into' | 'batteryFloor' | 'batteryMargin'
  >
  readonly plan: LeavePlan | undefined
  /** It was looked at over the link while it ran: then it counted what it lets be counted. */
  readonly looked: boolean
  /** When it last refused to leave over the link for want of permission; ms of the shop's clock. */
  readonly stayedAt: number | undefined
  /** Whether a screen lock is on it, as far as somebody looked. */
  readonly screenLock: 'on' | 'off' | undefined
  /** Percent of charge as it was read last. */
  readonly percent: number | undefined
  readonly lines: Lines
  /** ms of the shop's clock: a word that grew old is given anew. */
  readonly now: number
}

export type LeavePlan = {
  readonly takenAt: number
  /** Percent that must be there to begin. */
  readonly needs: number
  /** A step of it needs the link permission. */
  readonly permission: boolean
  /** A part of its owner's own stays on it, or is put on. */
  readonly keepsOwn: boolean
  /** What becomes of the customer's things, each once. */
  readonly fates: readonly Fate[]
}

/** What must be done first, in the order in which it is done. */
export function beforeLeaving(at: Leaving): readonly LeaveItem[] {
  const { keepData, inUse, here } = at
  return [
    ...(here && inUse && keepData && counts(at) ? [seen('tally', at.looked)] : []),
    ...(inUse && keepData && wantsCopy(at) ? [copyItem(at.lines, true, at.now)] : []),
    ...(inUse && removes(at) ? accountItems(at) : []),
    ...(inUse && at.plan?.keepsOwn === true ? [addonsItem(at)] : []),
    ...(asksPermission(at) ? [permissionItem(at)] : []),
    ...(here && drainsAway(at) ? [chargeItem(at)] : []),
  ]
}

/** Somebody said with a reason that it leaves all the same; a plan that was taken since is another matter. */
export function isLeaveWaived({
  lines,
  plan,
  now,
}: Pick<Leaving, 'lines' | 'plan' | 'now'>): boolean {
  const line = lines.get('ready.leave')
  if (line === undefined || line.at < (plan?.takenAt ?? 0)) return false
  return now - line.at <= HOLDS_MS.signature
}

/** What still stands in the way of a leg out of the system; waived: nothing. */
export const leaveOpen = (at: Leaving): readonly LeaveItem[] =>
  isLeaveWaived(at) ? [] : beforeLeaving(at).filter(({ holds }) => !holds)

const seen = (item: LeaveName, holds: boolean, facts: LeaveItem['facts'] = {}): LeaveItem => ({
  item,
  topic: undefined,
  answers: [],
  answer: undefined,
  holds,
  facts,
})

const spoken = (
  item: LeaveName,
  { lines, now }: Pick<Leaving, 'lines' | 'now'>,
  {
    answers = ['done'],
    since = 0,
    facts = {},
  }: {
    readonly answers?: readonly string[]
    readonly since?: number
    readonly facts?: LeaveItem['facts']
  } = {},
): LeaveItem => {
  const topic = `ready.${item}`
  const line = lines.get(topic)
  const old =
    line !== undefined && now - line.at > (item === 'backup' ? HOLDS_MS.copy : HOLDS_MS.signature)
  const answer = line !== undefined && line.at >= since && !old ? line.answer : undefined
  const holds = answer !== undefined && answers.includes(answer)
  return { item, topic, answers, answer, holds, facts }
}

const counts = ({ family, mode }: Leaving): boolean =>
  modeProfile(family, mode)?.takes.tally !== undefined

const wantsCopy = ({ house, plan }: Pick<Leaving, 'house' | 'plan'>): boolean =>
  house.backup === 'always' || losesSome(plan?.fates ?? [])

/** Something of the customer's is erased, is left unreadable, or cannot be promised. */
export const losesSome = (fates: readonly Fate[]): boolean =>
  fates.some((fate) => FATE_CONSENTS.some((lost) => lost === fate))

/**
 * A copy that was made and opens, and one that its owner does not want, are two answers; where it does not start none
 * can be made, and its owner knows. What was copied stays copied: no plan makes it older, but days do.
 */
export const copyItem = (lines: Lines, starts: boolean, now: number): LeaveItem =>
  spoken(
    'backup',
    { lines, now },
    { answers: starts ? ['opens', 'not-wanted'] : ['impossible', 'not-wanted'] },
  )

/** A wipe is in view, the device asks for the account after it, and the house has its owner remove it before. */
const removes = ({ family, keepData, plan, house, lines, screenLock }: Leaving): boolean =>
  family.account.asksAfterReset &&
  house.accounts === 'before' &&
  (plan === undefined ? !keepData : plan.fates.includes('wiped')) &&
  (said(lines, 'owner.account') !== 'absent' || screenLock === 'on')

/** Add-ons of its owner's that break an update off are put off while it runs; on again when it is handed back. */
const addonsItem = (at: Leaving): LeaveItem => spoken('addons', at, { answers: ['done', 'none'] })

/** Off with account and screen lock, and what dies with the lock said; then it is restarted once, to be sure. */
function accountItems(at: Leaving): readonly LeaveItem[] {
  const { family, lines, things } = at
  const dies = family.account.lockTakes.filter((thing) => things.includes(thing))
  const off = spoken('accounts', at, { facts: { dies: dies.join(', ') } })
  return [off, spoken('restart', at, { since: lines.get('ready.accounts')?.at ?? Infinity })]
}

/** Its system is left by command, or a step of the plan is said to it: that needs its owner's permission. */
const asksPermission = ({ family, mode, house, plan }: Leaving): boolean =>
  plan === undefined ? house.into === 'command' && byPermission(family, mode) : plan.permission
const byPermission = ({ ways }: Pick<Family, 'ways'>, mode: Mode): boolean =>
  ways.some(({ needs, from }) => needs === 'permission' && from !== 'any' && from.includes(mode))

/** One that was said to be given, and then stayed all the same, was not. */
const permissionItem = (at: Leaving): LeaveItem =>
  spoken('permission', at, { since: Math.max(at.plan?.takenAt ?? 0, (at.stayedAt ?? -1) + 1) })

/** Some mode that it may be led into does not charge. */
const drainsAway = ({ family, mode }: Leaving): boolean =>
  modeProfile(family, mode)?.charges === true &&
  family.modes.some(({ kind, charges }) => (kind === 'writing' || kind === 'rescue') && !charges)

/** What the plan needs; before there is one, what the house wants left at the end, or its floor. */
function chargeItem({ percent, plan, house }: Leaving): LeaveItem {
  const needed = plan?.needs ?? Math.max(house.batteryFloor ?? 0, house.batteryMargin)
  const facts = { needed, ...(percent === undefined ? {} : { here: percent }) }
  return seen('charge', percent !== undefined && percent >= needed, facts)
}
