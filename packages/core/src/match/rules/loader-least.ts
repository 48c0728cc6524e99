/**
 * The loader is not older than the package asks for: it is on it, the package brings it, or a part of the shelf that
 * is for this very device raises it first. A loader kept once is dead if its write is cut.
 */
import { effectOf } from '../../effect/effect.ts'
import type { Family } from '../../family/profile.ts'
import type { Shelved } from '../../firmware/manifest.ts'
import { paceOf } from '../../pace/pace.ts'
import type { Mark } from '../../verdict/verdict.ts'
import type { Case } from '../rule.ts'
import { rule } from '../rule.ts'
import { loaderIn } from '../../difference/loader-stays.ts'
import type { BoardValues } from '../targets.ts'
import { TARGET_FACTS, admits, targetsText } from '../targets.ts'
import { loadersOf } from '../shelf-index.ts'

export const loaderLeast = rule({
  id: 'state.loader.least',
  overruled: 'nobody',
  needs: ['loaderVersion'],
  sees: TARGET_FACTS,
  reads: ['shelf'],
  alike: (manifest) =>
    JSON.stringify([manifest.requires, loaderIn(manifest), targetsText(manifest)]),
  says: {
    fits: ['fits', 'here'],
    brings: ['fits', 'here', 'brings'],
    raise: ['fits-if', 'here', 'least', 'by'],
    old: ['does-not-fit', 'here', 'least'],
  },
  brought: ({ requires }, other) => (loaderIn(other) ?? 0) >= (requires.minLoader ?? Infinity),
  concerns: ({ shelved }) =>
    shelved.manifest.requires.minLoader !== undefined || loaderIn(shelved.manifest) !== undefined,
  check: ({ loaderVersion, ...board }, at) => {
    const here = Number(loaderVersion)
    const least = at.shelved.manifest.requires.minLoader ?? 0
    if (here >= least) return { say: 'fits', facts: { here } }
    const brings = loaderIn(at.shelved.manifest) ?? 0
    if (brings >= least)
      return { say: 'brings', facts: { here, brings }, marks: loaderMarks(at.family, at.shelved) }
    const first = raising(at, { least, most: at.shelved.manifest.requires.maxLoader }, board)
    if (first === undefined) return { say: 'old', facts: { here, least } }
    return {
      say: 'raise',
      facts: { here, least, by: first.manifest.title },
      marks: loaderMarks(at.family, first),
      remedy: { kind: 'along', first: first.key },
    }
  },
})

/**
 * The part package on the shelf that raises the loader just far enough, and not past what is taken: one target of it is for
 * this very board, and its bytes are not refuted.
 */
export function raising(
  { family, shelf }: Pick<Case, 'family' | 'shelf'>,
  { least, most = Infinity }: { readonly least: number; readonly most: number | undefined },
  board: BoardValues,
): Shelved | undefined {
  return loadersOf(shelf).find(
    ({ manifest, state }) =>
      manifest.family === family.id &&
      manifest.channel === 'stable' &&
      state !== 'refuted' &&
      (manifest.loaderVersion ?? 0) >= least &&
      (manifest.loaderVersion ?? 0) <= most &&
      manifest.targets.some((target) => admits(target, board)),
  )
}

/** A loader kept once is dead if its write is cut: the seconds of that write at the longest. */
function loaderMarks(family: Family, { manifest }: Shelved): readonly Mark[] {
  const image = manifest.images.find(({ role }) => role === 'loader')
  if (image === undefined || !family.keptOnce.includes('loader')) return [{ kind: 'irreversible' }]
  const bytes = image.size * manifest.scale
  const write = { kind: 'write', partition: image.partition, role: 'loader', bytes } as const
  const seconds = Math.ceil(paceOf(family, effectOf(family, write)).high)
  return [{ kind: 'risky', seconds }, { kind: 'irreversible' }]
}
