/**
 * Whether a route comes to what its owner wants, and what it misses of that. Reads an intent, what is on the device and
 * where the route ends; gives what is missed, the gravest first.
 */
import { bringsVariant } from '../match/adoption.ts'
import { standsOn } from '../match/stands.ts'
import { isOfRow, wantedBuild, wantedRow } from '../match/wanted.ts'
import { orderBuilds, readBuild } from '../build/grammar.ts'
import { settled } from '../device/identity.ts'
import type { DeviceState } from '../plan/state.ts'
import type { Cost } from './cost.ts'
import type { Shelved } from '../firmware/manifest.ts'

/** In the order in which they weigh. */
export const MISSES = ['data', 'variant', 'lock', 'build', 'release', 'patch-date'] as const
export type Miss = (typeof MISSES)[number]

/** How grave misses are together: each weighs more than all that are milder. */
export const weightOf = (misses: readonly Miss[]): number =>
  misses.reduce((sum, miss) => sum + 2 ** (MISSES.length - MISSES.indexOf(miss)), 0)

type Ended = { readonly shelved: Shelved; readonly cost: Cost; readonly end: DeviceState }

export function missesOf(start: DeviceState, route: Ended): readonly Miss[] {
  const { at } = start
  const { manifest } = route.shelved
  const missed: Readonly<Record<Miss, boolean>> = {
    data: at.keepData && route.cost.data > 0,
    variant: at.intent === 'variant-change' && missesVariant(start, route),
    lock: at.intent === 'relock' && settled(route.end.at.identity, 'bootLock') !== 'closed',
    build: manifest.build !== (wantedBuild(at) ?? manifest.build),
    release: missesRelease(start, route),
    'patch-date': missesDate(start, manifest.patchDate),
  }
  return MISSES.filter((one) => missed[one])
}

/** It brings no variant, or another one than was named; where none was named, the one that is on it already. */
function missesVariant(
  { at }: DeviceState,
  { shelved: { manifest } }: Pick<Ended, 'shelved'>,
): boolean {
  if (!bringsVariant(manifest)) return true
  const [region, carrier] = [settled(at.identity, 'region'), settled(at.identity, 'carrier')]
  const own = manifest.targets.filter(({ model }) => model === settled(at.identity, 'model'))
  const named = wantedRow(at)
  if (named !== undefined) return !isOfRow(own, named)
  return own.every(
    (one) =>
      (one.region === undefined || one.region === region) &&
      (one.carriers === undefined || one.carriers.includes(String(carrier ?? ''))),
  )
}

/** Its patch date goes back where it must not, or stays where it was to go back. */
function missesDate({ at }: DeviceState, patchDate: string): boolean {
  const here = settled(at.identity, 'patchDate')
  if (here === undefined) return false
  switch (at.intent) {
    case 'update':
    case 'preview':
      return patchDate < String(here)
    case 'downgrade':
      return patchDate >= String(here)
    case 'restore':
    case 'leave-channel':
    case 'relock':
    case 'service':
    case 'variant-change':
      return false
  }
}

/** The build is not the one, or of the side, that is wanted. */
function missesRelease(
  { at }: DeviceState,
  { shelved: { manifest } }: Pick<Ended, 'shelved'>,
): boolean {
  const { build: here, release } = standsOn(at)
  switch (at.intent) {
    case 'update':
      return here !== undefined && isNoNewer(at, manifest.build, here)
    case 'downgrade':
      return release !== undefined && manifest.release >= release
    case 'preview':
      return manifest.channel === 'stable'
    case 'leave-channel':
      return manifest.channel !== 'stable'
    case 'restore':
    case 'relock':
      return release !== undefined && manifest.release !== release
    case 'service':
    case 'variant-change':
      return false
  }
}

/** The same again is no update. */
const isNoNewer = (at: DeviceState['at'], build: string, here: string): boolean => {
  const order = orderOf(at, build, here)
  return order === 'older' || order === 'same'
}

function orderOf({ family }: DeviceState['at'], a: string, b: string) {
  const [one, other] = [readBuild(family.build, a), readBuild(family.build, b)]
  return one.ok && other.ok ? orderBuilds(family.build, one.value, other.value) : undefined
}
