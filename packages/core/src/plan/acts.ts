/**
 * What is done without a package, laid as steps: an update of its own waited for or taken back, the boot lock opened or
 * closed, a reset made by hand. Reads a state and a road so far; gives the road on and the state after it.
 */
import { settled } from '../device/identity.ts'
import { lockChange } from '../effect/effect.ts'
import { modeOfKind } from '../family/modes.ts'
import { takesData } from '../match/rules/act-data.ts'
import type { MoveAct } from '../terms/device.ts'
import { beginsAt } from './begin.ts'
import { byHand, locked } from './ends.ts'
import type { Aim } from './expected.ts'
import { expectedOf } from './expected.ts'
import type { Road } from './road.ts'
import { adding, to, toMode } from './road.ts'
import type { DeviceState, MovedFact } from './state.ts'
import { moved } from './state.ts'
import type { Expected } from './step.ts'

/** `expect`: what it promises where it proves anything. */
export type Done = {
  readonly road: Road
  readonly state: DeviceState
  readonly expect: Expected | undefined
}

/** An act as if nothing came before it; undefined: there is nothing to be done, or no way leads there. */
export const actAlone = (state: DeviceState, act: MoveAct): Done | undefined =>
  layAct(beginsAt(state), state, act)

/** Lays an act on from a road. */
export function layAct(begin: Road, state: DeviceState, act: MoveAct): Done | undefined {
  switch (act) {
    case 'wait':
    case 'take-back':
      return updateEnded(begin, state, act)
    case 'open':
      return opened(begin, state)
    case 'close':
      return closed(begin, state)
    case 'reset':
      return emptied(begin, state)
  }
}

const factOf = ({ at }: DeviceState, fact: MovedFact) => settled(at.identity, fact)

/** The state with other facts, where the road has come to. */
const after = (
  state: DeviceState,
  { here, permission }: Road,
  facts: Parameters<typeof moved>[1],
  data: 'gone' | 'new' | undefined = state.at.data,
): DeviceState => ({
  ...state,
  at: {
    ...state.at,
    ...(data === undefined ? {} : { data }),
    identity: moved(state.at.identity, facts),
  },
  mode: here,
  permission,
})

/** One that merges is waited for in the system, one that is only staged is taken back in the rescue. */
function updateEnded(begin: Road, state: DeviceState, act: 'wait' | 'take-back'): Done | undefined {
  const { family } = state.at
  const [from, kind] =
    act === 'wait' ? (['merging', 'system'] as const) : (['staged', 'rescue'] as const)
  if (factOf(state, 'merge') !== from) return undefined
  const mode = family.modes.find((one) => one.kind === kind && one.takes.merge !== undefined)?.id
  const there = mode === undefined ? undefined : toMode(begin, mode)
  if (there === undefined || mode === undefined) return undefined
  const step = { kind: 'merge', mode, do: act === 'wait' ? 'wait' : 'cancel' } as const
  /* Met again in the mode that writes: what is looked at there was not looked at here. */
  const road = { ...adding(there, step), met: false }
  return { road, state: after(state, road, { merge: 'none' }), expect: undefined }
}

const modelOf = ({ at }: DeviceState): string => String(settled(at.identity, 'model') ?? '')

/** The switch that its owner sets, then the command; what comes next starts it. */
function opened(begin: Road, state: DeviceState): Done | undefined {
  const { family } = state.at
  if (factOf(state, 'bootLock') === 'open') return undefined
  const system = toMode(begin, modeOfKind(family, 'system'))
  const switched = system && adding(system, byHand(system, 'lock-switch', '', system.here))
  const there = switched && to(switched, 'lock')
  if (there === undefined) return undefined
  const model = modelOf(state)
  const wipes = lockChange(family, 'open', model) !== 'keeps'
  const turned = adding(there, { kind: 'lock', mode: there.here, to: 'open', model })
  const permission = turned.permission && !(wipes && family.permission.clearedBy.includes('wipe'))
  const road = { ...turned, permission, met: false }
  const data = wipes ? 'gone' : state.at.data
  return { road, state: after(state, road, { bootLock: 'open' }, data), expect: undefined }
}

/** What was put on, on the device as it is now. */
const now = (state: DeviceState): Aim | undefined =>
  state.onto && { ...state.onto, at: { ...state.onto.at, identity: state.at.identity } }

function closed(begin: Road, state: DeviceState): Done | undefined {
  const aim = now(state)
  if (aim === undefined || factOf(state, 'bootLock') !== 'open') return undefined
  const model = modelOf(state)
  const expect = { ...expectedOf(aim, ['lock']), bootLock: 'closed' as const }
  const road = locked(begin, { model, expect })
  if (road === undefined) return undefined
  const data = takesData(state.at.family, 'close', model) ? 'new' : state.at.data
  const { limits: _, ...facts } = expect
  return { road, state: after(state, road, facts, data), expect }
}

/** After a package that started: by hand in its settings, then the set-up. */
function emptied(begin: Road, state: DeviceState): Done | undefined {
  const aim = now(state)
  const { family, data } = state.at
  const there = aim && toMode(begin, modeOfKind(family, 'system'))
  if (aim === undefined || there === undefined || data !== undefined) return undefined
  const lock = factOf(state, 'bootLock')
  const expect: Expected = {
    ...expectedOf(aim, []),
    ...(lock === 'closed' ? { bootLock: lock } : {}),
  }
  const road = {
    ...adding(
      there,
      byHand(there, 'reset', '', there.here),
      byHand(there, 'set-up', family.permission.what),
      { kind: 'prove', expect, wiped: true },
    ),
    permission: true,
  }
  return { road, state: after(state, road, {}, 'new'), expect }
}
