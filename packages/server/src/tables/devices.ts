/** Devices as read over the link, what answers at each port, and looks that were asked for. */
import type { LookFound } from '@plain-slate/api'
import type { BenchComputer, DeviceFacts } from '@plain-slate/core'
import { isoOf, ms } from '@plain-slate/core'
import type { Database } from './database.ts'
import { STEADY } from './steady.ts'

/** A device as it was read last. `disk`: ranges of its table as they lay there; `digests`: its own, of partitions. */
export type DeviceRow = {
  readonly serial: string
  readonly facts: DeviceFacts
  readonly disk: LookFound['table']
  readonly digests: LookFound['digests']
  readonly at: string
  /** When table or digests were read; undefined: never. */
  readonly evidenceAt: string | undefined
}

/** What was read of a device last; undefined: it was never read. */
export async function readDevice(db: Database, serial: string): Promise<DeviceRow | undefined> {
  const row = (await db('devices').where({ serial }).first()) as
    | (Omit<DeviceRow, 'at' | 'evidenceAt'> & {
        readonly at: Date
        readonly evidence_at: Date | null
      })
    | undefined
  if (row === undefined) return undefined
  const { at, evidence_at: read, ...rest } = row
  const evidenceAt = read === null ? undefined : isoOf(ms(read.getTime()))
  return { ...rest, at: isoOf(ms(at.getTime())), evidenceAt }
}

/** A device with the evidence that was read of it since then: what is older is of an earlier visit. */
export const readSince = (row: DeviceRow, since: string): DeviceRow =>
  row.evidenceAt !== undefined && row.evidenceAt >= since
    ? row
    : { ...row, disk: null, digests: [] }

/** Keeps a reading. A look without table or digests keeps those of the one before. */
export async function putDevice(
  db: Database,
  facts: DeviceFacts,
  found: Pick<LookFound, 'table' | 'digests'>,
  at: Date,
): Promise<void> {
  const disk = found.table === null ? undefined : JSON.stringify(found.table)
  const digests = found.digests.length === 0 ? undefined : JSON.stringify(found.digests)
  const evidence = disk === undefined && digests === undefined ? {} : { evidence_at: at }
  await db('devices')
    .insert({
      serial: facts.serial,
      facts: JSON.stringify(facts),
      disk: disk ?? null,
      digests: digests ?? '[]',
      at,
      ...evidence,
    })
    .onConflict('serial')
    .merge({
      facts: JSON.stringify(facts),
      at,
      ...evidence,
      ...(disk === undefined ? {} : { disk }),
      ...(digests === undefined ? {} : { digests }),
    })
}

/** A run writes: what the device held is no evidence any more. */
export async function forgetDigests(db: Database, serial: string): Promise<void> {
  await db('devices').where({ serial }).update({ digests: '[]' })
}

/** What answers at a port; `odd`: why it cannot be used. */
type Seen = { readonly facts: DeviceFacts | null; readonly odd: string | null }

type TheirPort = { readonly name: string; readonly way: string; readonly filed: boolean } & Seen

/** What an agent saw at its ports, and what its computer tells of itself. */
export async function putSights(
  db: Database,
  agent: string,
  {
    ports,
    computer,
    whole,
  }: {
    readonly ports: readonly TheirPort[]
    readonly computer: BenchComputer | null
    readonly whole: boolean
  },
  leaseMs: number,
): Promise<void> {
  const at = db.raw(STEADY)
  /* A port that an agent holds is one of the shop's, whoever laid the shop out. */
  const filed = ports.filter((one) => one.filed).map(({ name }) => ({ name, note: '' }))
  if (filed.length > 0)
    await db('ports')
      .insert(filed)
      .onConflict('name')
      .merge({ struck: false, address: null, agent: null })
      .whereRaw('ports.struck or ports.address is not null')
  const names = ports.map(({ name }) => name)
  if (whole) await db('port_sights').where({ agent }).whereNotIn('port', names).delete()
  /* One that the house struck out meanwhile is told of no more. */
  const struck = new Set(await db('ports').where({ struck: true }).pluck('name'))
  const here = ports.filter(({ name }) => !struck.has(name))
  await heartOf(db, agent, leaseMs)
  await db('agents')
    .where({ id: agent })
    .update({ computer: computer === null ? null : JSON.stringify(computer) })
  if (here.length === 0) return
  await db('port_sights')
    .insert(
      here.map(({ name, facts, odd, way }) => ({
        odd,
        way,
        port: name,
        agent,
        facts: facts === null ? null : JSON.stringify(facts),
        at,
      })),
    )
    .onConflict('port')
    .merge()
}

export type ComputerRow = {
  readonly agent: string
  readonly ports: readonly string[]
  readonly computer: BenchComputer | null
}

/** The computers of living agents with the ports that each holds, as they tell of themselves. */
export async function listComputers(db: Database): Promise<ComputerRow[]> {
  return (await db('agents')
    .leftJoin('port_sights', 'port_sights.agent', 'agents.id')
    .where('agents.until', '>', db.raw(STEADY))
    .groupBy('agents.id')
    .orderBy('agents.id')
    .select('agents.id as agent', 'agents.computer')
    .select(
      db.raw(
        `coalesce(json_agg(port order by port) filter (where port is not null), '[]') as ports`,
      ),
    )) as ComputerRow[]
}

/** An agent lives until then, unless it says so again. */
export async function heartOf(db: Database, agent: string, leaseMs: number): Promise<void> {
  const until = db.raw(`${STEADY} + ? * interval '1 millisecond'`, [leaseMs])
  await db('agents').insert({ id: agent, until }).onConflict('id').merge()
}

/** Whether any agent lives. */
export async function anyAgent(db: Database): Promise<boolean> {
  return (await db('agents').where('until', '>', db.raw(STEADY)).first('id')) !== undefined
}

export type Sight = { readonly port: string; readonly way: string | null } & Seen

/** What answers at each port, as far as a living agent says. */
export async function listSights(db: Database): Promise<Sight[]> {
  return (await db('port_sights')
    .join('agents', 'agents.id', 'port_sights.agent')
    .where('agents.until', '>', db.raw(STEADY))
    .select('port', 'facts', 'odd', 'way')) as Sight[]
}

/** An epoch of one's own, higher than any device has met. */
export async function takeEpoch(db: Database): Promise<number> {
  const { rows } = (await db.raw(`select nextval('run_epochs') as epoch`)) as {
    rows: { epoch: string }[]
  }
  return Number(rows[0]?.epoch ?? 0)
}
