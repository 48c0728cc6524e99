/** Ports and cables. */
import type { Bench } from '@plain-slate/api'
import type { Database } from './database.ts'

/** Everything on the bench, by name. */
export async function readBench(db: Database): Promise<Bench> {
  const ports = (await db('ports')
    .leftJoin('cables', 'cables.port', 'ports.name')
    .orderBy('ports.name')
    .select('ports.name', 'ports.note', 'cables.name as cable')) as Bench['ports']
  const cables = (await db('cables')
    .orderBy('name')
    .select('name', 'port', 'note')) as Bench['cables']
  return { ports, cables }
}

/** Lays out a bench: for a new shop. */
export async function insertBench(db: Database, bench: Bench): Promise<void> {
  await db('ports').insert(bench.ports.map(({ name, note }) => ({ name, note })))
  if (bench.cables.length > 0) await db('cables').insert([...bench.cables])
}
