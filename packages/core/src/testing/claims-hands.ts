/** What a family says to hands and eyes: its rows, its outline, the ways as cards, its menus under every loader. */
import { driversFor } from '../computer/drivers.ts'
import { modeOfKind } from '../family/modes.ts'
import { beforeLeaving } from '../job/leave.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import { THINGS } from '../terms/line.ts'
import { TROUBLES } from '../terms/trouble.ts'
import { remediesFor } from '../triage/remedies.ts'
import { legsTo } from '../modes/card.ts'
import { pressesTo } from '../modes/menu.ts'
import { rowsOf } from '../probe/rows.ts'
import type { Bench } from './families.ts'

const LOADERS = [undefined, 4, 5, 6, 29, 30, 31, 32, 60, 61]

export const HANDS: Readonly<Record<string, (bench: Bench) => unknown>> = {
  'the rows that its devices may be of': ({ family }) => [
    rowsOf(family),
    family.variants.map(({ name }) => name),
  ],
  'what is tried when it fails': ({ family }) =>
    TROUBLES.map((trouble) =>
      remediesFor(family, {
        trouble,
        tried: new Set(),
        first: 'again',
        inDoubt: false,
        keepData: false,
      }),
    ),
  'what comes before it leaves its system': ({ family }) =>
    [true, false].map((keepData) =>
      beforeLeaving({
        family,
        mode: modeOfKind(family, 'system'),
        here: true,
        inUse: true,
        keepData,
        things: THINGS,
        house: { ...USUAL_HOUSE, accounts: 'before' },
        plan: undefined,
        looked: false,
        stayedAt: undefined,
        screenLock: undefined,
        percent: 20,
        lines: new Map(),
        now: 0,
      }),
    ),
  'what its links need of a computer': ({ family }) =>
    [0, 1, 2, 3, 4, 5, 6, 7, 8].map((version) =>
      driversFor(
        family,
        family.modes.map(({ id }) => id),
        { drivers: family.drivers.map(({ id }) => ({ id, version })) },
      ).map(({ driver: { id, name }, is, modes }) => [id, name, is, modes]),
    ),
  'how the device is drawn': ({ family }) => family.outline,
  'what its ways ask of hands': ({ family }) =>
    family.ways.flatMap(({ from, to }) =>
      (from === 'any' ? [] : from).map((one) =>
        legsTo(family, one, to, { permission: true, loader: undefined }),
      ),
    ),
  'what its menus ask': ({ family }) =>
    family.modes.map(({ menu }) => [
      menu?.key,
      menu?.takes,
      menu?.say,
      menu?.presses,
      menu?.lines.map(({ id }) => LOADERS.map((loader) => pressesTo(menu, id, loader))),
    ]),
}
