/** An update of its own that is half merged: what is written meanwhile destroys the customer's data. */
import { rule } from '../rule.ts'

export const merge = rule({
  id: 'state.merge',
  overruled: 'nobody',
  needs: ['merge'],
  broughtBy: ['wait', 'take-back'],
  says: { none: ['fits'], staged: ['fits-if'], merging: ['fits-if'] },
  concerns: ({ family }) => family.merge?.destroyedBy.includes('write') === true,
  check: ({ merge: here }) => {
    if (here === 'merging') return { say: here, facts: {}, remedy: { kind: 'along', act: 'wait' } }
    if (here === 'staged')
      return { say: here, facts: {}, remedy: { kind: 'along', act: 'take-back' } }
    return { say: 'none', facts: {} }
  },
})
