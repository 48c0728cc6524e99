/**
 * Where the fuses say one thing and others of weight another, somebody looks at the board itself before
 * anything is written: a mistake there kills.
 */
import { doubtedFacts, settled } from '../../device/identity.ts'
import { rule } from '../rule.ts'

export const byEye = rule({
  id: 'identity.by-eye',
  overruled: 'nobody',
  reads: ['identity', 'byEye'],
  says: { seen: ['fits', 'here'], look: ['fits-if', 'fact', 'here'] },
  check: (_, at) => {
    const doubted = doubtedFacts(at.identity)
    const [first] = doubted
    if (first === undefined) return undefined
    const here = settled(at.identity, first) ?? ''
    return at.byEye
      ? { say: 'seen', facts: { here } }
      : { say: 'look', facts: { fact: doubted.join(', '), here }, remedy: { kind: 'by-eye' } }
  },
})
