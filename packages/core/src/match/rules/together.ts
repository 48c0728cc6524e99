/**
 * Parts that are signed as one set come together, and what its own manifest calls that: a package that brings some of them, and not all, leaves a system
 * of two builds that never starts.
 */
import type { PartRole } from '../../terms/device.ts'
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const together = rule({
  id: 'package.together',
  overruled: 'nobody',
  says: { whole: ['fits'], half: ['does-not-fit', 'brings', 'lacks'] },
  concerns: (at) => halves(at).length > 0,
  check: (_, at) => {
    const half = halves(at).find(({ lacks }) => lacks.length > 0)
    return half === undefined
      ? { say: 'whole', facts: {} }
      : { say: 'half', facts: { brings: half.brings.join(', '), lacks: half.lacks.join(', ') } }
  },
})

/** Of each set of which it brings any, by its family's word and by its own: what it brings, and what it lacks. */
const halves = ({ family, shelved: { manifest } }: Ground) =>
  [family.signedSet, ...manifest.together].flatMap((set) => {
    const has = (one: PartRole) => manifest.images.some(({ role }) => role === one)
    const brings = set.filter(has)
    return brings.length === 0 ? [] : [{ brings, lacks: set.filter((one) => !has(one)) }]
  })
