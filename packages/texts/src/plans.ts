/**
 * Plans and runs in words: steps, ranges of time, why a run stopped. Reads what is shown of them;
 * computes no figure of its own beyond rounding.
 */
import type {
  CutClass,
  Distance,
  Fate,
  Json,
  LedgeWord,
  MoveSaid,
  OrderCode,
  StepSaid,
  Worse,
} from '@plain-slate/core'
import { riskSeconds, worstFate } from '@plain-slate/core'
import type { Say } from './say.ts'
import { stepWords } from './steps.ts'

type Facts = Readonly<Record<string, Json>>
export type WhySaid = { readonly code: string; readonly facts: Facts }
export type PlanSaid = {
  /** Where its rehearsal fails; null: it does not. */
  readonly fails: { readonly step: number | null; readonly why: WhySaid | null } | null
  readonly steps: readonly StepSaid[]
  readonly fates: readonly { readonly fate: Fate }[]
  /** Seconds in which a cut would leave each class. */
  readonly atRisk: Readonly<Partial<Record<CutClass, number | undefined>>>
}
/** A charge, and what the rest of a run may draw, in percent. */
type ChargeSaid = { readonly charge: number; readonly needs: number }

export type RunSaid = {
  readonly state: string
  readonly word: LedgeWord
  readonly title: string
  readonly step: number
  readonly steps: readonly (StepSaid & { readonly number: number })[]
  readonly why: WhySaid | null
  readonly against: object | null
  readonly short: ChargeSaid | null
  readonly low: ChargeSaid | null
  readonly stopBy: string | null
  readonly ownerless: boolean
  readonly waiting: { readonly mode: { readonly name: string } | null } | null
}

const MIB = 1024 ** 2
const MINUTE = 60
/** Up to here a range is told in seconds. */
const SECONDS_MOST = 90

/** Whole MiB, and never 0 for something. */
export const mib = (bytes: number): number =>
  bytes === 0 ? 0 : Math.max(1, Math.round(bytes / MIB))

type Range = { readonly low: number; readonly high: number }

/** "24 to 33 min", "9 to 14 s"; the low end rounded down, the high end up. */
export function rangeWords(say: Say, { low, high }: Range): string {
  if (high <= SECONDS_MOST) {
    const [from, to] = [Math.floor(low), Math.ceil(high)]
    return from === to
      ? say('range.seconds.one', { n: to })
      : say('range.seconds', { low: from, high: to })
  }
  const [from, to] = [Math.floor(low / MINUTE), Math.ceil(high / MINUTE)]
  return from === to
    ? say('range.minutes.one', { n: to })
    : say('range.minutes', { low: from, high: to })
}

/** A time that has passed: "48 s", "12 min". */
export const passedWords = (say: Say, seconds: number): string =>
  seconds < SECONDS_MOST
    ? say('range.seconds.one', { n: Math.round(seconds) })
    : say('range.minutes.one', { n: Math.round(seconds / MINUTE) })

const text = (facts: Facts, name: string): string => {
  const value = facts[name]
  return typeof value === 'string' || typeof value === 'number' ? String(value) : ''
}

/** Why a run stopped, as the second half of a sentence. */
export function whyWords(say: Say, { code, facts }: WhySaid): string {
  const of = (name: string) => text(facts, name)
  switch (code) {
    case 'wrong-device':
      return say('why.wrong-device', { serial: of('serial') })
    case 'refused':
      return say('why.refused', { what: say(`refused.${of('code') as 'floor'}`) })
    case 'not-equal':
      return say('why.not-equal', { partition: of('partition') })
    case 'other-id':
      return say('why.other-id', {
        fact: say(`fact.${of('fact') as 'board'}`),
        here: of('here'),
        planned: of('planned'),
      })
    case 'bytes':
      return say('why.bytes', { image: of('image'), what: of('what') })
    case 'waits':
      return say('why.waits')
    case 'other-table':
      return otherTable(say, of('differ'))
    case 'undecided':
      return say('why.undecided', { what: of('what') })
    case 'not-wiped':
      return say('why.not-wiped', { items: of('items') })
    case 'journal':
      return say('why.journal', { entry: of('entry') })
    case 'fault':
      return say('why.fault', { what: of('what') })
    case 'not-as-promised':
      return say('why.not-as-promised', {
        build: of('build'),
        loader: of('loader') || 'none',
        floor: of('floor') || 'none',
        outcome: say(`outcome.${of('outcome') as 'loop'}`),
      })
    default:
      return say(`why.${code as 'asked' | 'superseded'}`)
  }
}

/** Why steps stand in their order. The facts of each reason are those that its sentence names. */
export const orderWords = (say: Say, { code, facts }: OrderSaid): string =>
  say(`plan.order.${code as 'parts'}`, facts as { readonly roles: string })

type OrderSaid = {
  readonly code: OrderCode
  readonly facts: Readonly<Record<string, Json>>
}

/** Where a plan's rehearsal fails. */
export const failsWords = (say: Say, { step, why }: NonNullable<PlanSaid['fails']>): string =>
  step === null || why === null
    ? say('plan.title.fails.end')
    : say('plan.title.fails', { step, why: whyWords(say, why) })

/** What was not read of a device and assumed for its rehearsal; empty where all of it was read. */
export function assumedWords(
  say: Say,
  {
    assumed: { parts, facts },
  }: { readonly assumed: { readonly parts: readonly string[]; readonly facts: Facts } },
): string {
  const told = Object.entries(facts).map(([fact, value]) =>
    say('plan.assumed.fact', { fact: say(`fact.${fact as 'board'}`), value: String(value) }),
  )
  const on = parts.length === 0 ? [] : [say('plan.assumed.parts', { parts: parts.join(', ') })]
  return [...on, ...told].join('; ')
}

/** The word of a port's tile: of a mode without a run it is the mode's own name. */
export function portWord(
  say: Say,
  { word, seen }: { readonly word: LedgeWord; readonly seen: SeenIn | null },
): string {
  const name = seen?.mode.name ?? ''
  const isMode = word === seen?.mode.kind && name !== ''
  return isMode ? `${name.slice(0, 1).toUpperCase()}${name.slice(1)}` : say(`port.${word}`)
}
type SeenIn = { readonly mode: { readonly name: string; readonly kind: string | null } }

/** A run's headline: the state, then what it is at. */
export function runTitle(say: Say, run: RunSaid): string {
  const step = run.steps.find(({ number }) => number === run.step)
  const words = step === undefined ? '' : stepWords(say, step)
  if (run.state === 'wanted') return say('run.title.wanted', { step: words })
  const titles: Partial<Record<LedgeWord, string>> = {
    done: say('run.title.done', { title: run.title }),
    stopped: stoppedTitle(say, run),
    'in-doubt': say(run.ownerless ? 'run.title.in-doubt' : 'run.title.in-doubt.lost'),
    'not-seen': say('run.title.not-seen', { mode: run.waiting?.mode?.name ?? '' }),
    'hands-now': say('run.title.hands-now', { step: words }),
    'first-start': say('run.title.first-start'),
  }
  return titles[run.word] ?? say('run.title.hands-off', { step: words })
}

/** What was said against the work is more than that somebody asked for it. */
function stoppedTitle(say: Say, { why, against, short, low, stopBy }: RunSaid): string {
  const asked = why === null || why.code === 'asked'
  if (against !== null && asked) return say('run.title.held')
  if (short !== null && asked) return say('run.title.short', { charge: short.charge })
  /* Charged since: nobody asked for it all the same. */
  if (low !== null && asked) return say('run.title.low', { charge: low.charge })
  if (stopBy !== null && asked)
    return say('run.title.stopped', { why: say('why.asked.by', { by: stopBy }) })
  return say('run.title.stopped', { why: why === null ? say('why.asked') : whyWords(say, why) })
}

/** A plan's headline: how long a list, what becomes of the data, what could go how wrong for how long. */
export function planTitle(say: Say, plan: PlanSaid): string {
  if (plan.fails !== null) return failsWords(say, plan.fails)
  const seconds = riskSeconds(plan.atRisk)
  const [dead, lost] = [Math.ceil(seconds.dead), Math.ceil(seconds.lost)]
  const repair = Math.ceil(seconds.mended / MINUTE)
  const risks = [
    ...(dead > 0 ? [say('plan.risk.dead', { n: dead })] : []),
    ...(lost > 0 ? [say('plan.risk.lost', { n: lost })] : []),
    ...(repair > 0 ? [say('plan.risk.repair', { n: repair })] : []),
  ]
  return say('plan.title', {
    steps: plan.steps.length,
    fate: say(`fate.${worstFate(plan.fates.map(({ fate }) => fate))}`),
    risks: risks.length === 0 ? say('plan.risk.none') : risks.join(', '),
  })
}

/** How long a plan lasts, what it needs, and how long its way back stays open. */
export const planLede = (
  say: Say,
  plan: {
    readonly time: Range
    readonly hands: Range
    readonly needs: number
    readonly restarts: number
    readonly wayBackUntil: number | null
  },
): string =>
  say('plan.lede', {
    time: rangeWords(say, plan.time),
    hands: rangeWords(say, plan.hands),
    needs: plan.needs,
    restarts: plan.restarts,
    back:
      plan.wayBackUntil === null
        ? say('plan.back.none')
        : say('plan.back', { step: plan.wayBackUntil }),
  })

/** Why an image is written or left alone. */
export function reasonWords(
  say: Say,
  { reason, facts }: { readonly reason: string; readonly facts: Facts },
): string {
  if (reason === 'together-with') return say('write.together-with', { role: text(facts, 'role') })
  if (reason === 'same-version')
    return say('write.same-version', { version: text(facts, 'version') })
  if (reason === 'loader-stays')
    return say('write.loader-stays', { here: text(facts, 'here'), why: text(facts, 'why') })
  return say(`write.${reason as 'differs'}`)
}

/** The last characters of a serial number: enough to tell two devices apart by eye. */
export const endOf = (serial: string): string => serial.slice(-4)

/** What is in its cell, where its mode shows that. */
export const chargeWords = (say: Say, battery: number | null): string =>
  battery === null ? say('seen.not-shown') : say('seen.percent', { n: battery })

/** A thing that is worse than before, or not as promised. */
export function worseWords(say: Say, { what, was, now }: Worse): string {
  const [kind = '', name = ''] = what.split('.')
  switch (kind) {
    case 'function': {
      const topic = say(`topic.function.${name as 'screen'}`)
      const word = (answer: string) => say(`answer.${answer as 'works'}`)
      return say('worse.function', { name: topic, was: word(was), now: word(now) })
    }
    case 'fact':
      return say('worse.fact', { name: say(`fact.${name as 'build'}`) })
    case 'data':
      return say('worse.data', { was: was === '' ? '' : say(`fate.${was as 'kept'}`) })
    case 'tally':
      return was === '0' ? say('worse.tally.wiped', { now }) : say('worse.tally', { was, now })
    default:
      return say(`worse.${kind as 'opens' | 'unasked'}`)
  }
}

/** Why an archive is refused, at which entry where one is to blame. */
export function refusalWords(
  say: Say,
  refusal: { readonly rule: string; readonly entry: string; readonly offset: number },
): string {
  const why = say(`rule.${refusal.rule as 'truncated'}`)
  const { entry, offset } = refusal
  return entry === '' && offset === 0
    ? say('archive.state.refused.whole', { why })
    : say('archive.state.refused', { why, entry, offset })
}

/** How a build stands to another: how many of what lie between, and which way; or why the two have no order. */
export function farWords(
  say: Say,
  { order, far }: { readonly order: Distance['order']; readonly far: Omit<Distance, 'order'> },
): string {
  const { segment, n, unit, here, there } = far
  if (order === 'same') return say('routes.same')
  if (order === 'incomparable') return say('routes.incomparable', { segment, here, there })
  if (unit === 'week' || unit === 'fortnight') return say(`routes.far.${unit}`, { n, order })
  return unit === 'count' ? say('routes.far.count', { n, order, segment }) : say(`routes.${order}`)
}

/** Moves of a route one after the other: packages by their titles, and what is done without one. */
export const movesWords = (say: Say, moves: readonly MoveSaid[]): string =>
  moves.map((move) => (move.kind === 'package' ? move.title : say(`move.${move.act}`))).join(', ')

/** How its table differs, partition by partition: one a line, how before the name. Runs of before do not say. */
function otherTable(say: Say, differ: string): string {
  if (differ === '') return say('why.other-table')
  const list = differ.split('\n').map((line) => {
    const [how = '', ...name] = line.split(' ')
    return say('why.other-table.one', { partition: name.join(' '), how })
  })
  return say('why.other-table.differs', { list: list.join(', ') })
}
