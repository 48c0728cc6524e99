/**
 * Making simulated devices: a flash with a real partition table, the images that stand on it, and the
 * customer's data in marked ranges. Reads what a device is; writes its two files.
 */
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import type { DeviceModel, Family, Part, PartRole, Piece, Table } from '@plain-slate/core'
import {
  BLOCK_BYTES,
  encodeTable,
  familyTable,
  lay,
  mibOf,
  partOf,
  roleOf,
  slotOf,
} from '@plain-slate/core'
import type { DeviceFile, Extent, Flash } from '@plain-slate/standins'
import { openFlash, writeDevice } from '@plain-slate/standins'
import { DEMO_PACKAGES, ON_DEVICES_ONLY } from '../packages/all.ts'
import { imageBytes } from '../packages/build.ts'
import { bytesOf, digestOf, piecesOf } from '../packages/content.ts'
import type { Origin } from '../packages/content.ts'
import { modifiedOrigin, originOf } from '../packages/line.ts'
import { deviceIdOf } from './device-id.ts'
import type { DemoDevice } from './devices.ts'

const MIB = 1024 * 1024
/** What stands at the head of a part that was torn: no image begins so. */
const TORN = 0x5a
/** Real bytes of a device's flash for each MiB its table needs: the customer's part takes the rest. */
const CUSTOMER_MIB = 12_000

export type Making = {
  readonly folder: string
  readonly family: Family
  readonly scale: number
  /** A table that somebody else makes for a flash of so many bytes; ours where it is not given. */
  readonly tableOf?: (diskBytes: number, ours: Table) => TableMade
}

/** A table, and its bytes as they lie on the flash. */
export type TableMade = { readonly table: Table; readonly pieces: readonly Piece[] }
const ownTable = (_: number, table: Table): TableMade => ({ table, pieces: encodeTable(table) })

/** Makes a device's flash and file; answers where. */
export function makeDevice(
  { folder, family, scale, tableOf = ownTable }: Making,
  device: DemoDevice,
): string {
  const fixed = family.partitions.reduce(
    (sum, { name }) => sum + (mibOf(family, name, device.fused) ?? 0),
    0,
  )
  const diskBytes = Math.ceil(((fixed + CUSTOMER_MIB) * MIB) / scale / MIB + 1) * MIB
  const ours = familyTable(family, device.fused, scale, diskBytes)
  const { table, pieces } = tableOf(diskBytes, ours)
  const flash = openFlash(join(folder, `${device.serial}.flash`), diskBytes)
  for (const { at, bytes } of pieces) flash.write(at, bytes)
  const starts = Object.fromEntries(
    table.partitions.map(({ name, start }) => [name, start * table.sectorBytes]),
  )
  const parts = Object.fromEntries(
    table.partitions.map(({ name, sectors }): readonly [string, Part] => {
      const role = roleOf(family, name) ?? 'cache'
      const blocks = Math.floor((sectors * table.sectorBytes) / BLOCK_BYTES)
      const was = writeImage(flash, { start: starts[name] ?? 0, role, scale }, device)
      const part = partOf(role, blocks, was, slotOf(family, name))
      if (device.torn?.includes(role) !== true) return [name, part]
      const held = Math.ceil(imageBytes(device.line, role, scale) / BLOCK_BYTES)
      flash.write(starts[name] ?? 0, new Uint8Array(BLOCK_BYTES).fill(TORN))
      const map = lay(part.map, { from: 0, to: held, kind: 'torn' })
      return [name, { ...part, map }]
    }),
  )
  const customer = table.partitions.find(({ name }) => roleOf(family, name) === 'customer')
  const marks =
    customer === undefined
      ? []
      : writeCustomer(flash, device, {
          from: customer.start * table.sectorBytes,
          to: (customer.start + customer.sectors) * table.sectorBytes,
        })
  const path = join(folder, `${device.serial}.json`)
  writeDevice(path, {
    ...fileOf(device, family, scale, parts, marks),
    diskBytes,
    sectorBytes: table.sectorBytes,
    starts,
    extents: [...flash.extents()],
    marks: [...marks],
  })
  flash.close()
  return path
}

/** What stands on a part of this device; undefined where no image does. */
export function originOn(device: DemoDevice, role: PartRole): Origin | undefined {
  const { line, build, loader, strange, modified = [] } = device
  if (line.imageMib[role] === undefined) return undefined
  if (modified.includes(role)) return modifiedOrigin(line, role, build)
  return originOf(line, role, strange[role] ?? build, loader)
}

type Place = { readonly start: number; readonly role: PartRole; readonly scale: number }

function writeImage(
  flash: Flash,
  { start, role, scale }: Place,
  device: DemoDevice,
): string | undefined {
  const origin = originOn(device, role)
  if (origin === undefined) return undefined
  const size = imageBytes(device.line, role, scale)
  let at = start
  for (const piece of piecesOf(origin, size)) {
    flash.write(at, piece)
    at += piece.length
  }
  return digestOf(origin, size)
}

/** The customer's things: stretches of bytes here and there, each a marked range. */
function writeCustomer(flash: Flash, device: DemoDevice, part: Extent): readonly Extent[] {
  const room = part.to - part.from
  return Array.from({ length: 8 }, (_, index) => {
    const seed = createHash('sha256').update(`${device.serial} ${index}`).digest()
    const length = BLOCK_BYTES * (1 + ((seed[0] ?? 0) % 24))
    const from = part.from + Math.floor((room * index) / 8 / BLOCK_BYTES) * BLOCK_BYTES
    const origin: Origin = { role: 'customer', board: device.serial, line: [String(index)] }
    const extent = { from, to: Math.min(part.to, from + length) }
    flash.write(extent.from, bytesOf(origin, 0, extent.to - extent.from))
    return extent
  })
}

function fileOf(
  device: DemoDevice,
  family: Family,
  scale: number,
  parts: DeviceModel['parts'],
  marks: readonly Extent[],
): Omit<DeviceFile, 'diskBytes' | 'sectorBytes' | 'starts' | 'extents' | 'marks'> {
  const { serial, fused, battery, permission, loader, mode, items } = device
  const looping = Object.keys(device.strange).length > 0
  return {
    format: 'plain-slate/stand-in@2',
    name: device.name,
    family: family.id,
    scale,
    pick: device.pick,
    port: device.port,
    cellOut: false,
    brokenKeys: [],
    model: {
      serial,
      fused: { ...fused, deviceId: deviceIdOf(serial) },
      mode,
      parts,
      session: undefined,
      files: [],
      incoming: undefined,
      confirmBy: undefined,
      key: 'none',
      permit: undefined,
      spent: [],
      battery,
      floors: floorsOf(family, device.floor),
      lock: 'closed',
      lockSwitch: false,
      setUpAt: undefined,
      permission,
      loaderVersion: loader,
      slots: slotsOf(family),
      merge: 'none',
      mergeUntil: undefined,
      data: {
        form: 'readable',
        ...usedBy(device),
        resetAsked: false,
        items,
        bytes: marks.reduce((sum, { from, to }) => sum + to - from, 0) * scale,
      },
      account: 'none',
      marks: [],
      fresh: false,
      outcome: looping ? 'loop' : 'normal',
      limits: [],
      shows: undefined,
      returns: looping ? 3 : 0,
      epoch: 0,
      at: 0,
      ...device.more,
    },
  }
}

/** One floor, or one for each part whose floor the family keeps: all as the device was found. */
function floorsOf({ floors }: Family, floor: number): DeviceModel['floors'] {
  if (floors.kept === 'one') return { all: floor }
  const roles = floors.rules.flatMap(({ roles: of }) => (of === 'any' ? [] : of))
  return Object.fromEntries(roles.map((role) => [role, floor]))
}

/** Of a family with slots: the first runs, and both hold the same, found good. */
const slotsOf = ({ partitions }: Family): DeviceModel['slots'] =>
  partitions.some(({ slot }) => slot !== undefined)
    ? { runs: 'a', tries: undefined, good: ['a', 'b'] }
    : undefined

/** By which build its data were last used: the one it holds. */
function usedBy({ build, line }: DemoDevice) {
  const draft = [...DEMO_PACKAGES, ...ON_DEVICES_ONLY].find(
    (one) => one.line === line && one.build === build,
  )
  const { release = 0, patchDate = '', track = '' } = draft?.more ?? {}
  return { release, patchDate, track }
}
