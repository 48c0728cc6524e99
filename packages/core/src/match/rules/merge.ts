/** An update of its own that is half merged: what is written meanwhile destroys the customer's data. */
import type { Rule } from '../rule.ts'

export const merge: Rule = {
  id: 'state.merge',
  needs: ['merge'],
  final: false,
  codes: ['fit.state.merge.none', 'fit.state.merge.staged', 'fit.state.merge.merging'],
  check: ({ merge: here }, { family, shelved }) => {
    if (family.merge?.destroyedBy.includes('write') !== true) return undefined
    if (shelved.manifest.images.length === 0) return undefined
    if (here === 'merging')
      return { verdict: 'fits-if', code: 'fit.state.merge.merging', remedy: 'wait' }
    if (here === 'staged')
      return { verdict: 'fits-if', code: 'fit.state.merge.staged', remedy: 'cancel' }
    return { verdict: 'fits', code: 'fit.state.merge.none' }
  },
}
