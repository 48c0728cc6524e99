/**
 * The case that rules judge: the device at a port as it was read last, held against the shelf. Joins what
 * tables hold into core's shapes, and decides nothing.
 */
import type {
  Case,
  DeviceFacts,
  Evidence,
  Family,
  HouseRules,
  Identity,
  Intent,
  Mode,
  Reading,
  Decoded,
  Manifest,
  ReadDevice,
  Result,
  Shelved,
  Unheld,
} from '@plain-slate/core'
import {
  NO_HISTORY,
  decodeRanges,
  familyOf,
  modeOfKind,
  modelOf,
  readingsOldBefore,
  identify,
  isoOf,
  ms,
  msOf,
  ok,
  readingsOf,
  refuse,
  settledFacts,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { ProvenPackage } from '../shelf/shelf.ts'
import { shelfFor, sortedFor } from '../shelf/shelf.ts'
import { ownDigests } from './digests.ts'
import type { DeviceRow } from '../tables/devices.ts'
import { listSights, readDevice } from '../tables/devices.ts'
import { readHouse } from '../tables/house.ts'
import { lastChanges } from '../tables/past-runs.ts'

export type AtPort = {
  readonly family: Family
  readonly facts: DeviceFacts
  readonly read: ReadDevice
  /** What names its model, what holds an image that was read of it, and whatever was asked for by name. */
  readonly shelf: readonly ProvenPackage[]
  readonly mode: Mode
  readonly house: HouseRules
  /** The case without the package that is held against it; its shelf is what names this model. */
  readonly at: Unheld
  /** Its shelf as rules take it. */
  readonly known: readonly Shelved[]
}

/** What is wanted of a device; at a port without a slip nobody was asked about eyes and things. */
export type Wanted = Omit<
  Case,
  'family' | 'identity' | 'house' | 'table' | 'evidence' | 'shelf' | 'shelved'
>
export const wantedAtPort = (
  asked: {
    readonly intent: Intent
    readonly keepData: boolean
  },
  today: string,
): Wanted => ({
  ...asked,
  byEye: false,
  placeless: [],
  lines: undefined,
  history: NO_HISTORY,
  today,
})

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
  const now = ms(await workshop.clock.now())
  const before = row === undefined ? [] : readingsOf(row.facts, msOf(row.at))
  const changed = await lastChanges(workshop.db, facts.serial)
  const identity = identify(family, [...before, ...readingsOf(facts, now)], changed)
  const all = settledFacts(identity, facts.mode, facts) ?? facts
  const shelf = await shelfFor(workshop.db, concerns(family, all, row))
  const read = deviceRead(all, row, shelf)
  const { rules: house } = await readHouse(workshop.db)
  const known = { family, facts: all, read, shelf, house, identity, mode: facts.mode }
  return ok(judgeable(known, wanted))
}

export type ReadingsAsked = readonly (Pick<Reading, 'fact' | 'value' | 'source'> & {
  /** When it was read, as a file says it; undefined: now. */
  readonly at?: string
})[]

/** A device that is not here, by readings alone; refused where they do not even name its model. */
export async function caseOfReadings(
  workshop: Workshop,
  asked: ReadingsAsked,
  wanted: Wanted,
): Promise<Result<AtPort, Refusal>> {
  const now = await workshop.clock.now()
  const readings = asked.map(({ at, ...one }) => ({
    ...one,
    at: ms(at === undefined ? now : Math.min(Date.parse(at), now)),
    mode: undefined,
    person: undefined,
  }))
  const model = String(readings.find(({ fact }) => fact === 'model')?.value ?? '')
  const family = workshop.families.find((one) => modelOf(one, model) !== undefined)
  if (family === undefined) return refuse({ code: 'device.family', facts: { model } })
  const oldBefore = ms(readingsOldBefore(wanted.today ?? isoOf(now).slice(0, 10)))
  const identity = identify(family, readings, { oldBefore })
  const mode = modeOfKind(family, 'system')
  const facts = settledFacts(identity, mode, undefined)
  if (facts === undefined) return refuse({ code: 'device.family', facts: { model } })
  const shelf = await shelfFor(workshop.db, concerns(family, facts, undefined))
  const read = deviceRead(facts, undefined, shelf)
  const { rules: house } = await readHouse(workshop.db)
  return ok(judgeable({ family, facts, read, shelf, house, identity, mode }, wanted))
}

type Known = Omit<AtPort, 'at' | 'known'> & { readonly identity: Identity }

/** A device with the shelf it is held against. */
export function judgeable(known: Known, wanted: Wanted): AtPort {
  const { identity, ...rest } = known
  const { family, read, shelf, house } = known
  const evidence = new Map(
    [...read.digests].map(([partition, sha256]): [string, Evidence] => [
      partition,
      { kind: 'digest', sha256 },
    ]),
  )
  const { known: all, naming } = sortedFor(shelf, known.facts.model)
  const at = {
    family,
    identity,
    house,
    ...wanted,
    table: read.table,
    evidence,
    shelf: naming,
  }
  return { ...rest, at, known: all }
}

/** What of the shelf concerns a device. */
export const concerns = (family: Family, { model }: DeviceFacts, row: DeviceRow | undefined) => ({
  family: family.id,
  model,
  images: [...new Set(row?.digests.map(({ sha256 }) => sha256) ?? [])],
})

/** The same case, knowing packages that are asked for by name too, whatever they are for. */
export function knowing(found: AtPort, called: readonly ProvenPackage[]): AtPort {
  const here = new Set(found.shelf.map(({ key }) => key))
  const others = called.filter(
    ({ key, manifest }) => !here.has(key) && manifest.family === found.family.id,
  )
  if (others.length === 0) return found
  const shelf = [...found.shelf, ...others]
  return { ...found, shelf, known: sortedFor(shelf, found.facts.model).known }
}

export function deviceRead(
  facts: DeviceFacts,
  row: DeviceRow | undefined,
  shelf: readonly ProvenPackage[],
): ReadDevice {
  return {
    facts,
    table: layoutRead(row)?.table,
    digests: ownDigests(row?.digests ?? [], shelf),
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

/** What names this model, and what else holds an image that was read of the device. */
export function manifestsFor({ read, at, known }: AtPort): readonly Manifest[] {
  const digests = new Set(read.digests.values())
  const own = new Set(at.shelf)
  const others = known.filter(
    (one) => !own.has(one) && one.manifest.images.some(({ sha256 }) => digests.has(sha256)),
  )
  return [...at.shelf, ...others].map(({ manifest }) => manifest)
}
