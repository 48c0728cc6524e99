/**
 * The loader on the device is one that the package starts under. One that is too old may be raised
 * first by a part package of the shelf that fits; that makes "fits if", with the mark of its risk.
 */
import { effectOf } from '../../effect/effect.ts'
import type { Shelved } from '../../firmware/manifest.ts'
import { paceOf } from '../../pace/pace.ts'
import type { Mark } from '../../verdict/verdict.ts'
import type { Case, Rule } from '../rule.ts'

export const loader: Rule = {
  id: 'state.loader',
  needs: ['loaderVersion'],
  final: false,
  codes: [
    'fit.state.loader.fits',
    'fit.state.loader.raise',
    'fit.state.loader.old',
    'fit.state.loader.new',
    'fit.state.loader.back',
  ],
  check: ({ loaderVersion }, at) => {
    const { requires, loaderVersion: brings } = at.shelved.manifest
    const { minLoader, maxLoader } = requires
    if (minLoader === undefined && maxLoader === undefined && brings === undefined) return undefined
    const here = Number(loaderVersion)
    const facts = { here, least: minLoader ?? '', most: maxLoader ?? '', brings: brings ?? '' }
    if (brings !== undefined && brings < here)
      return { verdict: 'does-not-fit', code: 'fit.state.loader.back', facts }
    if (maxLoader !== undefined && here > maxLoader)
      return { verdict: 'does-not-fit', code: 'fit.state.loader.new', facts }
    if (brings !== undefined && brings > here)
      return {
        verdict: 'fits',
        code: 'fit.state.loader.fits',
        facts,
        marks: marksOf(at, at.shelved),
      }
    if (minLoader === undefined || here >= minLoader)
      return { verdict: 'fits', code: 'fit.state.loader.fits', facts }
    const first = raising(at, minLoader)
    if (first === undefined) return { verdict: 'does-not-fit', code: 'fit.state.loader.old', facts }
    return {
      verdict: 'fits-if',
      code: 'fit.state.loader.raise',
      facts: { ...facts, by: first.manifest.title },
      marks: marksOf(at, first),
      remedy: first.key,
    }
  },
}

/** The part package on the shelf that raises the loader just far enough, whose bytes are not refuted. */
export function raising(at: Case, least: number): Shelved | undefined {
  const targets = new Set(at.shelved.manifest.targets.flatMap(({ boards }) => boards))
  const able = at.shelf.filter(
    ({ manifest, state }) =>
      manifest.kind === 'part' &&
      state !== 'refuted' &&
      (manifest.loaderVersion ?? 0) >= least &&
      manifest.targets.some(({ boards }) => boards.some((board) => targets.has(board))),
  )
  return [...able].sort(
    (a, b) => (a.manifest.loaderVersion ?? 0) - (b.manifest.loaderVersion ?? 0),
  )[0]
}

/** A loader kept once is dead if its write is cut: the seconds of that write at the longest. */
function marksOf(at: Case, { manifest }: Shelved): readonly Mark[] {
  const image = manifest.images.find(({ role }) => role === 'loader')
  if (image === undefined || !at.family.keptOnce.includes('loader'))
    return [{ kind: 'irreversible' }]
  const bytes = image.size * manifest.scale
  const write = { kind: 'write', partition: image.partition, role: 'loader', bytes } as const
  const seconds = Math.ceil(paceOf(at.family, effectOf(at.family, write)).high)
  return [{ kind: 'risky', seconds }, { kind: 'irreversible' }]
}
