/**
 * Where the fuses say one thing and others of weight another, somebody looks at the board itself before
 * anything is written: a mistake there kills.
 */
import { doubtedFacts, settled } from '../../device/identity.ts'
import type { Rule } from '../rule.ts'

export const byEye: Rule = {
  id: 'identity.by-eye',
  needs: [],
  final: true,
  codes: ['fit.identity.by-eye.seen', 'fit.identity.by-eye.look'],
  check: (_, at) => {
    const doubted = doubtedFacts(at.identity)
    const [first] = doubted
    if (first === undefined) return undefined
    const facts = { fact: doubted.join(', '), here: settled(at.identity, first) ?? '' }
    return at.byEye
      ? { verdict: 'fits', code: 'fit.identity.by-eye.seen', facts }
      : { verdict: 'fits-if', code: 'fit.identity.by-eye.look', facts, remedy: 'by-eye' }
  },
}
