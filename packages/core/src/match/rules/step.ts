/** No release is skipped that may not be: a package may name the release that must be on it before. */
import { rule } from '../rule.ts'

export const releaseStep = rule({
  id: 'state.step',
  overruled: 'nobody',
  needs: ['release'],
  alike: ({ requires: { leastRelease } }) => `${leastRelease}`,
  says: { fits: ['fits', 'here'], skips: ['does-not-fit', 'here', 'least'] },
  brought: ({ requires }, other) =>
    other.kind !== 'part' && other.release >= (requires.leastRelease ?? Infinity),
  concerns: ({ shelved }) => shelved.manifest.requires.leastRelease !== undefined,
  check: ({ release }, { shelved }) => {
    const [here, least] = [Number(release), shelved.manifest.requires.leastRelease ?? 0]
    return here >= least
      ? { say: 'fits', facts: { here } }
      : { say: 'skips', facts: { here, least } }
  },
})
