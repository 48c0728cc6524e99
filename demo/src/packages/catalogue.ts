/**
 * The depot's catalogue of the demo: every package that is known, those of the shelf by their own digests, signed by
 * the depot's key. The key is the demo's own, made from a seed that everybody can read: it vouches for made-up
 * packages in a made-up shop and for nothing else.
 */
import { setImmediate } from 'node:timers/promises'
import type { Manifest, UnsignedCatalogue } from '@plain-slate/core'
import { CATALOGUE_FORMAT, signedText } from '@plain-slate/core'
import { keyFrom, pemOf, signedBy } from '../keys.ts'
import { DEMO_PACKAGES } from './all.ts'
import { buildPackage, digestOfVolume, listedPackage } from './build.ts'
import { KNOWN_PACKAGES } from './known.ts'
import type { PackageDraft } from './line.ts'

export const DEPOT = 'Holm depot'
export const DEPOT_NUMBER = 41

const depotKey = () => keyFrom('the demo depot, which vouches for nothing real')

/** The depot's public key as a trust store holds it. */
export const depotPem = (): string => pemOf(depotKey())

/** The catalogue's text, signed. Package by package, so that whatever else this process does goes on meanwhile. */
export async function demoCatalogue(): Promise<string> {
  const here: Manifest[] = []
  for (const draft of DEMO_PACKAGES) {
    await setImmediate()
    here.push(shelvedAs(draft))
  }
  return signedCatalogue([...here, ...KNOWN_PACKAGES.map((one) => listedPackage(one))])
}

/** A catalogue of the depot over these packages, as it signs it. */
export function signedCatalogue(
  packages: readonly Manifest[],
  more: Partial<UnsignedCatalogue> = {},
): string {
  const catalogue: UnsignedCatalogue = {
    format: CATALOGUE_FORMAT,
    from: DEPOT,
    number: DEPOT_NUMBER,
    issued: '2026-10-12',
    expires: '2026-11-30',
    packages: [...packages],
    ...more,
  }
  const signature = signedBy(depotKey(), signedText(catalogue))
  return JSON.stringify({ ...catalogue, signature })
}

/** A package of the shelf as its depot lists it: whole, with the digests of its volumes. */
function shelvedAs({ truncatedTo: _, ...draft }: PackageDraft): Manifest {
  const { manifest, volumes } = buildPackage(draft)
  return {
    ...manifest,
    archives: volumes.map((one) => ({
      file: one.file,
      sha256: digestOfVolume(one),
      bytes: one.bytes,
    })),
  }
}
