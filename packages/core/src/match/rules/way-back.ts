/**
 * There is a way back, and it is here before anything is written: a full package of the build that is on it, for this
 * very device, not below what the hardware accepts.
 */
import type { FactValue } from '../../device/identity.ts'
import { generationFor } from '../../firmware/manifest.ts'
import type { Manifest, Shelved } from '../../firmware/manifest.ts'
import { RISES } from '../../family/rules.ts'
import type { PartRole } from '../../terms/device.ts'
import type { Case } from '../rule.ts'
import { fullOf } from '../shelf-index.ts'
import { rule } from '../rule.ts'
import type { BoardValues } from '../targets.ts'
import { TARGET_FACTS, admits, isForRow } from '../targets.ts'

export const wayBack = rule({
  id: 'promise.way-back',
  overruled: 'anyone',
  sees: ['build', 'region', 'carrier', 'floor', 'floorModem', 'floorMain', ...TARGET_FACTS],
  reads: ['shelf'],
  says: {
    here: ['fits', 'by'],
    closes: ['fits', 'by', 'when'],
    unvouched: ['fits-if', 'by'],
    fetch: ['fits-if', 'by'],
    none: ['fits-if', 'build'],
  },
  concerns: ({ shelved }) => shelved.manifest.kind !== 'part',
  check: ({ build, region, carrier, floor, floorModem, floorMain, ...board }, at) => {
    /* What does not say what is on it has nothing to go back to. */
    if (build === undefined) return undefined
    const floors = { all: floor, modem: floorModem, main: floorMain }
    const back = packageOf(at, { build: String(build), region, carrier, board, floors })
    if (back === undefined) return { say: 'none', facts: { build } }
    const facts = { by: back.manifest.title }
    if (back.state === 'known') return { say: 'fetch', facts, remedy: { kind: 'fetch' } }
    if (back.state !== 'published') return { say: 'unvouched', facts, remedy: { kind: 'publish' } }
    const when = closedBy(at, back)
    return when === undefined
      ? { say: 'here', facts }
      : { say: 'closes', facts: { ...facts, when } }
  },
})

/** The first moment at which this package raises a floor over the way back; undefined: it stays open. */
function closedBy({ family, shelved }: Pick<Case, 'family' | 'shelved'>, back: Shelved) {
  const of = (manifest: Manifest, role: PartRole) => generationFor(manifest, role)
  const raised = family.floors.rules.filter(({ roles }) =>
    shelved.manifest.images.some(
      ({ role }) =>
        role !== 'loader' &&
        (roles === 'any' || roles.includes(role)) &&
        of(shelved.manifest, role) > of(back.manifest, role),
    ),
  )
  const moments = raised.flatMap(({ rises }) => rises)
  return RISES.find((moment) => moments.includes(moment))
}

export type OnIt = {
  readonly build: string
  readonly region: string | number | undefined
  readonly carrier: string | number | undefined
  readonly board: BoardValues
  /** What the hardware still accepts, of the whole or of parts. A loader that is older stays off, and counts for nothing. */
  readonly floors: Readonly<Partial<Record<'all' | PartRole, FactValue | undefined>>>
}

const RANK: readonly string[] = ['published', 'whole', 'known']

/** The package of the build that is on a device, of its board and row, the best vouched for first. */
export function packageOf(
  { family, shelf }: Pick<Case, 'family' | 'shelf'>,
  { build, region, carrier, board, floors }: OnIt,
): Shelved | undefined {
  const own = fullOf(shelf, build).filter(
    ({ manifest, state }) =>
      manifest.family === family.id &&
      state !== 'refuted' &&
      manifest.images.every(
        ({ role }) =>
          role === 'loader' ||
          generationFor(manifest, role) >= Number(floors.all ?? floors[role] ?? 0),
      ) &&
      manifest.targets.some(
        (target) =>
          admits(target, board) &&
          (region === undefined || isForRow(target, region, carrier ?? '')),
      ),
  )
  return [...own].sort(
    (a, b) => RANK.indexOf(a.state) - RANK.indexOf(b.state) || a.key.localeCompare(b.key),
  )[0]
}
