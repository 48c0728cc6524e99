/**
 * One move laid by itself, as if nothing came before or after it: what a search knows of it. Reads a state and the
 * move, held against that; gives its stretch.
 */
import type { Case } from '../match/rule.ts'
import type { Result } from '../result/result.ts'
import type { PlanWay } from './install.ts'
import type { Laid, NoStretch } from './lay.ts'
import { effectOf, lay } from './lay.ts'
import { beginsAt } from './begin.ts'
import type { DeviceState } from './state.ts'

/** What it makes of the state, with nothing laid: quick enough for every package on every state. */
export const effectAlone = (main: Case, way: PlanWay) => effectOf({ parts: [], main, way })

export const layAlone = (state: DeviceState, main: Case, way: PlanWay): Result<Laid, NoStretch> =>
  lay(beginsAt(state), { parts: [], main, way })
