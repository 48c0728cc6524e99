/**
 * After a change of variant its own updates go on: they come for rows of the build that it runs. A variant part
 * alone leaves the build that is on it, which may not be of that row.
 */
import { adoptionOf, rowAfter } from '../adoption.ts'
import { rule } from '../rule.ts'
import { fullForSame } from '../shelf-index.ts'
import { TARGET_FACTS, isForRow } from '../targets.ts'

export const updates = rule({
  id: 'promise.updates',
  overruled: 'anyone',
  needs: ['region', 'carrier'],
  sees: ['build', ...TARGET_FACTS],
  reads: ['intent', 'keepData', 'shelf', 'house', 'lines'],
  says: {
    come: ['fits', 'row'],
    none: ['fits-if', 'row', 'build'],
  },
  concerns: ({ intent }) => intent === 'variant-change',
  check: ({ build, ...here }, at) => {
    const { manifest } = at.shelved
    if (adoptionOf(at, here) === undefined) return undefined
    const to = rowAfter(at, here)
    const row = `${to.region ?? ''}/${to.carrier ?? ''}`
    const runs = manifest.images.some(({ role }) => role === 'main')
      ? manifest
      : fullForSame(at.shelf, manifest, build)[0]?.manifest
    if (runs === undefined) return undefined
    return runs.targets.some((target) => isForRow(target, to.region ?? '', to.carrier ?? ''))
      ? { say: 'come', facts: { row } }
      : { say: 'none', facts: { row, build: runs.build } }
  },
})
