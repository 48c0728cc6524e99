/**
 * A build that is not stable goes on for an owner who agreed to that: it gets no further updates by itself, and the
 * way back wipes. Nobody agrees in the owner's place.
 */
import { rule } from '../rule.ts'

export const channel = rule({
  id: 'package.channel',
  overruled: 'nobody',
  reads: ['lines'],
  says: {
    stable: ['fits'],
    agreed: ['fits', 'channel'],
    ask: ['fits-if', 'channel'],
    refused: ['does-not-fit', 'channel'],
  },
  concerns: ({ shelved }) => shelved.manifest.kind !== 'service',
  check: (_, { lines, shelved: { manifest } }) => {
    const facts = { channel: manifest.channel }
    if (manifest.channel === 'stable') return { say: 'stable', facts: {} }
    const answer = lines?.get('consent.preview')?.answer
    if (answer === 'no') return { say: 'refused', facts }
    return answer === 'yes'
      ? { say: 'agreed', facts }
      : { say: 'ask', facts, remedy: { kind: 'ask', topic: 'consent.preview' } }
  },
})
