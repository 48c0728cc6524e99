/** Ports and cables, and what each cable has been through. */
import type { Database, Transaction } from './database.ts'

export type PortRow = {
  readonly name: string
  readonly note: string
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
    .orderByRaw('length(ports.name), ports.name')
    .select('ports.name', 'ports.note', 'cables.name as cable')) as PortRow[]
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
  const before = (await trx('cables').where({ name: cable }).first('port')) as
    { port: string | null } | undefined
  const known = port === null || (await trx('ports').where({ name: port }).first()) !== undefined
  if (before === undefined || !known) return undefined
  if (port !== null) await trx('cables').where({ port }).update({ port: null })
  await trx('cables').where({ name: cable }).update({ port })
  return { from: before.port }
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
  await db('ports').insert(bench.ports.map(({ name, note }) => ({ name, note })))
  if (bench.cables.length > 0) await db('cables').insert([...bench.cables])
}
