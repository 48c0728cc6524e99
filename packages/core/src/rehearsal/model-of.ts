/**
 * The model of a device that is only known by what was read of it: for a rehearsal before anything is
 * written. Reads facts, its table and digests where they were read, and the shelf; gives a device model
 * and the facts of every image that may stand on it. What is not known of a part is taken to be whole and
 * of the build the device reports; that is said by `assumed`.
 */
import type { Family } from '../family/profile.ts'
import { assumedTable, roleOf } from '../family/layout.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Table } from '../layout/table.ts'
import type { DeviceModel, ImageFacts, Part, SignedBuild } from '../twin/state.ts'
import { catalogueOf, partOf } from '../twin/state.ts'
import { BLOCK_BYTES } from '../twin/blocks.ts'
import type { Nature } from '../twin/stepped.ts'
import type { DeviceFacts } from '../wire/facts.ts'

export type ReadDevice = {
  readonly facts: DeviceFacts
  readonly table: Table | undefined
  /** The device's own digests, by partition. */
  readonly digests: ReadonlyMap<string, string>
}

export type Modelled = {
  readonly nature: Nature
  readonly device: DeviceModel
  /** Partitions whose content was not read, but assumed. */
  readonly assumed: readonly string[]
}

/** Makes the model. `pick` says where in the family's ranges it lies, 0 to 1. */
export function modelled(
  family: Family,
  read: ReadDevice,
  shelf: readonly Manifest[],
  pick = 0.5,
): Modelled {
  const { facts, digests } = read
  const known = new Map(catalogueOf(shelf))
  const table = read.table ?? assumedTable(family, facts.storageGb, facts.scale)
  const present = shelf.find(({ build, kind }) => build === facts.build && kind === 'full')
  const assumed: string[] = []
  const parts = table.partitions.map(({ name, sectors }): readonly [string, Part] => {
    const role = roleOf(family, name) ?? 'cache'
    const blocks = Math.floor((sectors * table.sectorBytes) / BLOCK_BYTES)
    const usual = present?.images.find(({ partition }) => partition === name)?.sha256
    const digest = digests.get(name)
    if (digest === undefined) assumed.push(name)
    const was = digest ?? usual ?? `${role} of ${facts.build ?? 'the device'}`
    if (!known.has(was)) known.set(was, madeUp(was, role, blocks, facts))
    return [name, partOf(role, blocks, was)]
  })
  const { model, board, chipset, storageGb, region, carrier } = facts
  return {
    assumed,
    nature: { family, catalogue: known, scale: facts.scale, pick },
    device: {
      serial: facts.serial,
      fused: { model, board, chipset, storageGb, region, carrier },
      mode: facts.mode,
      parts: Object.fromEntries(parts),
      session: undefined,
      battery: facts.batteryPercent,
      floor: facts.floor,
      lock: facts.bootLock,
      permission: true,
      loaderVersion: facts.loaderVersion,
      data: { release: facts.release ?? 0, readable: true, items: 0, bytes: 0 },
      outcome: facts.outcome,
      returns: facts.returns,
      epoch: 0,
      at: 0,
    },
  }
}

/** An image that is on no shelf: whole, of the device's own build, started by its own loader. */
function madeUp(image: string, role: Part['role'], blocks: number, facts: DeviceFacts): ImageFacts {
  const build: SignedBuild = {
    build: facts.build ?? '',
    release: facts.release ?? 0,
    patchDate: facts.patchDate ?? '',
    generation: facts.floor,
    minLoader: 0,
  }
  const loaderVersion = role === 'loader' ? facts.loaderVersion : undefined
  return { image, role, blocks, loaderVersion, builds: [build] }
}
