/**
 * The radio that it brings may be operated where the house works, by the targets that are for this very board.
 * Of a radio whose region nobody names it cannot be told. Local rules decide, and nobody here overrules them.
 */
import { rule } from '../rule.ts'
import { TARGET_FACTS, targetsFor } from '../targets.ts'

export const radioLaw = rule({
  id: 'promise.radio-law',
  overruled: 'nobody',
  sees: ['region', ...TARGET_FACTS],
  reads: ['house'],
  says: {
    fits: ['fits', 'region'],
    unlawful: ['does-not-fit', 'region', 'lawful'],
    unnamed: ['cannot-tell'],
  },
  concerns: ({ shelved }) => shelved.manifest.images.some(({ role }) => role === 'modem'),
  check: ({ region: here, ...board }, at) => {
    const targets = targetsFor(at, board)
    const named = targets.flatMap((target) => target.region ?? [])
    if (named.length === 0) return { say: 'unnamed', facts: {} }
    const applying = here !== undefined && named.includes(String(here)) ? [String(here)] : named
    const region = [...new Set(applying)].join(', ')
    return applying.some((one) => at.house.lawfulRegions.includes(one))
      ? { say: 'fits', facts: { region } }
      : { say: 'unlawful', facts: { region, lawful: at.house.lawfulRegions.join(', ') } }
  },
})
