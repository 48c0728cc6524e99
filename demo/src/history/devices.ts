/**
 * Devices of the demo that are known only by what was read of them, held against the demo's shelf as the
 * running server would hold them: the same manifests, the same rules, the same plans.
 */
import type { DeviceFacts, Intent, Manifest } from '@plain-slate/core'
import { identify } from '@plain-slate/core'
import type { AtPort, ProvenPackage } from '@plain-slate/server'
import { judgeable, readingsOf } from '@plain-slate/server'
import { tarnFamily } from '../families.ts'
import { DEMO_SCALE, buildPackage, digestOfVolume } from '../packages/build.ts'
import { TARN_PACKAGES } from '../packages/tarn.ts'

export const family = tarnFamily()

/** The manifests as the shelf will hold them: with the digest of the volume they lie in. */
const manifests: readonly Manifest[] = TARN_PACKAGES.filter(
  ({ truncatedTo, firstOnly }) => truncatedTo === undefined && firstOnly !== true,
).map((draft) => {
  const { manifest, volumes } = buildPackage(draft)
  const [first] = manifest.archives
  const [volume] = volumes
  if (first === undefined || volume === undefined) return manifest
  const digests = { ...manifest.published.digests, [first.file]: digestOfVolume(volume) }
  return { ...manifest, published: { ...manifest.published, digests } }
})
export const manifestOf = (id: string): Manifest => {
  const found = manifests.find((one) => one.id === id)
  if (found === undefined) throw new Error(`no package ${id}`)
  return found
}
const shelf: readonly ProvenPackage[] = manifests.map((manifest) => ({
  manifest,
  proof: { claims: [], state: 'proven', places: new Map() },
}))

/** A tarn handheld as its loader or its system tells it. */
export function tarnFacts(more: Partial<DeviceFacts> & Pick<DeviceFacts, 'serial'>): DeviceFacts {
  const build = more.build ?? 'H2.0ZP.r4'
  const full = manifests.find((one) => one.build === build && one.kind === 'full')
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
  return judgeable({ family, facts, read, shelf, identity, mode: facts.mode }, { intent, keepData })
}
