/** Its kind suits what is wanted: service software for service alone, and for that nothing else. */
import { rule } from '../rule.ts'

export const kind = rule({
  id: 'package.kind',
  overruled: 'nobody',
  reads: ['intent'],
  says: {
    fits: ['fits', 'kind'],
    service: ['does-not-fit', 'kind'],
    unserviced: ['does-not-fit', 'kind'],
  },
  concerns: ({ shelved }) => shelved.manifest.kind !== 'part',
  check: (_, { intent, shelved }) => {
    const facts = { kind: shelved.manifest.kind }
    const serves = facts.kind === 'service'
    if (serves && intent !== 'service') return { say: 'service', facts }
    return !serves && intent === 'service' ? { say: 'unserviced', facts } : { say: 'fits', facts }
  },
})
