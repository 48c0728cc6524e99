/**
 * The patch date does not go back unawares: a newer build may carry an older one. Who goes down on purpose knows it.
 * Whether the data open after is another question.
 */
import { rule } from '../rule.ts'

export const patchDate = rule({
  id: 'state.patch-date',
  overruled: 'anyone',
  sees: ['patchDate'],
  reads: ['intent'],
  says: { fits: ['fits', 'here', 'brings'], back: ['fits-if', 'here', 'brings'] },
  concerns: ({ shelved, intent }) =>
    shelved.manifest.kind !== 'part' && intent !== 'downgrade' && intent !== 'service',
  check: ({ patchDate: here }, { shelved }) => {
    if (here === undefined) return undefined
    const facts = { here, brings: shelved.manifest.patchDate }
    return { say: facts.brings < String(here) ? 'back' : 'fits', facts }
  },
})
