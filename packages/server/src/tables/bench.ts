/** Ports and cables, and what each cable has been through. */
import type { Database, Transaction } from './database.ts'
import { STEADY } from './steady.ts'

export type PortRow = {
  readonly name: string
  readonly note: string
  /** Named by the house; null: by a file on its bench's machine, if by anybody. */
  readonly address: string | null
  readonly cable: string | null
}
export type CableRow = {
  readonly name: string
  readonly port: string | null
  readonly note: string
  readonly runs: number
  readonly losses: number
}

/** Every port with its cable, by name. */
export async function listPorts(db: Database): Promise<PortRow[]> {
  return (await db('ports')
    .leftJoin('cables', 'cables.port', 'ports.name')
    .where('ports.struck', false)
    .orderByRaw('length(ports.name), ports.name')
    .select('ports.name', 'ports.note', 'ports.address', 'cables.name as cable')) as PortRow[]
}

/** How often a run lost its device since it hangs on its cable. */
const LOST_HERE = `coalesce((runs.shown ->> 'losses')::int, 0)
  - coalesce((select sum((one ->> 'losses')::int) from jsonb_array_elements(runs.hung) one), 0)`

/** Every cable with its history: runs over it, and how often a run lost its device there. */
export async function listCables(db: Database): Promise<CableRow[]> {
  const { rows } = (await db.raw(
    `with hangs as (
       select id, cable, ${LOST_HERE} as losses from runs
       union all
       select id, one ->> 'cable', (one ->> 'losses')::int
         from runs, jsonb_array_elements(runs.hung) one)
     select cables.name, cables.port, cables.note,
            count(distinct hangs.id)::int as runs, coalesce(sum(hangs.losses), 0)::int as losses
       from cables left join hangs on hangs.cable = cables.name
      where not cables.struck
      group by cables.name, cables.port, cables.note order by cables.name`,
  )) as { rows: CableRow[] }
  return rows
}

/** Runs that are not over hang on the cable that is at their port now; what was lost before stays with the one before. */
export async function hangRuns(trx: Transaction): Promise<void> {
  const cable = '(select name from cables where cables.port = runs.port)'
  await trx.raw(
    `update runs
        set hung = hung || jsonb_build_object('cable', cable, 'losses', ${LOST_HERE}), cable = ${cable}
      where state <> 'ended' and not put_away and cable is distinct from ${cable}`,
  )
}

/**
 * Hangs a cable on a port, or takes it off; what hung there comes off. Locks the cables' rows to the end
 * of the transaction. Answers where it hung before; undefined for an unknown cable or port.
 */
export async function moveCable(
  trx: Transaction,
  cable: string,
  port: string | null,
): Promise<{ readonly from: string | null } | undefined> {
  await trx('cables').forUpdate().select('name')
  const before = (await trx('cables').where({ name: cable, struck: false }).first('port')) as
    { port: string | null } | undefined
  const known = port === null || (await isPort(trx, port))
  if (before === undefined || !known) return undefined
  if (port !== null) await trx('cables').where({ port }).update({ port: null })
  await trx('cables').where({ name: cable }).update({ port })
  return { from: before.port }
}

const isPort = async (db: Database, name: string): Promise<boolean> =>
  (await db('ports').where({ name, struck: false }).first('name')) !== undefined

/** A run that is not put away is at a port. */
const holds = async (db: Database, port: string): Promise<boolean> =>
  (await db('runs').where({ port, put_away: false }).first('id')) !== undefined

/** The ports that the house named for an agent, with their addresses. */
export async function portsOf(
  db: Database,
  agent: string,
): Promise<readonly { readonly name: string; readonly address: string }[]> {
  return (await db('ports')
    .where({ agent, struck: false })
    .whereNotNull('address')
    .orderBy('name')
    .select('name', 'address')) as { name: string; address: string }[]
}

type NewPort = {
  readonly name: string
  readonly note: string
  readonly address: string
  readonly agent: string
}
/**
 * Names a port. One that was struck out, or that nobody ever gave a way to, is taken up again under its name; `there`:
 * somebody holds one of that name.
 */
export async function addPort(trx: Transaction, port: NewPort): Promise<'added' | 'there'> {
  const held = await trx('port_sights').where({ port: port.name }).whereNotNull('way').first()
  const free = (row: { address: string | null; struck: boolean }): boolean =>
    row.struck || (row.address === null && held === undefined)
  const before = (await trx('ports')
    .where({ name: port.name })
    .forUpdate()
    .first('address', 'struck')) as { address: string | null; struck: boolean } | undefined
  if (before !== undefined && !free(before)) return 'there'
  await trx('ports')
    .insert({ ...port, struck: false })
    .onConflict('name')
    .merge()
  return 'added'
}

/** Strikes a port out, its cable into the drawer. `filed`: a file on its bench's machine names it. */
export async function strikePort(
  trx: Transaction,
  name: string,
): Promise<'struck' | 'unknown' | 'held' | 'filed'> {
  const row = (await trx('ports').where({ name, struck: false }).forUpdate().first('address')) as
    { address: string | null } | undefined
  if (row === undefined) return 'unknown'
  const told = await trx('port_sights')
    .join('agents', 'agents.id', 'port_sights.agent')
    .where({ port: name })
    .where('agents.until', '>', trx.raw(STEADY))
    .first('port')
  if (row.address === null && told !== undefined) return 'filed'
  if (await holds(trx, name)) return 'held'
  await trx('cables').where({ port: name }).update({ port: null })
  await trx('port_sights').where({ port: name }).delete()
  await trx('ports').where({ name }).update({ struck: true, address: null, agent: null })
  return 'struck'
}

/** Names a cable. `struck`: one of that name was struck out, and its history is not this one's. */
export async function addCable(
  trx: Transaction,
  cable: { readonly name: string; readonly note: string },
): Promise<'added' | 'there' | 'struck'> {
  const before = (await trx('cables').where({ name: cable.name }).first('struck')) as
    { struck: boolean } | undefined
  if (before !== undefined) return before.struck ? 'struck' : 'there'
  await trx('cables').insert(cable)
  return 'added'
}

/** Strikes a cable out. A run that is not over goes over it: `held`. */
export async function strikeCable(
  trx: Transaction,
  name: string,
): Promise<'struck' | 'unknown' | 'held'> {
  const row = await trx('cables').where({ name, struck: false }).forUpdate().first('name')
  if (row === undefined) return 'unknown'
  const over = await trx('runs').where({ cable: name, put_away: false }).first('id')
  if (over !== undefined) return 'held'
  await trx('cables').where({ name }).update({ struck: true, port: null })
  return 'struck'
}

type NewBench = {
  readonly ports: readonly { readonly name: string; readonly note: string }[]
  readonly cables: readonly {
    readonly name: string
    readonly port: string | null
    readonly note: string
  }[]
}

/** Lays out a bench: for a new shop. */
export async function insertBench(db: Database, bench: NewBench): Promise<void> {
  if (bench.ports.length > 0)
    await db('ports').insert(bench.ports.map(({ name, note }) => ({ name, note })))
  if (bench.cables.length > 0) await db('cables').insert([...bench.cables])
}
