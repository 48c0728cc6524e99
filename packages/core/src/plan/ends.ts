/**
 * How a plan ends: the first start, the set-up after a wipe, the proof; and where the boot lock is to be
 * closed, that and the start that proves it. Reads a road so far; gives it to its end.
 */
import { effectOf, lockChange } from '../effect/effect.ts'
import { isFrom } from '../family/builds.ts'
import { modeOfKind } from '../family/modes.ts'
import { waysTo } from '../modes/ways.ts'
import type { Mode, Slot } from '../terms/device.ts'
import type { Road } from './road.ts'
import { adding, enterStep, to } from './road.ts'
import type { Expected, StepBody } from './step.ts'

/** `mode`: where hands find it, where that is no start of the system. */
export const byHand = (
  { handSeconds }: Pick<Road, 'handSeconds'>,
  what: 'reset' | 'set-up' | 'confirm' | 'lock-switch',
  say: string,
  mode?: Mode,
): StepBody => ({
  kind: 'by-hand',
  what,
  say,
  ...(mode === undefined ? {} : { mode }),
  /* A switch is found where the permission is, and takes as long. */
  seconds: handSeconds[what === 'lock-switch' ? 'permission' : what],
})

/** The slot that is to be started, where one was written that does not run. */
export function tried(road: Road, slot: Slot | undefined): Road | undefined {
  if (slot === undefined) return road
  const there = to(road, 'slot')
  if (there === undefined) return undefined
  const { clearsPermission } = effectOf(road.family, { kind: 'slot', slot })
  const told = adding(there, { kind: 'slot', mode: there.here, slot })
  return { ...told, permission: told.permission && !clearsPermission }
}

/** `written`: parts of it were written over the cable, after which some builds ask for a key. */
type Starting = {
  readonly wiped: boolean
  readonly expect: Expected
  readonly written: boolean
}

/** The first start and its proof; after a wipe somebody goes through the set-up in between. */
export function started(road: Road, { wiped, expect, written }: Starting): Road {
  const system = modeOfKind(road.family, 'system')
  const ways = waysTo(road.family, road.here, system, true) ?? []
  const last = ways.at(-1)
  const before = ways.slice(0, -1).map((way) => enterStep(road.family, way))
  const by = last?.hands === true ? { by: last } : {}
  const start: StepBody = { kind: 'first-start', to: system, wiped, ...by }
  const { goOn } = road.family
  const asks = goOn !== undefined && written && isFrom(road.family, expect.build, goOn.from)
  const goesOn: readonly StepBody[] = asks
    ? [{ kind: 'by-hand', what: 'go-on', say: goOn.say, mode: system, seconds: goOn.seconds }]
    : []
  const setUp = wiped ? [byHand(road, 'set-up', road.family.permission.what)] : []
  const proof: StepBody = { kind: 'prove', expect, wiped }
  const steps = [...before, start, ...goesOn, ...setUp, proof]
  return { ...adding(road, ...steps), here: system, permission: true }
}

/**
 * The boot lock closed after a proven start, and proven by a second one: with the reset that the family asks
 * for then. Undefined: no way leads to a mode that closes it.
 */
export function locked(
  road: Road,
  { model, expect }: { readonly model: string; readonly expect: Expected },
): Road | undefined {
  const { family } = road
  const there = to(road, 'lock')
  if (there === undefined) return undefined
  const change = lockChange(family, 'closed', model)
  const closed = adding(there, { kind: 'lock', mode: there.here, to: 'closed', model })
  if (change === 'unreadable') return resetAfter({ ...closed, permission: false }, expect)
  return started(closed, { wiped: change === 'wipes', expect, written: false })
}

/** Its next start asks for a reset: somebody makes it there, and goes through the set-up. */
function resetAfter(road: Road, expect: Expected): Road {
  const { family } = road
  const system = modeOfKind(family, 'system')
  return {
    ...adding(
      road,
      { kind: 'first-start', to: system, wiped: true },
      byHand(road, 'reset', ''),
      byHand(road, 'set-up', family.permission.what),
      { kind: 'prove', expect, wiped: true },
    ),
    here: system,
    permission: true,
  }
}
