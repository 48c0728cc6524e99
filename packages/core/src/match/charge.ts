/**
 * What a device asks of its charge beside what steps draw: the least with which it installs, and how much faster an aged cell or
 * a known fault of its board drains. Reads a family and what is known of board and cell.
 */
import type { Identity } from '../device/identity.ts'
import { toldOf } from '../device/identity.ts'
import { faultsUnder } from '../family/faults.ts'
import type { Family } from '../family/profile.ts'
import type { Store } from '../terms/device.ts'

/** Percent below which a device refuses what is installed from a store, in a mode or in any. */
export const leastToInstall = (family: Family, store: Store, mode?: string): number =>
  Math.max(
    0,
    ...family.installs
      .filter((rule) => rule.from === store && (mode === undefined || rule.mode === mode))
      .map(({ leastPercent }) => leastPercent),
  )

/** How many times as fast it drains: for its cell's age, and for a fault of its board. */
export const drainTimes = (family: Family, identity: Identity, builds: readonly string[]): number =>
  faultTimes(family, identity, builds) * agedTimes(family, identity)

/** Of a cell that anybody or anything calls aged, what the family says of such ones. */
function agedTimes({ agedDrains = 1 }: Family, { batteryHealth }: Identity): number {
  const claims = batteryHealth.kind === 'missing' ? [] : batteryHealth.claims
  return claims.some(({ value }) => value === 'aged') ? agedDrains : 1
}

/**
 * How many times as fast it drains for a fault that its board is known to have under one of these builds or the one on it; 1
 * where none does or nobody knows the board.
 */
function faultTimes(family: Family, identity: Identity, builds: readonly string[]): number {
  const [model, board] = [toldOf(identity, 'model'), toldOf(identity, 'board')]
  if (model === undefined || board === undefined) return 1
  const here = toldOf(identity, 'build')
  const known = here === undefined ? builds : [String(here), ...builds]
  const about = { model: String(model), board: String(board) }
  return faultsUnder(family, about, () => known).reduce(
    (most, { drain }) => Math.max(most, drain),
    1,
  )
}
