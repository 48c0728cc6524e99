/** The heads of slips: listing with its filters, one head, changing one under its lock. */
import type { Slip, SlipField, SlipQuery, SlipRow } from '@plain-slate/api'
import type { Intent, SlipState, Stage } from '@plain-slate/core'
import type { Database, Transaction } from './database.ts'

type Row = {
  readonly number: string
  readonly device: string
  readonly model: string | null
  readonly customer: string | null
  readonly words: string | null
  readonly withdrawn_at: Date | null
  readonly intent: Intent
  readonly promise: string
  readonly stage: Stage
  readonly state: SlipState
  readonly due: Date | null
  readonly opened_at: Date
  readonly opened_by: string | null
  readonly version: number
}

const withTexts = (db: Database) =>
  db('slips')
    .leftJoin('personal_texts as customer_texts', 'customer_texts.id', 'slips.customer_text')
    .leftJoin('personal_texts as words_texts', 'words_texts.id', 'slips.words_text')
    .leftJoin('people', 'people.id', 'slips.opened_by')
    .select(
      'slips.*',
      'customer_texts.body as customer',
      'words_texts.body as words',
      'people.name as opened_by',
      db.raw('coalesce(customer_texts.withdrawn_at, words_texts.withdrawn_at) as withdrawn_at'),
    )

/** One head, or undefined. */
export async function readSlip(db: Database, number: string): Promise<Slip | undefined> {
  const row = (await withTexts(db).where({ number }).first()) as Row | undefined
  return row === undefined ? undefined : slipOf(row)
}

/** Locks a slip's row to the end of the transaction, so that changes of two people take turns. */
export async function lockSlip(trx: Transaction, number: string): Promise<Slip | undefined> {
  await trx('slips').where({ number }).forUpdate().first('number')
  return readSlip(trx, number)
}

/** A list holds at most this many rows; past it the search has to say more. */
const LIST_MAX = 1000

/** The order in which words are sorted that have an order of their own. */
const ORDERED: Readonly<Record<string, string>> = {
  stage: `array_position(array['intake','readings','firmware','proof','compare','plan','ready','write','first-start','hand-back'], stage)`,
  state: `array_position(array['open','waiting','stopped','declined','closed'], state)`,
  due: 'due',
  device: 'lower(slips.device)',
  intent: 'intent',
  number: 'number',
}

/** The list after its query. Unsorted it runs by due time, open ones first. */
export async function listSlips(
  db: Database,
  query: SlipQuery,
  { from, most }: Span = { from: 0, most: LIST_MAX },
): Promise<SlipRow[]> {
  const dir = query.dir === 'down' ? 'desc' : 'asc'
  const key = ORDERED[query.sort ?? ''] ?? ORDERED['number']
  const list = filtered(db, query)
  void list.orderByRaw(`${key} ${dir} nulls last, number ${dir}`).offset(from).limit(most)
  return ((await list) as Row[]).map(rowOf)
}
/** Rows from a place on, 0 the first. */
export type Span = { readonly from: number; readonly most: number }

/** How many slips the search and its filters leave. */
export async function countSlips(db: Database, query: SlipQuery): Promise<number> {
  const counted = (await db.from(filtered(db, query).as('found')).count('* as n').first()) as
    { n: string } | undefined
  return Number(counted?.n ?? 0)
}

function filtered(db: Database, query: SlipQuery) {
  const list = searched(db, query.q)
  if (query.state !== undefined) void list.whereIn('state', query.state)
  if (query.intent !== undefined) void list.whereIn('intent', query.intent)
  if (query.stage !== undefined) void list.whereIn('stage', query.stage)
  return list
}

/** How many slips of each state a search leaves, whatever the state filter says. */
export async function countStates(db: Database, query: SlipQuery): Promise<Record<string, number>> {
  const counted = (await db
    .from(searched(db, query.q).as('found'))
    .select('state')
    .count('* as n')
    .groupBy('state')) as { state: string; n: string }[]
  return Object.fromEntries(counted.map(({ state, n }) => [state, Number(n)]))
}

/** Every word of the search must stand in number, device, model, customer or promise. */
function searched(db: Database, q: string | undefined) {
  const list = withTexts(db)
  for (const word of (q ?? '').split(/\s+/).filter((part) => part !== '')) {
    const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`
    void list.whereRaw(
      `concat_ws(' ', number, device, coalesce(model, ''), coalesce(customer_texts.body, ''), promise) ilike ?`,
      [like],
    )
  }
  return list
}

export type NewSlip = {
  readonly number: string
  readonly device: string
  readonly model: string | null
  readonly intent: Intent
  readonly promise: string
  readonly stage: Stage
  readonly state: SlipState
  readonly due: string | null
  readonly openedAt: string
  readonly openedBy: string | null
  readonly customerText: string | null
  readonly wordsText: string | null
}

/** Puts a new head. */
export async function insertSlip(trx: Transaction, slip: NewSlip): Promise<void> {
  await trx('slips').insert({
    number: slip.number,
    device: slip.device,
    model: slip.model,
    intent: slip.intent,
    promise: slip.promise,
    stage: slip.stage,
    state: slip.state,
    due: slip.due,
    opened_at: slip.openedAt,
    opened_by: slip.openedBy,
    customer_text: slip.customerText,
    words_text: slip.wordsText,
  })
}

/** Columns of the fields; personal ones take a text's id. */
const COLUMN: Readonly<Record<SlipField, string>> = {
  device: 'device',
  model: 'model',
  customer: 'customer_text',
  intent: 'intent',
  promise: 'promise',
  words: 'words_text',
  due: 'due',
}

/** Writes changed fields (values, or text ids for personal ones) and raises the version. */
export async function updateSlip(
  trx: Transaction,
  number: string,
  fields: ReadonlyMap<SlipField, string | null>,
): Promise<number> {
  const columns = Object.fromEntries([...fields].map(([field, value]) => [COLUMN[field], value]))
  return raiseVersion(trx, number, columns)
}

/** Sets the state and raises the version; answers the new version. */
export async function updateState(
  trx: Transaction,
  number: string,
  state: SlipState,
): Promise<number> {
  return raiseVersion(trx, number, { state })
}

/** The stage follows what the slip stands at; nobody did anything, so the version stays. */
export async function putStage(db: Database, number: string, stage: Stage): Promise<void> {
  await db('slips').where({ number }).update({ stage })
}

/** Raises the version with whatever columns are given; answers the new version. */
export async function raiseVersion(
  trx: Transaction,
  number: string,
  columns: Readonly<Record<string, unknown>> = {},
): Promise<number> {
  const [row] = (await trx('slips')
    .where({ number })
    .update({ ...columns, version: trx.raw('version + 1') })
    .returning('version')) as { version: number }[]
  return row?.version ?? 0
}

function rowOf(row: Row): SlipRow {
  return {
    number: row.number,
    device: row.device,
    model: row.model,
    customer: row.customer,
    intent: row.intent,
    promise: row.promise,
    stage: row.stage,
    state: row.state,
    due: row.due?.toISOString() ?? null,
    openedAt: row.opened_at.toISOString(),
    version: row.version,
  }
}

function slipOf(row: Row): Slip {
  return {
    ...rowOf(row),
    words: row.words,
    withdrawn: row.withdrawn_at !== null,
    openedBy: row.opened_by,
  }
}

/** Models of slips that are under way, once a slip. */
export async function modelsUnderWay(db: Database): Promise<readonly string[]> {
  const rows = (await db('slips')
    .whereIn('state', ['open', 'waiting'])
    .whereNotNull('model')
    .select('model')) as { model: string }[]
  return rows.map(({ model }) => model)
}

/** Slips of whose device a serial number ending so was read, open ones first. */
export async function slipsBySerial(
  db: Database,
  end: string,
  most: number,
): Promise<
  readonly { readonly number: string; readonly device: string; readonly serial: string }[]
> {
  const like = `%${end.replace(/[\\%_]/g, '\\$&')}`
  return (await db('slips')
    .join('slip_readings', 'slip_readings.slip', 'slips.number')
    .where('slip_readings.fact', 'serial')
    .whereRaw(`slip_readings.value #>> '{}' ilike ?`, [like])
    .groupBy('slips.number', 'slips.device', 'slips.state')
    .orderByRaw(`slips.state in ('open', 'waiting') desc, slips.number desc`)
    .limit(most)
    .select(
      'slips.number',
      'slips.device',
      db.raw(`max(slip_readings.value #>> '{}') as serial`),
    )) as {
    number: string
    device: string
    serial: string
  }[]
}
