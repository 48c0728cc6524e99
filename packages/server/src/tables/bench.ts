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

/** Every cable with its history: runs over it, and how often a run lost its device there. */
export async function listCables(db: Database): Promise<CableRow[]> {
  const rows = (await db('cables')
    .leftJoin('runs', 'runs.cable', 'cables.name')
    .groupBy('cables.name')
    .orderBy('cables.name')
    .select('cables.name', 'cables.port', 'cables.note')
    .count('runs.id as runs')
    .sum({ losses: db.raw(`coalesce((runs.shown ->> 'losses')::int, 0)`) })) as {
    name: string
    port: string | null
    note: string
    runs: string
    losses: string | null
  }[]
  return rows.map((row) => ({ ...row, runs: Number(row.runs), losses: Number(row.losses ?? 0) }))
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
