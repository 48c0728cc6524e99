/**
 * The case that rules judge: the device at a port as it was read last, held against the shelf. Joins what
 * tables hold into core's shapes, and decides nothing.
 */
import type {
  Case,
  DeviceFacts,
  Evidence,
  Family,
  Identity,
  Intent,
  Mode,
  Decoded,
  ReadDevice,
  Result,
} from '@plain-slate/core'
import {
  decodeRanges,
  familyOf,
  identify,
  modelled,
  ms,
  msOf,
  ok,
  readingsOf,
  refuse,
  settledFacts,
} from '@plain-slate/core'
import type { Modelled } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { HOUSE_RULES } from '../shop/rules.ts'
import type { ProvenPackage } from '../shelf/shelf.ts'
import { provenPackages, shelvedOf } from '../shelf/shelf.ts'
import type { DeviceRow } from '../tables/devices.ts'
import { listSights, readDevice } from '../tables/devices.ts'
import { lastChanges } from '../tables/past-runs.ts'

export type AtPort = {
  readonly family: Family
  readonly facts: DeviceFacts
  readonly read: ReadDevice
  readonly shelf: readonly ProvenPackage[]
  readonly mode: Mode
  /** The case without the package that is held against it. */
  readonly at: Omit<Case, 'shelved'>
}

/** What is wanted of a device; at a port without a slip nobody was asked about eyes and things. */
export type Wanted = Pick<Case, 'intent' | 'keepData' | 'byEye' | 'placeless'>
export const wantedAtPort = (asked: {
  readonly intent: Intent
  readonly keepData: boolean
}): Wanted => ({ ...asked, byEye: false, placeless: [] })

/** What is at a port, ready to be judged; refused when nothing is, or nobody's family. */
export async function caseAt(
  workshop: Workshop,
  port: string,
  wanted: Wanted,
): Promise<Result<AtPort, Refusal>> {
  const sight = (await listSights(workshop.db)).find((one) => one.port === port)
  const facts = sight?.facts ?? undefined
  if (facts === undefined) return refuse({ code: 'port.empty', facts: { port } })
  const family = familyOf(workshop.families, facts)
  if (family === undefined) return refuse({ code: 'device.family', facts: { model: facts.model } })
  const row = await readDevice(workshop.db, facts.serial)
  const shelf = await provenPackages(workshop.db)
  const now = ms(await workshop.clock.now())
  const before = row === undefined ? [] : readingsOf(row.facts, msOf(row.at))
  const changed = await lastChanges(workshop.db, facts.serial)
  const identity = identify(family, [...before, ...readingsOf(facts, now)], changed)
  const all = settledFacts(identity, facts.mode, facts) ?? facts
  const read = deviceRead(all, row)
  return ok(judgeable({ family, facts: all, read, shelf, identity, mode: facts.mode }, wanted))
}

type Known = Omit<AtPort, 'at'> & { readonly identity: Identity }

/** A device with the shelf it is held against. */
export function judgeable(known: Known, wanted: Wanted): AtPort {
  const { identity, ...rest } = known
  const { family, read, shelf } = known
  const evidence = new Map(
    [...read.digests].map(([partition, sha256]): [string, Evidence] => [
      partition,
      { kind: 'digest', sha256 },
    ]),
  )
  const at = {
    family,
    identity,
    house: HOUSE_RULES,
    ...wanted,
    table: read.table,
    evidence,
    shelf: shelf.map(shelvedOf).filter(({ manifest }) => manifest.family === family.id),
  }
  return { ...rest, at }
}

export function deviceRead(facts: DeviceFacts, row: DeviceRow | undefined): ReadDevice {
  return {
    facts,
    table: layoutRead(row)?.table,
    digests: new Map((row?.digests ?? []).map(({ partition, sha256 }) => [partition, sha256])),
  }
}

/** The table in the ranges that were read, with what is odd about it; undefined when none can be made out. */
export function layoutRead(row: DeviceRow | undefined): Decoded | undefined {
  const disk = row?.disk ?? undefined
  if (disk === undefined) return undefined
  const ranges = disk.ranges.map(({ at, bytes }) => ({ at, bytes: Buffer.from(bytes, 'base64') }))
  const decoded = decodeRanges(disk.diskBytes, disk.sectorBytes, ranges)
  return decoded.ok ? decoded.value : undefined
}

/** The model of the device for a rehearsal. */
export const modelledAt = ({ family, read, at }: AtPort): Modelled =>
  modelled(
    family,
    read,
    at.shelf.map(({ manifest }) => manifest),
  )
