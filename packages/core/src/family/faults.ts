/**
 * Known faults of a family's boards: under which of the maker's images they show. Reads the profile and what
 * stands on a device; gives the faults. They are the house's or the maker's own findings, with their source.
 */
import { orderBuilds, readBuild } from '../build/grammar.ts'
import type { PartRole } from '../terms/device.ts'
import type { Family } from './profile.ts'
import type { KnownFault } from './rules.ts'

/** Faults of this board under the builds that a part of each role is of. */
export const faultsUnder = (
  family: Family,
  { model, board }: { readonly model: string; readonly board: string },
  buildsOn: (role: PartRole) => readonly string[],
): readonly KnownFault[] =>
  family.knownFaults.filter(
    ({ models, boards, role, from }) =>
      boards.includes(board) &&
      models?.includes(model) !== false &&
      buildsOn(role).some((build) => isFrom(family, build, from)),
  )

/** Whether a build is this one or newer by the grammar's order, whatever it was made for. */
function isFrom({ build: grammar }: Family, build: string, from: string): boolean {
  const [one, other] = [readBuild(grammar, build), readBuild(grammar, from)]
  if (!one.ok || !other.ok) return false
  const order = orderBuilds({ ...grammar, alike: [] }, one.value, other.value)
  return order === 'same' || order === 'newer'
}
