/** The region in which it was sold is one that the package names, of the targets that are for this board. */
import { rule } from '../rule.ts'
import { TARGET_FACTS, targetsFor, targetsText } from '../targets.ts'

export const region = rule({
  id: 'identity.region',
  overruled: 'lead',
  needs: ['region'],
  sees: TARGET_FACTS,
  alike: targetsText,
  says: { fits: ['fits', 'here'], not: ['does-not-fit', 'here', 'wanted'] },
  concerns: ({ shelved }) => shelved.manifest.targets.some((target) => target.region !== undefined),
  check: ({ region: here, ...board }, at) => {
    const targets = targetsFor(at, board)
    if (targets.some((target) => target.region === undefined || target.region === here))
      return { say: 'fits', facts: { here } }
    const wanted = [...new Set(targets.map((target) => target.region))].join(', ')
    return { say: 'not', facts: { here, wanted } }
  },
})
