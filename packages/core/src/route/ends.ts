/**
 * What a device is to be at its end beside the build that is wanted: its boot lock as the owner wants it, or as it was
 * found; emptied by a reset where the house does that. Reads where a device stood; gives the acts that may come after a
 * package, and what a state lacks.
 */
import { settled } from '../device/identity.ts'
import type { Family } from '../family/profile.ts'
import type { ActMove, Move } from '../plan/moves.ts'
import { isPack } from '../plan/moves.ts'
import type { DeviceState } from '../plan/state.ts'
import type { MoveAct } from '../terms/device.ts'

/** What may be done to a family's devices at all. */
export function actsOf({ lock, merge }: Family): readonly ActMove[] {
  const acts: readonly MoveAct[] = [
    ...(merge === undefined ? [] : (['wait', 'take-back'] as const)),
    ...(lock.opens === 'command' ? (['open', 'close'] as const) : []),
    'reset',
  ]
  return acts.map((act) => ({ act }))
}

/** Acts for which there is a reason after a package. `helpers`: what may come before it; what is never opened is not closed. */
export function tailsOf(start: DeviceState, helpers: readonly Move[]): readonly ActMove[] {
  const opens = helpers.some((move) => !isPack(move) && move.act === 'open')
  const turns = start.at.intent === 'relock' || (closes(start) && opens)
  return actsOf(start.at.family).filter(
    ({ act }) =>
      (turns && (act === 'close' || act === 'wait')) || (act === 'reset' && resets(start)),
  )
}

/** What a state lacks of what the end is to be. Over an image of its owner's own no lock is closed: it stays open for that. */
export function lacksAt(start: DeviceState, { at, onto }: DeviceState): readonly string[] {
  const carries = onto?.at.shelved.manifest.carried !== undefined
  const open = closes(start) && !carries && settled(at.identity, 'bootLock') !== 'closed'
  return [...(open ? ['lock'] : []), ...(resets(start) && at.data === undefined ? ['reset'] : [])]
}

/** Its owner wants it closed, or it was found closed in a house that leaves it so. */
const closes = ({ at }: DeviceState): boolean =>
  at.intent === 'relock' ||
  (at.house.relock === 'close' && settled(at.identity, 'bootLock') === 'closed')

const resets = ({ at }: DeviceState): boolean => at.house.reset === 'always' && !at.keepData
