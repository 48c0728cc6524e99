/**
 * The carrier for which it was sold is one that the package names within its region; another row may be taken up
 * where that is what the owner wants and the family does it.
 */
import { adoptionOf, bringsVariant } from '../adoption.ts'
import { rule } from '../rule.ts'
import { TARGET_FACTS, isForRow, targetsFor, targetsText } from '../targets.ts'

export const carrier = rule({
  id: 'identity.carrier',
  overruled: 'lead',
  needs: ['region', 'carrier'],
  sees: TARGET_FACTS,
  alike: (manifest) => `${bringsVariant(manifest)} ${targetsText(manifest)}`,
  reads: ['intent', 'keepData', 'house', 'lines'],
  says: {
    fits: ['fits', 'here'],
    not: ['does-not-fit', 'here', 'wanted'],
    adopts: ['fits-if', 'here', 'wanted'],
    anew: ['fits-if', 'here', 'wanted'],
  },
  concerns: ({ shelved }) =>
    shelved.manifest.targets.some((target) => target.carriers !== undefined),
  check: ({ region, carrier: here, ...board }, at) => {
    const targets = targetsFor(at, board)
    /* Of another region altogether: the rule of regions says so. */
    const near = targets.filter((target) => target.region === undefined || target.region === region)
    if (near.length === 0) return undefined
    if (near.some((target) => isForRow(target, region, here)))
      return { say: 'fits', facts: { here } }
    const wanted = [...new Set(near.flatMap(({ carriers }) => carriers ?? []))].join(', ')
    const facts = { here, wanted }
    switch (adoptionOf(at, { region, carrier: here, ...board })) {
      case 'in-place':
        return { say: 'adopts', facts, remedy: { kind: 'along' } }
      case 'from-new':
        return { say: 'anew', facts, remedy: { kind: 'along' } }
      case undefined:
        return { say: 'not', facts }
    }
  },
})
