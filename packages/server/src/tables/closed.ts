/** Devices of slips that were closed, as their links told what they are. Read once for as long as no slip closes. */
import type { ClosedDevice } from '@plain-slate/core'
import { ROW_FACTS } from '@plain-slate/core'
import type { Database } from './database.ts'

type Kept = { readonly mark: string; readonly devices: readonly ClosedDevice[] }
const kept = new WeakMap<Database, Kept>()

export async function closedDevices(db: Database): Promise<readonly ClosedDevice[]> {
  const { rows: marks } = (await db.raw(
    `select concat_ws(',', count(*), sum(version)) as mark from slips where state = 'closed'`,
  )) as { rows: { mark: string }[] }
  const mark = marks[0]?.mark ?? ''
  const known = kept.get(db)
  if (known?.mark === mark) return known.devices
  const rows = (await db('slip_readings')
    .join('slips', 'slips.number', 'slip_readings.slip')
    .where('slips.state', 'closed')
    .where('slip_readings.source', 'link')
    .whereIn('slip_readings.fact', [...ROW_FACTS])
    .orderBy('slip_readings.id')
    .select('slip', 'fact', 'value')) as {
    slip: string
    fact: (typeof ROW_FACTS)[number]
    value: string | number
  }[]
  const by = new Map<string, ClosedDevice>()
  for (const { slip, fact, value } of rows) by.set(slip, { ...by.get(slip), [fact]: value })
  const devices = [...by.values()]
  kept.set(db, { mark, devices })
  return devices
}
