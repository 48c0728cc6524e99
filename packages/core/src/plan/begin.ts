/** Where a road begins, and what is compared at the first meeting. Reads a state; gives a road without steps. */
import { settled } from '../device/identity.ts'
import { beginsIn, modeOfKind } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import type { Unheld } from '../match/rule.ts'
import type { Road } from './road.ts'
import type { DeviceState } from './state.ts'
import type { Ids } from './step.ts'

export const beginsAt = ({ at, mode, permission }: DeviceState): Road => ({
  family: at.house.into === 'keys' ? byKeys(at.family) : at.family,
  everyRestart: at.house.restarts === 'every',
  ids: idsOf(at),
  here: mode,
  handSeconds: at.house.handSeconds,
  permission,
  look: { table: undefined, left: [] },
  met: false,
  steps: [],
})

/** The same family without the commands by which its running system goes where keys lead as well. */
function byKeys(family: Family): Family {
  const system = modeOfKind(family, 'system')
  const byHand = new Set(family.ways.filter(({ how }) => how === 'chord').map(({ to }) => to))
  const ways = family.ways.filter(
    (way) => !(way.how === 'command' && beginsIn(way, system) && byHand.has(way.to)),
  )
  return { ...family, ways }
}

/** The ids that were settled, which every meeting must show. */
const idsOf = ({ identity }: Unheld): Ids =>
  Object.fromEntries(
    (['model', 'board', 'chipset'] as const).flatMap((fact) => {
      const value = settled(identity, fact)
      return value === undefined ? [] : [[fact, String(value)]]
    }),
  )
