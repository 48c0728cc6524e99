/**
 * Ready, and the one gate before every write: what the system sees, what the owner agreed to, what a
 * person makes sure of. Reads what is known of slip, plan, port, device, packages and lines; gives each
 * check with whether it holds and why, and whether a run may start. All of them must hold, whoever asks;
 * nothing waits meanwhile in a mode that does not charge, where a battery only drains.
 */
import type { Actor } from '../acts/acts.ts'
import { authorise } from '../acts/acts.ts'
import type { Fate } from '../match/rules/data-fate.ts'
import type { ROAD_CONSENTS } from '../terms/line.ts'
import { ACCESSORIES, FATE_CONSENTS } from '../terms/line.ts'
import type { SlipState } from '../terms/slip.ts'
import type { EndOfWord } from './agreed.ts'
import { wordEnd } from './agreed.ts'
import type { GateComputer } from './ready-computer.ts'
import { computerChecks } from './ready-computer.ts'
import type { Lines } from './intake.ts'
import type { HouseRules } from '../match/house.ts'
import { haltOf, said } from './intake.ts'
import type { LeaveItem, Leaving } from './leave.ts'
import { beforeLeaving, copyItem, isLeaveWaived, losesSome } from './leave.ts'

export const CHECKS = [
  'slip',
  'intake',
  'plan',
  'rehearsed',
  'agent',
  'seen',
  'same',
  'free',
  'mode',
  'battery',
  'package',
  'bytes',
  'published',
  'eye',
  'asked',
  'tally',
  'cable',
  'driver',
  'rival',
  'power',
  'sleep',
  'disk',
] as const
export type CheckName = (typeof CHECKS)[number]

export type Check = {
  readonly check: CheckName
  readonly holds: boolean
  /** Whether there was anything to look at: its device at a port, a cable hung on that. */
  readonly seen: boolean
  readonly facts: Readonly<Record<string, string | number>>
}

/** A word that is asked of people for this plan: signed by a line that holds. */
export type Confirmation = {
  readonly topic: string
  readonly answers: readonly string[]
  readonly signed: boolean
  readonly facts: LeaveItem['facts']
  /** The answer that stands, where one was given that holds. */
  readonly answer: string | undefined
  /** Why the word that was given does not hold; undefined: it does, or none was given. */
  readonly ended: EndOfWord | undefined
}

/** A package of the plan, as far as the gate asks. */
export type GatePackage = {
  readonly title: string
  /** Everything that its own manifest and sums say holds. */
  readonly whole: boolean
  /** A digest from outside vouches for it. */
  readonly published: boolean
  /** Its bytes are where they were when it was proven, and as many. */
  readonly bytes: boolean
}

/** The mode in which it is seen, as its family names it. */
export type SeenMode = { readonly name: string; readonly charges: boolean }

export type ReadyFacts = {
  readonly state: SlipState
  /** Questions of Intake that nobody answered, and lighter remedies that nobody tried: what was never said counts as no. */
  readonly intakeOpen: number
  /** When something was last said against the work, and now; ms of the shop's clock. */
  readonly against: number | undefined
  readonly now: number
  readonly plan:
    | {
        readonly takenAt: number
        readonly stale: boolean
        /** Its rehearsal ended as the plan promises. */
        readonly reaches: boolean
        readonly needs: number
        /** The same without the floor of the house. */
        readonly needsAlone: number
        /** Seconds that it takes at the longest. */
        readonly seconds: number
        /** A step of it needs the link permission. */
        readonly permission: boolean
        readonly fates: readonly Fate[]
        /** What its owner agrees to for these very packages: a mark that stays, a build that is not stable. */
        readonly consents: readonly (typeof ROAD_CONSENTS)[number][]
        /** The device reads its package from the memory card. */
        readonly fromCard: boolean
      }
    | undefined
  readonly agent: boolean
  readonly port: string | undefined
  readonly mode: SeenMode | undefined
  readonly percent: number | undefined
  /** Ids of the device at the port that are not those the plan was made for. */
  readonly otherIds: readonly string[]
  readonly busy: boolean
  readonly cable:
    { readonly name: string; readonly runs: number; readonly losses: number } | undefined
  /** What the computer of its port tells of itself; undefined: nobody tells, and people see to it. */
  readonly computer: GateComputer | undefined
  readonly packages: readonly GatePackage[]
  /** A lead took every package that nobody outside vouches for, with a reason. */
  readonly overruled: boolean
  /** Facts that the fuses settle against others, of which nobody looked at the board yet. */
  readonly doubted: readonly string[]
  /** Topics that a finding on the packages still asks people for. */
  readonly unasked: readonly string[]
  readonly keepData: boolean
  /** What can be done only while it runs; undefined: nothing says that it does. */
  readonly leaving: Leaving | undefined
  /** False: it does not start, and nothing that needs it running is asked. */
  readonly starts: boolean
  /** What the house decided of backups and of SIM and card. */
  readonly house: Pick<HouseRules, 'backup' | 'cards' | 'batteryFloor'>
  /** MiB of the customer's that were counted, and seconds that copying them back takes at least and at most. */
  readonly restore?: LeaveItem['facts']
  /** Percent a minute that it drains where it answers and does not charge. */
  readonly idleDrain: number
  readonly lines: Lines
}

/** More losses than this of the runs on a cable, and it is not a good one. */
const LOSSES_MOST = 0.2
/** Fewer runs than this say nothing of a cable. */
const RUNS_LEAST = 3

type Asked = Omit<Check, 'seen'> & { readonly seen?: boolean; readonly asked?: boolean }

/** What the system sees by itself. */
export function checksOf(at: ReadyFacts): readonly Check[] {
  const { plan, cable } = at
  const bad =
    cable !== undefined && cable.runs >= RUNS_LEAST && cable.losses / cable.runs > LOSSES_MOST
  const port = at.port ?? ''
  const seen = at.port !== undefined
  const all: readonly Asked[] = [
    ...slipChecks(at),
    { check: 'plan', holds: plan !== undefined && !plan.stale, facts: {} },
    { check: 'rehearsed', holds: plan?.reaches === true, facts: {} },
    { check: 'agent', holds: at.agent, facts: {} },
    { check: 'seen', holds: seen, facts: { port } },
    {
      check: 'same',
      holds: seen && at.otherIds.length === 0,
      seen,
      facts: { port, other: at.otherIds.join(', ') },
    },
    { check: 'free', holds: seen && !at.busy, seen, facts: { port } },
    {
      check: 'mode',
      seen,
      holds: at.mode !== undefined && (!drains(at) || isSigned(at)),
      facts: { mode: at.mode?.name ?? '', drain: at.idleDrain },
    },
    {
      check: 'battery',
      seen: at.percent !== undefined,
      holds: at.percent !== undefined && plan !== undefined && at.percent >= plan.needs,
      facts: chargeFacts(at),
    },
    ...packageChecks(at),
    {
      check: 'eye',
      asked: at.doubted.length > 0,
      holds: at.doubted.length === 0,
      facts: { doubted: at.doubted.join(', ') },
    },
    {
      check: 'asked',
      asked: at.unasked.length > 0,
      holds: at.unasked.length === 0,
      facts: { topics: at.unasked.join(', ') },
    },
    ...tallyCheck(at),
    /* One that nobody named yet is said, and stops nobody: every shop begins with such. */
    {
      check: 'cable',
      seen: cable !== undefined,
      holds: !bad,
      facts: { cable: cable?.name ?? '', runs: cable?.runs ?? 0, losses: cable?.losses ?? 0 },
    },
  ]
  const asked: readonly Asked[] = [...all, ...computerChecks(at)]
  return asked
    .filter((one) => one.asked !== false)
    .map(({ check, holds, seen: looked = true, facts }) => ({ check, holds, seen: looked, facts }))
}

/** The slip is open, nothing was said against the work, and nothing is left that Intake asks. */
function slipChecks({ state, lines, intakeOpen: n }: ReadyFacts): readonly Asked[] {
  const halt = haltOf(lines)
  const facts = { halt: halt ?? '', state }
  return [
    { check: 'slip', holds: state === 'open' && halt === undefined, facts },
    { check: 'intake', holds: n === 0, facts: { n } },
  ]
}

/** While it runs its things are counted, or it leaves without that, with a reason. */
function tallyCheck({ leaving }: ReadyFacts): readonly Asked[] {
  const item = leaving && beforeLeaving(leaving).find((one) => one.item === 'tally')
  if (leaving === undefined || item === undefined) return []
  return [{ check: 'tally', holds: item.holds || isLeaveWaived(leaving), facts: {} }]
}

/** Every package that the plan writes: whole, its bytes here, published or overruled. */
function packageChecks({ packages, overruled }: ReadyFacts): readonly Asked[] {
  const titles = (odd: (one: GatePackage) => boolean) =>
    packages
      .filter(odd)
      .map(({ title }) => title)
      .join(', ')
  const some = packages.length > 0
  const unwhole = titles(({ whole }) => !whole)
  const gone = titles(({ bytes }) => !bytes)
  const unpublished = titles(({ published }) => !published)
  return [
    { check: 'package', holds: some && unwhole === '', facts: { unproven: unwhole } },
    { check: 'bytes', holds: some && gone === '', facts: { titles: gone } },
    {
      check: 'published',
      holds: some && (unpublished === '' || overruled),
      facts: { titles: unpublished, overruled: unpublished !== '' && overruled ? 1 : 0 },
    },
  ]
}

/** The charge that is there and what must be: by the plan itself, and by the floor of the house, where it has one. */
const chargeFacts = ({ percent, plan, house }: ReadyFacts): Check['facts'] => ({
  here: percent ?? 0,
  needed: plan?.needs ?? 0,
  alone: plan?.needsAlone ?? 0,
  floor: house.batteryFloor ?? 0,
})

/** What is done before it leaves its system stands among what people sign for too. */
const ONCE: readonly LeaveItem['item'][] = ['accounts', 'restart', 'addons']

/** In a mode that does not charge it only drains while people sign. */
const drains = (at: ReadyFacts): boolean => at.mode?.charges === false
const isSigned = (at: ReadyFacts): boolean => confirmationsOf(at).every(({ signed }) => signed)

/**
 * What people say for this plan: the owner's word for each fate that is not kept, and what a technician
 * makes sure of; of the computer only where it does not tell itself. A word given before the plan was taken is none; "no" to a fate signs nothing.
 */
export function confirmationsOf({
  plan,
  keepData,
  house,
  lines,
  leaving,
  starts,
  computer,
  against,
  now,
  restore = {},
}: Omit<ReadyFacts, 'agent' | 'port' | 'packages'>): readonly Confirmation[] {
  /* The card that the package is read from stays where it is. */
  const taken = ACCESSORIES.filter((one) => one !== 'case' && !(one === 'card' && plan?.fromCard))
  const isHere = taken.some((one) => said(lines, `accessory.${one}`) === 'here')
  const out = house.cards === 'out' && isHere
  const copied = keepData && (house.backup === 'always' || losesSome(plan?.fates ?? []))
  const consents = FATE_CONSENTS.filter((consent) => plan?.fates.some((fate) => fate === consent))
  const own = (topic: string, answers: readonly string[] = ['done']): Confirmation => {
    const line = lines.get(topic)
    const ended = line && wordEnd(line, { plan: plan?.takenAt, against, now })
    const answer = ended === undefined ? line?.answer : undefined
    const signed = answer !== undefined && answer !== 'no'
    return { topic, answers, answer, signed, ended, facts: {} }
  }
  /* A copy is put back where something goes: by whom, and how long that takes, is said before. */
  const goes = plan?.fates.some((fate) => fate === 'wiped' || fate === 'unreadable') === true
  const restores = goes && said(lines, 'ready.backup') === 'opens'
  const restoring: Confirmation = { ...own('ready.restore', ['shop', 'owner']), facts: restore }
  const before = leaving === undefined ? [] : beforeLeaving(leaving)
  const waived = leaving !== undefined && isLeaveWaived(leaving)
  const once = (item: LeaveItem): Confirmation => {
    const { topic = '', answers, holds, facts } = item
    const answer = holds ? item.answer : waived ? 'waived' : undefined
    const line = holds ? undefined : lines.get(topic)
    const ended = line && wordEnd(line, { plan: plan?.takenAt, against, now })
    return { topic, answers, answer, signed: answer !== undefined, ended, facts }
  }
  return [
    ...consents.map((consent) => own(`fate.${consent}`, ['yes', 'no'])),
    ...(plan?.consents ?? []).map((one) => own(`consent.${one}`, ['yes', 'no'])),
    ...(copied ? [once(copyItem(lines, starts, now))] : []),
    ...(restores ? [restoring] : []),
    ...before.filter(({ item }) => ONCE.includes(item)).map(once),
    own('ready.battery'),
    own('ready.cable'),
    ...(plan?.permission === true ? [own('ready.permission')] : []),
    ...(out ? [own('ready.out')] : []),
    ...(computer === undefined ? [own('ready.bench')] : []),
  ]
}

/** What stands in the way of a start, as codes of checks and topics; none: it may start. */
export function mayStart(at: ReadyFacts, actor: Actor | 'shell'): readonly string[] {
  const allowed = actor === 'shell' || authorise(actor, 'run.start').kind === 'allowed'
  return [
    ...(allowed ? [] : ['check.role']),
    ...checksOf(at)
      .filter(({ holds }) => !holds)
      .map(({ check }) => `check.${check}`),
    ...confirmationsOf(at)
      .filter(({ signed }) => !signed)
      .map(({ topic }) => `topic.${topic}`),
  ]
}
