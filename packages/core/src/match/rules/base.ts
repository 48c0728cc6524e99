/** An increment goes on one exact build, and on no other. */
import { rule } from '../rule.ts'

export const base = rule({
  id: 'state.base',
  overruled: 'nobody',
  needs: ['build'],
  alike: ({ requires: { exactBuild } }) => `${exactBuild}`,
  says: { fits: ['fits', 'wanted'], other: ['does-not-fit', 'here', 'wanted'] },
  brought: ({ requires }, other) => other.kind !== 'part' && other.build === requires.exactBuild,
  concerns: ({ shelved }) => shelved.manifest.requires.exactBuild !== undefined,
  check: ({ build: here }, { shelved }) => {
    const wanted = shelved.manifest.requires.exactBuild ?? ''
    return here === wanted
      ? { say: 'fits', facts: { wanted } }
      : { say: 'other', facts: { here, wanted } }
  },
})
