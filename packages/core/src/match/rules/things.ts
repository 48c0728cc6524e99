/** Things of the customer's that must survive and for which the family has no place that we know. */
import { rule } from '../rule.ts'

export const things = rule({
  id: 'promise.things',
  overruled: 'nobody',
  reads: ['keepData', 'placeless'],
  says: { unpromised: ['fits-if', 'things'] },
  concerns: ({ keepData, placeless }) => keepData && placeless.length > 0,
  check: (_, { placeless }) => ({
    say: 'unpromised',
    facts: { things: placeless.join(', ') },
    remedy: { kind: 'consent' },
  }),
})
