/**
 * The boot lock is closed over a whole package of the row that the fuses expect, and over nothing else: what is
 * foreign or half there never starts again behind it. Of a part that is not written and whose digest no known package has, nobody
 * can tell whether its device closes over it: that would be seen after the wipe.
 */
import { rolesCarried } from '../../firmware/carried.ts'
import { isKnown } from '../known.ts'
import type { Case } from '../rule.ts'
import { rule } from '../rule.ts'
import { inSlot, slotToWrite } from '../slots.ts'
import { TARGET_FACTS, isForRow, targetsFor, targetsText } from '../targets.ts'

export const lock = rule({
  id: 'state.lock',
  overruled: 'nobody',
  acts: ['close'],
  alike: (manifest) =>
    `${manifest.kind} ${targetsText(manifest)} ${manifest.images.map(({ partition }) => partition).join()}`,
  needs: ['bootLock', 'region', 'carrier'],
  sees: TARGET_FACTS,
  reads: ['intent', 'act', 'identity', 'evidence', 'shelf'],
  says: {
    fits: ['fits'],
    closed: ['fits'],
    foreign: ['does-not-fit', 'region', 'carrier'],
    partly: ['does-not-fit'],
    over: ['cannot-tell', 'partition'],
    carried: ['does-not-fit', 'roles'],
  },
  concerns: ({ intent, act, shelved }) =>
    intent === 'relock' || (act === 'close' && shelved.manifest.carried !== undefined),
  check: ({ bootLock, region, carrier, ...board }, at) => {
    if (bootLock === 'closed') return { say: 'closed', facts: {} }
    if (at.shelved.manifest.kind !== 'full') return { say: 'partly', facts: {} }
    const { carried } = at.shelved.manifest
    if (carried !== undefined)
      return { say: 'carried', facts: { roles: rolesCarried(at.shelved.manifest).join(', ') } }
    const partition = ownLeft(at)
    if (partition !== undefined) return { say: 'over', facts: { partition } }
    return targetsFor(at, board).some((target) => isForRow(target, region, carrier))
      ? { say: 'fits', facts: {} }
      : { say: 'foreign', facts: { region, carrier } }
  },
})

/** A part that its device starts from, that this package leaves where it is and that no package is known to hold. */
function ownLeft(
  at: Pick<Case, 'family' | 'shelved' | 'act' | 'identity' | 'evidence' | 'shelf'>,
): string | undefined {
  const { family, shelved, act, evidence } = at
  if (act !== undefined || !closesSigned(family)) return undefined
  const { images } = inSlot(family, shelved.manifest, slotToWrite(at))
  return family.partitions.find(
    ({ name, role }) =>
      family.writeOrder.includes(role) &&
      !family.wipe.includes(role) &&
      evidence.get(name)?.kind === 'digest' &&
      !images.some(({ partition }) => partition === name) &&
      !isKnown(at, name),
  )?.name
}
const closesSigned = ({ lock: of }: Case['family']): boolean =>
  of.opens === 'command' && of.closesOver.includes('signed')
