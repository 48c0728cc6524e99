/**
 * What stands on a partition, in blocks of 4 KiB: what was there before, an image's block, erased, or
 * torn (equal to neither). Reads a map and a change; gives the new map as runs in order, joined where
 * they continue each other.
 */

export const BLOCK_BYTES = 4096

/** What a block holds. `at` is the image's block that stands in the run's first block. */
export type Content =
  | { readonly kind: 'old' }
  | { readonly kind: 'erased' }
  | { readonly kind: 'torn' }
  | { readonly kind: 'image'; readonly image: string; readonly at: number }

/** A run of blocks from `from` to before `to`. */
export type Run = { readonly from: number; readonly to: number } & Content
export type BlockMap = readonly Run[]

/** A partition as it was: everything old. */
export const untouched = (blocks: number): BlockMap => [{ from: 0, to: blocks, kind: 'old' }]

/** The map with a run laid over it. Throws RangeError for a run outside of it: a caller's bug. */
export function lay(map: BlockMap, run: Run): BlockMap {
  const end = map.at(-1)?.to ?? 0
  if (run.from < 0 || run.to > end || run.from > run.to)
    throw new RangeError(`run ${run.from} to ${run.to} of ${end}`)
  if (run.from === run.to) return map
  const before = map.flatMap((one) => cut(one, one.from, Math.min(one.to, run.from)))
  const after = map.flatMap((one) => cut(one, Math.max(one.from, run.to), one.to))
  return joined([...before, run, ...after])
}

/** The part of a run between two blocks, its image going on where it is. */
function cut(run: Run, from: number, to: number): readonly Run[] {
  if (from >= to) return []
  if (run.kind !== 'image') return [{ ...run, from, to }]
  return [{ ...run, from, to, at: run.at + from - run.from }]
}

function joined(runs: readonly Run[]): BlockMap {
  const map: Run[] = []
  for (const run of runs) {
    const last = map.at(-1)
    if (last !== undefined && continues(last, run)) map[map.length - 1] = { ...last, to: run.to }
    else map.push(run)
  }
  return map
}

function continues(a: Run, b: Run): boolean {
  if (a.kind !== b.kind) return false
  if (a.kind !== 'image' || b.kind !== 'image') return true
  return a.image === b.image && b.at === a.at + a.to - a.from
}

/**
 * True when the blocks from `from` to before `to` are exactly this image's. `was` is the image that
 * stood there before: what was not written over is still its own.
 */
export function holds(
  map: BlockMap,
  image: string,
  from: number,
  to: number,
  was: string | undefined,
): boolean {
  const within = map.filter((run) => run.to > from && run.from < to)
  const reaches = (map.at(-1)?.to ?? 0) >= to
  return (
    reaches &&
    within.every((run) =>
      run.kind === 'image'
        ? run.image === image && run.at === run.from
        : run.kind === 'old' && was === image,
    )
  )
}

/** True while nothing was written over what was there. */
export const isUntouched = (map: BlockMap): boolean => map.every(({ kind }) => kind === 'old')
