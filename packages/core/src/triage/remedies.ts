/**
 * What is tried when a job fails, and in which order. Reads the family's remedies of the trouble, what was tried
 * already, what is half new and what the house does first; gives them the likeliest cure for its cost first. One
 * thing is changed at a time: what was tried stands last, and what would hurt now is held back with its reason.
 */
import type { Family } from '../family/profile.ts'
import type { RemedyAct, Trouble } from '../terms/trouble.ts'
import type { SCHOOLS } from '../terms/schools.ts'

export type Failing = {
  readonly trouble: Trouble
  readonly tried: ReadonlySet<RemedyAct>
  /** The house's first remedy for a transfer that failed. */
  readonly first: (typeof SCHOOLS)['transfer'][number]
  /** A single copy is neither what it was nor what it is to be: power and link stay as they are. */
  readonly inDoubt: boolean
  /** The customer's data must survive. */
  readonly keepData: boolean
}

type Remedy = Family['remedies'][number]
export type Offered = Remedy & {
  /** Percent of chance a minute: the minutes it takes, and those of hands once more. */
  readonly worth: number
  readonly stands: 'open' | 'tried' | 'held'
  readonly held?: 'in-doubt' | 'must-survive'
}

/** What may be done while a single copy is in doubt: look and send again, another cable, another port. */
const KEEPS_POWER: readonly RemedyAct[] = ['again', 'cable', 'port']
const LOSES_DATA: readonly RemedyAct[] = ['reset']
const ORDER = { open: 0, held: 1, tried: 2 } as const

/** The remedies of a trouble in the order of trying; empty: its family names none. */
export function remediesFor(
  { remedies }: Pick<Family, 'remedies'>,
  failing: Failing,
): readonly Offered[] {
  const offered = remedies
    .filter((one) => one.trouble === failing.trouble)
    .map((one): Offered => ({ ...one, worth: worthOf(one), ...standing(one, failing) }))
  return [...offered].sort(
    (a, b) =>
      ORDER[a.stands] - ORDER[b.stands] ||
      Number(isFirst(b, failing)) - Number(isFirst(a, failing)) ||
      b.worth - a.worth ||
      (a.does < b.does ? -1 : 1),
  )
}

const worthOf = ({ chance, minutes, hands }: Remedy): number => chance / (minutes + hands)

/** A house's habit goes before figures, once. */
const isFirst = ({ does }: Remedy, { trouble, first }: Failing): boolean =>
  trouble === 'transfer' && does === first

function standing(
  { does }: Remedy,
  { tried, inDoubt, keepData }: Failing,
): Pick<Offered, 'stands' | 'held'> {
  if (inDoubt && !KEEPS_POWER.includes(does)) return { stands: 'held', held: 'in-doubt' }
  if (keepData && LOSES_DATA.includes(does)) return { stands: 'held', held: 'must-survive' }
  return { stands: tried.has(does) ? 'tried' : 'open' }
}
