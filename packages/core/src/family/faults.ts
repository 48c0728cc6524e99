/**
 * Known faults of a family's boards: under which of the maker's images they show. Reads the profile and what
 * stands on a device; gives the faults. They are the house's or the maker's own findings, with their source.
 */
import type { PartRole } from '../terms/device.ts'
import { isFrom } from './builds.ts'
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
