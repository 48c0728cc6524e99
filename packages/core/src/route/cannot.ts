/**
 * Why nothing goes the way that is wished: of the packages that would be it, the one that serves best, and what is gravest
 * against it. Reads where a device stands and the routes that were found; gives that, or nothing where a route reaches the wish.
 */
import type { Shelved } from '../firmware/manifest.ts'
import { inOrder, isAim, judge } from '../match/judge.ts'
import type { Move } from '../plan/moves.ts'
import { aimOf } from '../plan/moves.ts'
import type { DeviceState } from '../plan/state.ts'
import type { Finding } from '../verdict/verdict.ts'
import { NO_COST } from './cost.ts'
import type { Miss } from './wish.ts'
import { missesOf } from './wish.ts'

/** `aim` undefined: no package that is known would be it. `finding` undefined: it fits, and no way leads there. */
export type Cannot = {
  readonly aim: Shelved | undefined
  readonly finding: Finding | undefined
}

/** It is for another model, board, region or carrier. */
const isOfAnother = ({ rule, verdict }: Finding): boolean =>
  rule.startsWith('identity.') && verdict === 'does-not-fit'

/** What a package alone decides of a wish. */
const OF_PACKAGES: readonly Miss[] = ['variant', 'build', 'release', 'patch-date']

export function whyCannot(
  start: DeviceState,
  routes: readonly { readonly misses: readonly Miss[]; readonly moves: readonly Move[] }[],
): Cannot | undefined {
  if (routes.some(({ misses }) => misses.length === 0)) return undefined
  const { at } = start
  const isWished = (shelved: Shelved) =>
    !missesOf(start, { shelved, cost: NO_COST, end: start }).some((one) =>
      OF_PACKAGES.includes(one),
    )
  const wished = at.shelf.filter((one) => isAim(at, one) && isWished(one))
  /* A route that ends in one says itself what it misses. */
  const ends = new Set(routes.map(({ moves }) => aimOf(moves)?.pack))
  if (wished.some(({ key }) => ends.has(key))) return undefined
  const judged = wished.map((shelved) => judge({ ...at, shelved }))
  /* One that is for another device or row says little of what keeps this one from it. */
  const own = judged.filter(({ findings }) => !findings.some(isOfAnother))
  const [best] = inOrder(at, own.length > 0 ? own : judged)
  if (best === undefined) return { aim: undefined, finding: undefined }
  const [gravest] = best.findings
  return { aim: best.shelved, finding: gravest?.verdict === 'fits' ? undefined : gravest }
}
