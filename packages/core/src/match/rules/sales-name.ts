/** Who only names the device does not know its model: a box, a label or a memory is never enough for that. */
import { rule } from '../rule.ts'

export const salesName = rule({
  id: 'identity.sales-name',
  overruled: 'nobody',
  reads: ['identity'],
  says: { told: ['cannot-tell', 'here', 'sources'] },
  concerns: ({ identity }) => identity.model.kind === 'told',
  check: (_, { identity: { model } }) => {
    if (model.kind !== 'told') return undefined
    const sources = [...new Set(model.claims.flatMap((claim) => claim.sources))].join(', ')
    return {
      say: 'told',
      facts: { here: model.value, sources },
      remedy: { kind: 'read', facts: ['model'] },
    }
  },
})
