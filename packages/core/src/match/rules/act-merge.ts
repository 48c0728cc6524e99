/** The lock is not turned over an update of its own that is half merged, where that destroys the customer's data. */
import { rule } from '../rule.ts'

export const actMerge = rule({
  id: 'act.merge',
  overruled: 'nobody',
  needs: ['merge'],
  acts: ['open', 'close'],
  packs: false,
  broughtBy: ['wait', 'take-back'],
  says: { none: ['fits'], staged: ['fits-if'], merging: ['fits-if'] },
  concerns: ({ family }) => family.merge?.destroyedBy.includes('lock') === true,
  check: ({ merge }) => {
    if (merge === 'merging')
      return { say: 'merging', facts: {}, remedy: { kind: 'along', act: 'wait' } }
    if (merge === 'staged')
      return { say: 'staged', facts: {}, remedy: { kind: 'along', act: 'take-back' } }
    return { say: 'none', facts: {} }
  },
})
