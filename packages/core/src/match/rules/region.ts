/**
 * The region in which it was sold is one that the package names, of the targets that are for this board. Where it is to be
 * used in the package's region, and takes up its variant with its radio, that is said; a lead decides all the same.
 */
import { adoptionOf, bringsVariant } from '../adoption.ts'
import { rule } from '../rule.ts'
import { TARGET_FACTS, targetsFor, targetsText } from '../targets.ts'

export const region = rule({
  id: 'identity.region',
  overruled: 'lead',
  needs: ['region'],
  sees: ['carrier', ...TARGET_FACTS],
  reads: ['intent', 'keepData', 'house', 'lines'],
  alike: (manifest) => `${bringsVariant(manifest)} ${targetsText(manifest)}`,
  says: {
    fits: ['fits', 'here'],
    not: ['does-not-fit', 'here', 'wanted'],
    moves: ['does-not-fit', 'here', 'wanted'],
  },
  concerns: ({ shelved }) => shelved.manifest.targets.some((target) => target.region !== undefined),
  check: ({ region: here, carrier, ...board }, at) => {
    const targets = targetsFor(at, board)
    if (targets.some((target) => target.region === undefined || target.region === here))
      return { say: 'fits', facts: { here } }
    const wanted = [...new Set(targets.map((target) => target.region))].join(', ')
    const moves = adoptionOf(at, { region: here, carrier, ...board }) !== undefined
    return { say: moves ? 'moves' : 'not', facts: { here, wanted } }
  },
})
