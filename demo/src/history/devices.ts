/**
 * Devices of the demo that are known only by what was read of them, held against the demo's shelf as the
 * running server would hold them: the same manifests, the same rules, the same plans.
 */
import type { DeviceFacts, Family, Intent, Shelved } from '@plain-slate/core'
import { USUAL_HOUSE, identify, packageKey, packageNamed, readingsOf } from '@plain-slate/core'
import type { AtPort, ProvenPackage } from '@plain-slate/server'
import { judgeable, shelvedOf, wantedAtPort } from '@plain-slate/server'
import { demoFamilies, tarnFamily } from '../families.ts'
import { DEMO_SCALE, buildPackage, digestOfVolume } from '../packages/build.ts'
import { DEMO_PACKAGES } from '../packages/all.ts'

export const family = tarnFamily()
const FAMILIES = demoFamilies()

/** The packages as the shelf will hold them: known by the digest of the volume their manifest lies in. */
const shelf: readonly ProvenPackage[] = DEMO_PACKAGES.filter(
  ({ truncatedTo, firstOnly }) => truncatedTo === undefined && firstOnly !== true,
).map((draft) => {
  const { manifest, volumes } = buildPackage(draft)
  const [volume] = volumes
  if (volume === undefined) throw new Error(`${manifest.id} has no volume`)
  const firstArchive = digestOfVolume(volume)
  return {
    key: packageKey(manifest.id, firstArchive),
    manifest,
    firstArchive,
    proof: { claims: [], state: 'published', places: new Map() },
    volumes: [],
  }
})

/** A package of the demo's shelf by its id or its key. */
export function shelvedNamed(name: string): Shelved {
  const named = packageNamed(shelf, name)
  if (named.kind !== 'one') throw new Error(`no package ${name}`)
  return shelvedOf(named.found)
}

/** The family that a package is for. */
export function familyOf({ manifest }: Shelved): Family {
  const found = FAMILIES.find(({ id }) => id === manifest.family)
  if (found === undefined) throw new Error(`no family ${manifest.family}`)
  return found
}

/** What is usual of a device of the demo's past. */
const USUAL = {
  region: 'HI',
  carrier: 'O',
  bootLock: 'closed',
  batteryPercent: 82,
  outcome: 'normal',
  returns: 0,
  scale: DEMO_SCALE,
} as const satisfies Partial<DeviceFacts>

/** A device on which a full package of the shelf stands, read in every mode it has. */
export function factsOn(
  on: Shelved,
  more: Partial<DeviceFacts> & Pick<DeviceFacts, 'serial'>,
): DeviceFacts {
  const of = familyOf(on)
  const { manifest } = on
  const [target] = manifest.targets
  const { build, release, patchDate, track, loaderVersion, generation } = manifest
  const floors =
    of.floors.kept === 'one'
      ? { floor: generation }
      : { floorLoader: generation, floorModem: generation, floorMain: generation }
  const slots = of.partitions.some(({ slot }) => slot !== undefined)
  return {
    ...USUAL,
    model: target?.model ?? '',
    board: target?.boards.at(-1) ?? '',
    chipset: target?.chipset ?? '',
    storageGb: target?.storage[0] ?? 1,
    mode: of.modes.find(({ kind }) => kind === 'system')?.id ?? '',
    build,
    release,
    patchDate,
    ...(track === undefined ? {} : { track }),
    ...(loaderVersion === undefined ? {} : { loaderVersion }),
    ...floors,
    ...(slots ? { slot: 'a', merge: 'none' } : {}),
    ...more,
  }
}

/** A tarn handheld as its loader or its system tells it. */
export function tarnFacts(more: Partial<DeviceFacts> & Pick<DeviceFacts, 'serial'>): DeviceFacts {
  const build = more.build ?? 'H2.0ZP.r4'
  const full = shelf
    .map(({ manifest }) => manifest)
    .find((one) => one.build === build && one.kind === 'full')
  return {
    ...USUAL,
    model: 'BRAK-H2',
    board: 'r4',
    chipset: 'Slate 2',
    storageGb: 32,
    mode: 'normal',
    build,
    release: full?.release ?? 4,
    patchDate: full?.patchDate ?? '2026-07-01',
    loaderVersion: 7,
    floor: 6,
    ...more,
  }
}

/** The case of such a device. */
export function caseOf(
  facts: DeviceFacts,
  intent: Intent,
  keepData = true,
  of: Family = family,
): AtPort {
  const read = { facts, table: undefined, digests: new Map<string, string>() }
  const identity = identify(of, readingsOf(facts))
  const own = shelf.filter(({ manifest }) => manifest.family === of.id)
  return judgeable(
    { family: of, facts, read, shelf: own, house: USUAL_HOUSE, identity, mode: facts.mode },
    wantedAtPort({ intent, keepData }, '2026-10-15'),
  )
}
