/**
 * One target of the package holds whole: model, board, chipset and storage of the same row. Rows are not
 * mixed: what fits field by field across them was made for none of them.
 */
import { rule } from '../rule.ts'
import { TARGET_FACTS, TARGET_FIELDS, admits, targetsOf, targetsText } from '../targets.ts'

export const target = rule({
  id: 'identity.target',
  overruled: 'nobody',
  needs: TARGET_FACTS,
  alike: targetsText,
  says: { fits: ['fits', 'here'], mixed: ['does-not-fit', 'here'] },
  concerns: (at) => targetsOf(at).length > 1,
  check: (values, at) => {
    const targets = targetsOf(at)
    const facts = { here: TARGET_FACTS.map((fact) => values[fact]).join(' ') }
    if (targets.some((one) => admits(one, values))) return { say: 'fits', facts }
    /* A field that no row lists has its own rule, and its own sentence. */
    const unlisted = TARGET_FACTS.some(
      (fact) => !targets.some((one) => TARGET_FIELDS[fact](one).includes(values[fact])),
    )
    return unlisted ? undefined : { say: 'mixed', facts }
  },
})
