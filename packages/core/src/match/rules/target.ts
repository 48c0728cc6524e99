/**
 * One target of the package holds whole: model, board, chipset and storage of the same row. Rows are not
 * mixed: what fits field by field across them was made for none of them. Never overruled.
 */
import type { Rule } from '../rule.ts'
import { TARGET_FACTS, TARGET_FIELDS, admits, targetsOf } from '../rule.ts'

export const target: Rule = {
  id: 'identity.target',
  needs: TARGET_FACTS,
  final: true,
  codes: ['fit.identity.target.fits', 'fit.identity.target.mixed'],
  check: (values, at) => {
    const targets = targetsOf(at)
    if (targets.length < 2) return undefined
    const facts = { here: TARGET_FACTS.map((fact) => values[fact] ?? '').join(' ') }
    if (targets.some((one) => admits(one, values)))
      return { verdict: 'fits', code: 'fit.identity.target.fits', facts }
    /* A field that no row lists has its own rule, and its own sentence. */
    const unlisted = TARGET_FACTS.some(
      (fact) => !targets.some((one) => TARGET_FIELDS[fact](one).includes(values[fact] ?? '')),
    )
    if (unlisted) return undefined
    return { verdict: 'does-not-fit', code: 'fit.identity.target.mixed', facts }
  },
}
