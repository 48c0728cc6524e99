/**
 * What is kept of a slip's job: lines, readings, plans that were taken. Rows are only put, never changed;
 * who puts one holds the slip's row lock, so that two people's lines take turns.
 */
import type { LineShown } from '@plain-slate/api'
import type {
  Basis,
  FactValue,
  Json,
  KeptReading,
  Mode,
  Reading,
  SlipState,
  Stage,
} from '@plain-slate/core'
import { isoOf, ms } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

/** One answer of a person. `noteText`: where its note lies beside the book. */
export type NewLine = {
  readonly topic: string
  readonly answer: string
  readonly noteText: string | null
  readonly by: string | null
  readonly at: Date
}

export async function insertLines(
  trx: Transaction,
  slip: string,
  lines: readonly NewLine[],
): Promise<void> {
  await trx('slip_lines').insert(
    lines.map(({ noteText, ...line }) => ({ slip, note_text: noteText, ...line })),
  )
}

/** Every line of a slip, the oldest first. */
export async function listLines(db: Database, slip: string): Promise<LineShown[]> {
  const rows = (await db('slip_lines')
    .leftJoin('personal_texts', 'personal_texts.id', 'slip_lines.note_text')
    .leftJoin('people', 'people.id', 'slip_lines.by')
    .where('slip_lines.slip', slip)
    .orderBy('slip_lines.id')
    .select('topic', 'answer', 'body as note', 'people.name as by', 'at')) as (Omit<
    LineShown,
    'at'
  > & { readonly at: Date })[]
  return rows.map((row) => ({ ...row, at: isoOf(ms(row.at.getTime())) }))
}

/** One fact with its source; `mode`: the one in which it was read. */
export type NewReading = {
  readonly fact: string
  readonly value: FactValue
  readonly source: string
  readonly mode: Mode | null
  readonly by: string | null
  readonly at: Date
  readonly takesBack?: boolean
}

export async function insertReadings(
  trx: Transaction,
  slip: string,
  readings: readonly NewReading[],
): Promise<void> {
  if (readings.length === 0) return
  await trx('slip_readings').insert(
    readings.map(({ takesBack = false, ...reading }) => ({
      ...{ slip, ...reading, takes_back: takesBack },
      value: JSON.stringify(reading.value),
    })),
  )
}

/** Every reading of a slip, the oldest first; `person` is a name. */
export async function listReadings(db: Database, slip: string): Promise<KeptReading[]> {
  const rows = (await db('slip_readings')
    .leftJoin('people', 'people.id', 'slip_readings.by')
    .where('slip_readings.slip', slip)
    .orderBy('slip_readings.id')
    .select(
      'fact',
      'value',
      'source',
      'mode',
      'people.name as person',
      'at',
      'takes_back',
    )) as (Omit<Reading, 'at' | 'mode' | 'person'> & {
    readonly at: Date
    readonly mode: Mode | null
    readonly person: string | null
    readonly takes_back: boolean
  })[]
  return rows.map(({ at, mode, person, takes_back: takesBack, ...row }) => ({
    ...row,
    takesBack,
    at: ms(at.getTime()),
    mode: mode ?? undefined,
    person: person ?? undefined,
  }))
}

/** A plan that was taken, under its digest, with what it rests on by name. */
export type PlanRow = {
  readonly package: string
  readonly digest: string
  readonly mode: Mode
  readonly basis: Basis
  /** The plan and what it was made with; it is shown afresh from it. */
  readonly made: Json
  /** The document of what it was decided with; null: it was taken before these were kept. */
  readonly decision: string | null
  readonly by: string | null
  readonly at: string
}

export async function insertPlan(
  trx: Transaction,
  slip: string,
  { basis, made, at, ...plan }: Omit<PlanRow, 'at'> & { readonly at: Date },
): Promise<void> {
  await trx('slip_plans').insert({
    slip,
    ...plan,
    basis: JSON.stringify(basis),
    made: JSON.stringify(made),
    at,
  })
}

/** Every plan that was taken on a slip, the oldest first. */
export async function listPlans(
  db: Database,
  slip: string,
): Promise<readonly { readonly made: Json; readonly at: number }[]> {
  const rows = (await db('slip_plans').where({ slip }).orderBy('id').select('made', 'at')) as {
    readonly made: Json
    readonly at: Date
  }[]
  return rows.map(({ made, at }) => ({ made, at: at.getTime() }))
}

/** The plan that was taken last; `by` is a name. */
export async function readPlan(db: Database, slip: string): Promise<PlanRow | undefined> {
  const row = (await db('slip_plans')
    .leftJoin('people', 'people.id', 'slip_plans.by')
    .where('slip_plans.slip', slip)
    .orderBy('slip_plans.id', 'desc')
    .first('package', 'digest', 'mode', 'basis', 'made', 'decision', 'people.name as by', 'at')) as
    (Omit<PlanRow, 'at'> & { readonly at: Date }) | undefined
  return row === undefined ? undefined : { ...row, at: isoOf(ms(row.at.getTime())) }
}

/** When the plan of a slip was taken last, ms of the shop's clock; undefined: there is none. */
export async function planTakenAt(db: Database, slip: string): Promise<number | undefined> {
  const row = (await db('slip_plans').where({ slip }).orderBy('id', 'desc').first('at')) as
    { readonly at: Date } | undefined
  return row?.at.getTime()
}

/** Open slips whose newest plan is of a family, with the version by which it was decided; before versions: none. */
export async function plansDecided(
  db: Database,
  family: string,
): Promise<readonly { readonly slip: string; readonly version: string }[]> {
  const { rows } = (await db.raw(
    `select slip, basis ->> 'family' as version from (
       select distinct on (slip) slip, basis from slip_plans order by slip, id desc
     ) as newest join slips on slips.number = newest.slip
     where slips.state in ('open', 'waiting') and basis ->> 'family' like :of order by slip`,
    { of: `${family} %` },
  )) as { rows: { slip: string; version: string }[] }
  return rows
}

/** The customer's things as the device counts them: bytes of model size, whether they open. */
export type Tally = {
  readonly items: number
  readonly bytes: number
  readonly opens: boolean
  readonly at: string
}
export type Tallies = Readonly<Record<'before' | 'after', Tally | null>>

/** Puts a count of the customer's things down, before the write or after it. */
export async function insertTally(
  trx: Transaction,
  slip: string,
  {
    when,
    at,
    by,
    ...counted
  }: Omit<Tally, 'at'> & {
    readonly when: keyof Tallies
    readonly at: Date
    readonly by: string | null
  },
): Promise<void> {
  await trx('slip_tallies').insert({ slip, when, at, by, ...counted })
}

/**
 * The newest counts of a slip. `since`: when another piece of work began on it: what was counted last until then is what
 * it goes in with, and nothing was counted after it yet.
 */
export async function readTallies(db: Database, slip: string, since?: number): Promise<Tallies> {
  const rows = (await db('slip_tallies')
    .where({ slip })
    .orderBy('id')
    .select('when', 'items', 'bytes', 'opens', 'at')) as {
    when: keyof Tallies
    items: number
    bytes: string
    opens: boolean
    at: Date
  }[]
  const of = (when: keyof Tallies): Tally | null => {
    const row = rows.findLast((one) => isOf(one, since) === when)
    if (row === undefined) return null
    const { items, bytes, opens, at } = row
    return { items, bytes: Number(bytes), opens, at: isoOf(ms(at.getTime())) }
  }
  return { before: of('before'), after: of('after') }
}

const isOf = (
  { when, at }: { readonly when: keyof Tallies; readonly at: Date },
  since: number | undefined,
): keyof Tallies => (since !== undefined && at.getTime() < since ? 'before' : when)

/** Serial numbers that other open slips claim by a reading over the link, each with its slip. */
export async function serialsOfOthers(
  db: Database,
  slip: string,
): Promise<ReadonlyMap<string, string>> {
  const rows = (await db('slip_readings')
    .join('slips', 'slips.number', 'slip_readings.slip')
    .where({ fact: 'serial', source: 'link' })
    .whereNot('slip_readings.slip', slip)
    .whereIn('slips.state', ['open', 'waiting'])
    .orderBy('slip_readings.id')
    .select('value', 'number')) as { value: string; number: string }[]
  return new Map(rows.map(({ value, number }) => [value, number]))
}

/** Open slips by the serial that was read of their device over the link; the newest reading counts. */
export async function slipsBySerial(
  db: Database,
): Promise<ReadonlyMap<string, { readonly number: string; readonly stage: Stage }>> {
  const rows = (await db('slip_readings')
    .join('slips', 'slips.number', 'slip_readings.slip')
    .where({ fact: 'serial', source: 'link' })
    .whereIn('slips.state', ['open', 'waiting'])
    .orderBy('slip_readings.id')
    .select('value', 'number', 'stage')) as { value: string; number: string; stage: Stage }[]
  return new Map(rows.map(({ value, ...slip }) => [value, slip]))
}

const CARE_TOPICS = ['ready.backup', 'back.told', 'care.well', 'care.backup']

/** What a slip says of the copy that was made, and of days that were put down. */
export type CareLines = {
  readonly number: string
  readonly device: string
  readonly customer: string | null
  readonly closed: boolean
  readonly lines: readonly {
    readonly topic: string
    readonly answer: string
    readonly at: string
  }[]
}

/** Lines of copies that were made on closed slips, and of days on whatever slip was not declined. */
export async function listCareLines(db: Database): Promise<readonly CareLines[]> {
  const rows = (await db('slip_lines')
    .join('slips', 'slips.number', 'slip_lines.slip')
    .leftJoin('personal_texts', 'personal_texts.id', 'slips.customer_text')
    .whereNot('slips.state', 'declined')
    .where((meant) =>
      meant.whereLike('topic', 'due.%').orWhere((copies) =>
        copies
          .where('slips.state', 'closed')
          .whereIn('topic', CARE_TOPICS)
          .whereExists((copied) =>
            copied
              .from('slip_lines as copies')
              .whereRaw('copies.slip = slips.number')
              .where({ 'copies.topic': 'ready.backup', 'copies.answer': 'opens' }),
          ),
      ),
    )
    .orderBy('slip_lines.id')
    .select(
      ...[
        'number',
        'device',
        'personal_texts.body as customer',
        'slips.state',
        'topic',
        'answer',
        'at',
      ],
    )) as {
    number: string
    device: string
    customer: string | null
    state: SlipState
    topic: string
    answer: string
    at: Date
  }[]
  const slips = new Map<string, CareLines>()
  for (const { number, device, customer, state, topic, answer, at } of rows) {
    const line = { topic, answer, at: isoOf(ms(at.getTime())) }
    const known = slips.get(number)?.lines ?? []
    const closed = state === 'closed'
    slips.set(number, { number, device, customer, closed, lines: [...known, line] })
  }
  return [...slips.values()]
}
