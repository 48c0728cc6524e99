/**
 * Parts that are signed as one set come together: a package that brings some of them, and not all, leaves a system
 * of two builds that never starts.
 */
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const together = rule({
  id: 'package.together',
  overruled: 'nobody',
  says: { whole: ['fits'], half: ['does-not-fit', 'brings', 'lacks'] },
  concerns: (at) => brings(at).length > 0,
  check: (_, at) => {
    const here = brings(at)
    const lacks = at.family.signedSet.filter((role) => !here.includes(role))
    return lacks.length === 0
      ? { say: 'whole', facts: {} }
      : { say: 'half', facts: { brings: here.join(', '), lacks: lacks.join(', ') } }
  },
})

const brings = ({ family, shelved }: Ground) =>
  family.signedSet.filter((one) => shelved.manifest.images.some(({ role }) => role === one))
