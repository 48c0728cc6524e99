/** A build that its maker has not released goes on with a lead's word, beside the owner's. */
import { rule } from '../rule.ts'

export const unreleased = rule({
  id: 'package.unreleased',
  overruled: 'lead',
  says: { held: ['does-not-fit'] },
  concerns: ({ shelved }) => shelved.manifest.channel === 'unreleased',
  check: () => ({ say: 'held', facts: {} }),
})
