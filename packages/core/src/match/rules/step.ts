/** No release is skipped that may not be: a package may name the release that must be on it before. */
import { leastReleaseOf } from '../../firmware/manifest.ts'
import { rule } from '../rule.ts'

export const releaseStep = rule({
  id: 'state.step',
  overruled: 'nobody',
  needs: ['release'],
  alike: (manifest) => `${leastReleaseOf(manifest)}`,
  says: { fits: ['fits', 'here'], skips: ['does-not-fit', 'here', 'least'] },
  brought: (asking, other) =>
    other.kind !== 'part' && other.release >= (leastReleaseOf(asking) ?? Infinity),
  concerns: ({ shelved }) => leastReleaseOf(shelved.manifest) !== undefined,
  check: ({ release }, { shelved }) => {
    const [here, least] = [Number(release), leastReleaseOf(shelved.manifest) ?? 0]
    return here >= least
      ? { say: 'fits', facts: { here } }
      : { say: 'skips', facts: { here, least } }
  },
})
