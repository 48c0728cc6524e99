/**
 * Whether it came back as it went in. Reads what was said at Intake and after, the promised facts beside
 * the device's own, the tally before and after, the fate that was promised of the data; gives everything
 * that is worse, or that nobody has shown to be as good. Any of it keeps First start open until somebody
 * decides, with a reason; what is found later opens it again.
 */
import type { Fate } from '../match/rules/data-fate.ts'
import { FUNCTIONS } from '../terms/line.ts'
import type { Lines } from './intake.ts'
import { said } from './intake.ts'

export type Tally = {
  readonly items: number
  readonly bytes: number
  readonly opens: boolean
}

/** True when two counts say the same: as many things, as many bytes, and they open or do not. */
export const sameTally = (a: Tally, b: Tally): boolean =>
  a.items === b.items && a.bytes === b.bytes && a.opens === b.opens

export type AfterFacts = {
  readonly lines: Lines
  /** Facts that were promised, and whether the device says so now; undefined: it was not asked. */
  readonly facts: readonly { readonly fact: string; readonly holds: boolean | undefined }[]
  readonly tally: { readonly before: Tally | undefined; readonly after: Tally | undefined }
  /** What the plan said becomes of what lies on the customer's partition. */
  readonly promised: Fate | undefined
  /** When the device was read last, ms of the shop's clock. */
  readonly readAt: number | undefined
}

/** One thing that is not as it was, or as it was promised. */
export type Worse = {
  readonly what: string
  readonly was: string
  readonly now: string
}

/** Everything that is worse than at Intake, or other than promised. */
export function worseAfter(at: AfterFacts): readonly Worse[] {
  return [...worseFunctions(at.lines), ...worseData(at), ...worseFacts(at)]
}

/** The same of a device on which nothing was written: it was promised nothing but to be as it was. */
export const worseUnwritten = ({ lines }: Pick<AfterFacts, 'lines'>): readonly Worse[] => [
  ...worseFunctions(lines),
  ...(said(lines, 'after.data') === 'not-as-promised'
    ? [{ what: 'data', was: '', now: 'not-as-promised' }]
    : []),
]

const RANK = ['works', 'untested', 'fails'] as const
const rankOf = (answer: string): number => RANK.findIndex((one) => one === answer)

/** What failed before may fail after; what worked and was not tried again is not shown to work. */
function worseFunctions(lines: Lines): readonly Worse[] {
  return FUNCTIONS.flatMap((one) => {
    const now = said(lines, `after.${one}`)
    const was = said(lines, `function.${one}`) ?? 'works'
    if (now === undefined || rankOf(now) <= rankOf(was)) return []
    return [{ what: `function.${one}`, was, now }]
  })
}

function worseData({ lines, tally: { before, after }, promised }: AfterFacts): readonly Worse[] {
  const answered = said(lines, 'after.data') === 'not-as-promised'
  const data = answered ? [{ what: 'data', was: promised ?? '', now: 'not-as-promised' }] : []
  if (after === undefined) return data
  if (promised === 'wiped')
    return after.items > 0 ? [...data, { what: 'tally', was: '0', now: String(after.items) }] : data
  if (promised !== 'kept' || before === undefined) return data
  const fewer = after.items < before.items || after.bytes < before.bytes
  if (fewer) return [...data, { what: 'tally', was: countOf(before), now: countOf(after) }]
  const closed = before.opens && !after.opens
  return closed ? [...data, { what: 'opens', was: 'opens', now: 'closed' }] : data
}

const countOf = ({ items }: Tally): string => String(items)

/** A device that was not asked has proven nothing: its loader's screen is the next best proof. */
function worseFacts({ facts }: AfterFacts): readonly Worse[] {
  const asked = facts.some(({ holds }) => holds !== undefined)
  if (!asked) return [{ what: 'unasked', was: '', now: '' }]
  return facts
    .filter(({ holds }) => holds === false)
    .map(({ fact }) => ({ what: `fact.${fact}`, was: '', now: '' }))
}

/** True when somebody decided on it since everything that is worse was said or read. */
export function isDecided({ lines, readAt }: Pick<AfterFacts, 'lines' | 'readAt'>): boolean {
  const decided = lines.get('decided.first-start')
  if (decided === undefined) return false
  const after = [...lines.values()].filter(({ topic }) => topic.startsWith('after.'))
  return [...after.map(({ at }) => at), readAt ?? 0].every((at) => decided.at >= at)
}
