/**
 * The boot lock is closed over a whole package of the row that the fuses expect, and over nothing else: what is
 * foreign or half there never starts again behind it.
 */
import { rule } from '../rule.ts'
import { TARGET_FACTS, isForRow, targetsFor, targetsText } from '../targets.ts'

export const lock = rule({
  id: 'state.lock',
  overruled: 'nobody',
  acts: ['close'],
  alike: (manifest) => `${manifest.kind} ${targetsText(manifest)}`,
  needs: ['bootLock', 'region', 'carrier'],
  sees: TARGET_FACTS,
  reads: ['intent'],
  says: {
    fits: ['fits'],
    closed: ['fits'],
    foreign: ['does-not-fit', 'region', 'carrier'],
    partly: ['does-not-fit'],
  },
  concerns: ({ intent }) => intent === 'relock',
  check: ({ bootLock, region, carrier, ...board }, at) => {
    if (bootLock === 'closed') return { say: 'closed', facts: {} }
    if (at.shelved.manifest.kind !== 'full') return { say: 'partly', facts: {} }
    return targetsFor(at, board).some((target) => isForRow(target, region, carrier))
      ? { say: 'fits', facts: {} }
      : { say: 'foreign', facts: { region, carrier } }
  },
})
