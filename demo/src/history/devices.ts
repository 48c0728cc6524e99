/**
 * Devices of the demo that are known only by what was read of them, held against the demo's shelf as the
 * running server would hold them: the same manifests, the same rules, the same plans.
 */
import type { DeviceFacts, Intent, Shelved } from '@plain-slate/core'
import { identify, packageKey, packageNamed, readingsOf } from '@plain-slate/core'
import type { AtPort, ProvenPackage } from '@plain-slate/server'
import { judgeable, shelvedOf, wantedAtPort } from '@plain-slate/server'
import { tarnFamily } from '../families.ts'
import { DEMO_SCALE, buildPackage, digestOfVolume } from '../packages/build.ts'
import { TARN_PACKAGES } from '../packages/tarn.ts'

export const family = tarnFamily()

/** The packages as the shelf will hold them: known by the digest of the volume their manifest lies in. */
const shelf: readonly ProvenPackage[] = TARN_PACKAGES.filter(
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

/** A tarn handheld as its loader or its system tells it. */
export function tarnFacts(more: Partial<DeviceFacts> & Pick<DeviceFacts, 'serial'>): DeviceFacts {
  const build = more.build ?? 'H2.0ZP.r4'
  const full = shelf
    .map(({ manifest }) => manifest)
    .find((one) => one.build === build && one.kind === 'full')
  return {
    model: 'BRAK-H2',
    board: 'r4',
    chipset: 'Slate 2',
    storageGb: 32,
    region: 'HI',
    carrier: 'O',
    mode: 'normal',
    build,
    release: full?.release ?? 4,
    patchDate: full?.patchDate ?? '2026-07-01',
    loaderVersion: 7,
    floor: 6,
    bootLock: 'closed',
    batteryPercent: 82,
    outcome: 'normal',
    returns: 0,
    scale: DEMO_SCALE,
    ...more,
  }
}

/** The case of such a device. */
export function caseOf(facts: DeviceFacts, intent: Intent, keepData = true): AtPort {
  const read = { facts, table: undefined, digests: new Map<string, string>() }
  const identity = identify(family, readingsOf(facts))
  return judgeable(
    { family, facts, read, shelf, identity, mode: facts.mode },
    wantedAtPort({ intent, keepData }),
  )
}
