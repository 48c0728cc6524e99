/**
 * The radio that it brings may be operated where the device will be used, by the targets that are for this very board: here by
 * what the house may operate, elsewhere only what is of that region itself.
 * Of a radio whose region nobody names it cannot be told. Local rules decide, and nobody here overrules them.
 */
import type { Image } from '../../firmware/manifest.ts'
import { usedIn } from '../adoption.ts'
import { rule } from '../rule.ts'
import { TARGET_FACTS, targetsFor, targetsText } from '../targets.ts'

const isModem = ({ role }: Image): boolean => role === 'modem'

export const radioLaw = rule({
  id: 'promise.radio-law',
  overruled: 'nobody',
  sees: ['region', ...TARGET_FACTS],
  reads: ['house', 'lines'],
  alike: (manifest) => `${manifest.images.some(isModem)} ${targetsText(manifest)}`,
  says: {
    fits: ['fits', 'region'],
    unlawful: ['does-not-fit', 'region', 'lawful'],
    unnamed: ['cannot-tell'],
  },
  concerns: ({ shelved }) => shelved.manifest.images.some(isModem),
  check: ({ region: here, ...board }, at) => {
    const targets = targetsFor(at, board)
    const named = targets.flatMap((target) => target.region ?? [])
    if (named.length === 0) return { say: 'unnamed', facts: {} }
    const applying = here !== undefined && named.includes(String(here)) ? [String(here)] : named
    const region = [...new Set(applying)].join(', ')
    const used = usedIn(at)
    const may = used === undefined ? at.house.lawfulRegions : [used]
    return applying.some((one) => may.includes(one))
      ? { say: 'fits', facts: { region } }
      : { say: 'unlawful', facts: { region, lawful: may.join(', ') } }
  },
})
