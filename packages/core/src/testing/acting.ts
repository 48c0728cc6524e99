/** Devices to which something is done without a package, and all that the rules of acts say of them. */
import type { Family } from '../family/profile.ts'
import type { Case } from '../match/rule.ts'
import type { MoveAct } from '../terms/device.ts'
import { alder, benchOf, caseOf, fen } from './families.ts'
import { onTablet, open as openBuild, sold, tablet } from './judged.ts'

/** A case as an act is held against it. */
const acting = (act: MoveAct, at: Case): Case => ({ ...at, act })

const phoneIn = (family: Family, lock: 'open' | 'closed', more: Partial<Case> = {}): Case =>
  caseOf(benchOf({ family, on: openBuild, more: { lock } }), openBuild, more)

/** A phone of no carrier's, its lock closed or open. */
const unlocked = phoneIn(alder, 'open')
export const shut = phoneIn(alder, 'closed')
/** One of a carrier whose devices nobody opens. */
const carriers = ((): Case => {
  const bench = benchOf({ family: alder, on: sold })
  const { fused } = bench.device
  return caseOf({ ...bench, device: { ...bench.device, fused: { ...fused, carrier: 'S' } } }, sold)
})()

/** The same family, its lock nobody but the maker's, or keeping parts while it is closed. */
const keeping = (family: Family): Family => ({
  ...family,
  lock: { ...family.lock, keeps: ['main'] },
})
const keepsShut = phoneIn(keeping(alder), 'closed')
const keepsOpen = phoneIn(keeping(alder), 'open')
const makersOnly: Family = { ...alder, lock: { opens: 'maker-only', keeps: ['main'] } }
const keepsMakers = phoneIn(makersOnly, 'closed')

/** A tablet that closing and opening both wipe, with and without data to lose; and one that keeps them. */
const tabletLosing: Case = { ...tablet('none'), keepData: false }
const mild: Family = {
  ...fen,
  lock: {
    opens: 'command',
    neverOn: [],
    greyedDays: 0,
    opening: 'keeps',
    closing: [],
    closesOver: [],
  },
}
const tabletMild = caseOf(benchOf({ family: mild, on: onTablet }), onTablet)

/** The same phone of whose switch somebody read how it is. */
export const switchedAt = (value: string): Case => ({
  ...acting('open', shut),
  identity: {
    ...shut.identity,
    lockSwitch: { kind: 'settled', value, claims: [], doubted: false },
  },
})

/** The same with a package that asks for an open lock, whatever it writes. */
const asksOpen = (at: Case): Case => ({
  ...at,
  shelved: { ...at.shelved, manifest: { ...at.shelved.manifest, requires: { openLock: true } } },
})
const makersShut = phoneIn({ ...alder, lock: { opens: 'maker-only' } }, 'closed')

/** Everything that is said of what is done, and of what a closed lock keeps. */
export const ACTS_SAID: readonly (readonly [rule: string, say: string, at: Case])[] = [
  ['state.lock-open', 'open', keepsOpen],
  ['state.lock-open', 'closed', keepsShut],
  ['state.lock-open', 'maker', keepsMakers],
  ['state.lock-open', 'asked', asksOpen(shut)],
  ['state.lock-open', 'never', asksOpen(makersShut)],
  ['act.open', 'allowed', switchedAt('on')],
  ['act.open', 'switch', acting('open', tablet('none'))],
  ['act.open', 'greyed', switchedAt('greyed')],
  ['act.open', 'never', acting('open', carriers)],
  ['act.open', 'maker', acting('open', keepsMakers)],
  ['act.open', 'open', acting('open', unlocked)],
  ['act.merge', 'none', acting('open', tablet('none'))],
  ['act.merge', 'staged', acting('close', tablet('staged'))],
  ['act.merge', 'merging', acting('close', tablet('merging'))],
  ['act.data', 'keeps', acting('open', tabletMild)],
  ['act.data', 'opening', acting('open', tabletLosing)],
  ['act.data', 'closing', acting('close', tabletLosing)],
  ['act.data', 'reset', acting('reset', tabletLosing)],
  ['act.data', 'opening-loses', acting('open', shut)],
  ['act.data', 'closing-loses', acting('close', shut)],
  ['act.data', 'reset-loses', acting('reset', shut)],
]
