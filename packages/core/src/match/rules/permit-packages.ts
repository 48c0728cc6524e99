/** A signed permit names the packages it is for; what is typed names none, and says nothing of it. */
import { permitKindOf } from '../permit.ts'
import { rule } from '../rule.ts'

export const permitPackages = rule({
  id: 'permit.packages',
  overruled: 'nobody',
  reads: ['permit'],
  says: { fits: ['fits', 'id'], other: ['does-not-fit', 'id', 'packages'] },
  concerns: ({ shelved, permit }) =>
    permitKindOf(shelved.manifest) !== undefined && permit?.signed !== undefined,
  check: (_, { permit, shelved }) => {
    if (permit?.signed === undefined) return undefined
    const { id } = permit
    return permit.signed.packages.includes(shelved.manifest.id)
      ? { say: 'fits', facts: { id } }
      : {
          say: 'other',
          facts: { id, packages: permit.signed.packages.join(', ') },
          remedy: { kind: 'permit' },
        }
  },
})
