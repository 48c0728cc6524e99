/** A device that is enrolled in somebody's management is worked on for whoever manages it, and for nobody else. */
import { rule } from '../rule.ts'

export const managed = rule({
  id: 'owner.managed',
  overruled: 'nobody',
  reads: ['lines'],
  says: { agreed: ['fits'], none: ['fits'], asked: ['cannot-tell'], not: ['does-not-fit'] },
  concerns: ({ lines }) => lines !== undefined,
  check: (_, { lines }) => {
    const answer = lines?.get('owner.managed')?.answer
    if (answer === 'not-managed') return { say: 'none', facts: {} }
    if (answer === 'agreed') return { say: 'agreed', facts: {} }
    if (answer === 'not-agreed') return { say: 'not', facts: {} }
    return { say: 'asked', facts: {}, remedy: { kind: 'ask', topic: 'owner.managed' } }
  },
})
