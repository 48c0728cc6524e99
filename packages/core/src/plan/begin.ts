/** Where a road begins, and what is compared at the first meeting. Reads a state; gives a road without steps. */
import { settled } from '../device/identity.ts'
import type { Unheld } from '../match/rule.ts'
import type { Road } from './road.ts'
import type { DeviceState } from './state.ts'
import type { Ids } from './step.ts'

export const beginsAt = ({ at, mode, permission }: DeviceState): Road => ({
  family: at.family,
  ids: idsOf(at),
  here: mode,
  handSeconds: at.house.handSeconds,
  permission,
  look: { table: undefined, left: [] },
  met: false,
  steps: [],
})

/** The ids that were settled, which every meeting must show. */
const idsOf = ({ identity }: Unheld): Ids =>
  Object.fromEntries(
    (['model', 'board', 'chipset'] as const).flatMap((fact) => {
      const value = settled(identity, fact)
      return value === undefined ? [] : [[fact, String(value)]]
    }),
  )
