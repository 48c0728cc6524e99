/**
 * A package whose own loader need not go on leaves the one that is there alone: an older one never goes on, and one
 * kept once is raised only where the package would not start under what is there. What a device installs by itself it
 * writes whole: there an older loader is a reason against it. Where each side has its own, an older one that goes to the
 * other side is said.
 */
import { isInstalled } from '../installed.ts'
import { rule } from '../rule.ts'
import { hasSlottedLoader, loaderIn, loaderStays } from '../../difference/loader-stays.ts'

export const loaderKept = rule({
  id: 'state.loader.stays',
  overruled: 'nobody',
  needs: ['loaderVersion'],
  alike: ({ kind, loaderVersion, requires: { minLoader }, images }) =>
    `${kind} ${loaderVersion} ${minLoader} ${images.map(({ role }) => role).join()}`,
  reads: ['way'],
  says: {
    older: ['fits', 'here', 'brings'],
    same: ['fits', 'here'],
    slot: ['fits', 'here', 'brings'],
    enough: ['fits', 'here', 'brings'],
    back: ['does-not-fit', 'here', 'brings'],
  },
  concerns: ({ shelved: { manifest } }) =>
    loaderIn(manifest) !== undefined && manifest.images.length > 1,
  check: ({ loaderVersion }, { family, way, shelved: { manifest } }) => {
    const here = Number(loaderVersion)
    const why = loaderStays(family, manifest, here)
    const facts = { here, brings: manifest.loaderVersion ?? 0 }
    if (hasSlottedLoader(family)) return facts.brings < here ? { say: 'slot', facts } : undefined
    if (isInstalled(manifest, way)) return why === 'older' ? { say: 'back', facts } : undefined
    if (why === undefined) return undefined
    return why === 'same' ? { say: why, facts: { here } } : { say: why, facts }
  },
})
