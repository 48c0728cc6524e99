/**
 * Every field of a profile moves something that a technician sees: each is changed alone, and some claim or end
 * state is another, or nothing else may stand there. A field that moves nothing has no place in a profile. Of fields that
 * lists repeat, a few of each are held, of the seed's choosing: `npm run measure` holds all.
 */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import type { Scenery } from '../testing/claims.ts'
import { packagesIn } from '../testing/claims-installs.ts'
import { CLAIMS, planOf, wishes } from '../testing/claims.ts'
import { alder, benchOf, fen, modifiedOf, packageOf } from '../testing/families.ts'
import { archived, image } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import { chances } from '../units/chances.ts'
import { catalogueOf } from '../twin/images.ts'
import type { Family } from '../family/profile.ts'
import { familySchema } from '../family/file.ts'

const SEED = Number(process.env['SEED'] ?? 20261015)
/** So many of each field are held, in a family. */
const EACH = Number(process.env['MOVES_EACH'] ?? 2)

type Path = readonly (string | number)[]

/** Every value of a profile that is no object: where it stands. */
function leavesOf(value: unknown, path: Path = []): readonly Path[] {
  if (typeof value !== 'object' || value === null) return [path]
  return Object.entries(value).flatMap(([key, one]) =>
    leavesOf(one, [...path, Array.isArray(value) ? Number(key) : key]),
  )
}

function changed(value: unknown, [first, ...rest]: Path, to: unknown): unknown {
  if (first === undefined) return to
  if (Array.isArray(value))
    return value.map((one: unknown, index) => (index === first ? changed(one, rest, to) : one))
  const record = value as Readonly<Record<string, unknown>>
  return { ...record, [first]: changed(record[first], rest, to) }
}

const at = (value: unknown, path: Path): unknown =>
  path.reduce<unknown>((so, key) => (so as Readonly<Record<string | number, unknown>>)[key], value)

/** The name of what stands at a path: of a list it is the list's. */
const keyOf = (path: Path): string => String(path.findLast((key) => typeof key === 'string') ?? '')

/** Of each field, whatever lists it stands in, so many of the seed's choosing. */
function someOf(paths: readonly Path[]): readonly Path[] {
  const random = chances(SEED)
  const byField = new Map<string, Path[]>()
  for (const path of paths) {
    const field = path.filter((key) => typeof key === 'string').join('.')
    byField.set(field, [...(byField.get(field) ?? []), path])
  }
  return [...byField.values()].flatMap((alike) =>
    alike
      .map((path) => ({ path, at: random() }))
      .sort((a, b) => a.at - b.at)
      .slice(0, EACH)
      .map(({ path }) => path),
  )
}

/** Every value that stands at a name, in any of the three. */
const ALIKE = new Map<string, unknown[]>()
for (const family of [tarn, alder, fen])
  for (const path of leavesOf(family)) {
    const known = ALIKE.get(keyOf(path)) ?? []
    const value = at(family, path)
    if (!known.includes(value)) ALIKE.set(keyOf(path), [...known, value])
  }

/** Other values that may stand there: the schema says which do. */
function othersOf(value: unknown, path: Path): readonly unknown[] {
  if (typeof value === 'boolean') return [!value]
  const alike = (ALIKE.get(keyOf(path)) ?? []).filter((one) => one !== value)
  if (typeof value === 'number') return [...alike, value * 2, 0, value + 1, value - 1]
  return [...alike, `${String(value)} changed`, 'X', '?']
}

type Maker = {
  readonly family: Family
  readonly on: Manifest
  readonly aims: readonly (Partial<Manifest> & Pick<Manifest, 'build'>)[]
}

const MAKERS: readonly Maker[] = [
  {
    family: tarn,
    on: packageOf(tarn, {
      model: 'BRAK-H2K',
      board: 'r4',
      build: 'H2.0ZC.r4',
      release: 4,
      requires: { minLoader: 30 },
    }),
    aims: [{ build: 'H2.0Y0.r4', release: 3 }],
  },
  {
    family: alder,
    on: packageOf(alder, {
      model: 'CORV-4N',
      board: 'B1',
      build: '20-2638.0-HO',
      release: 20,
      patchDate: '2026-09-01',
      generation: 3,
      requires: { minLoader: 30, maxLoader: 33 },
    }),
    aims: [{ build: '19-2620.1-HO', release: 19, patchDate: '2026-05-01' }],
  },
  {
    family: fen,
    on: packageOf(fen, {
      model: 'OSTR-11C',
      board: 'g1',
      build: 'FEN-26.20B-T',
      release: 8,
      patchDate: '2026-09-01',
      generation: 4,
      track: 'T',
    }),
    aims: [
      { build: 'FEN-26.20C-S', track: 'S' },
      { build: 'FEN-26.19A-T', release: 7 },
    ],
  },
]

/** The family with a device, and images that are another's, its owner's, or of another row and chipset. */
function sceneryOf({ on, aims }: Maker, family: Family): Scenery {
  const targets = on.targets.map((one) => ({ ...one, region: 'ML', chipset: 'another' }))
  const images = on.images.map((one) => ({ ...one, sha256: `foreign ${one.role}` }))
  const foreign = { ...on, targets, images }
  const other = packageOf(family, { ...modelOf(on), build: 'another', loaderVersion: 3 })
  const packages = aims.map((one) =>
    archived({
      ...on,
      ...one,
      id: one.build,
      archives: [{ file: `${one.build}.tar` }],
      images: on.images.map(({ role }) => image(role, one.build)),
    }),
  )
  const own = on.images.map(({ role }) => modifiedOf(on, role))
  const more = { lock: 'open' as const }
  const bench = benchOf({ family, on, more })
  const catalogue = new Map([
    ...bench.nature.catalogue,
    ...catalogueOf([foreign, other, ...packages]),
    ...own.map((one) => [one.image, one] as const),
  ])
  const nature = { ...bench.nature, catalogue, packages: packagesIn(bench, packages) }
  return {
    bench: { ...bench, nature },
    aims: packages,
  }
}

const modelOf = ({ targets }: Manifest) => ({
  model: targets[0]?.model ?? '',
  board: targets[0]?.boards[0] ?? '',
})

/** A claim as text; what cannot be claimed is why. */
function told(claim: () => unknown): string {
  const plain = (_: string, value: unknown) =>
    value instanceof Map ? [...value] : typeof value === 'bigint' ? String(value) : value
  try {
    return JSON.stringify([claim()], plain)
  } catch (error) {
    return String(error)
  }
}

describe.each(MAKERS)('a field of $family.id', (maker) => {
  const { family } = maker
  const base = sceneryOf(maker, family)
  /* The quickest are held first, and before them what a value of that name moved already. */
  const before = Object.entries(CLAIMS)
    .map(([name, claim]) => {
      const began = performance.now()
      return { name, claim, text: told(() => claim(base)), took: performance.now() - began }
    })
    .sort((a, b) => a.took - b.took)
  const moved = new Map<string, (typeof before)[number]>()

  /** The claim that another value at a place moves; undefined: some other value moves none. */
  function movedBy(path: Path): string | undefined {
    let taken = false
    for (const other of othersOf(at(family, path), path)) {
      const parsed = familySchema.safeParse(changed(family, path, other))
      if (!parsed.success) continue
      const scenery = sceneryOf(maker, parsed.data)
      const known = moved.get(keyOf(path))
      const first = known === undefined ? [] : [known]
      const mover = [...first, ...before].find(
        ({ claim, text }) => told(() => claim(scenery)) !== text,
      )
      if (mover !== undefined) {
        moved.set(keyOf(path), mover)
        return mover.name
      }
      taken = true
    }
    return taken ? undefined : 'nothing else may stand there'
  }

  it('has plans and claims to move', () => {
    const plans = wishes(base).map((one) => planOf(base.bench, one))
    for (const [index] of maker.aims.entries()) expect(plans[index]).toMatchObject({ ok: true })
    expect(before.filter(({ text }) => text.startsWith('RangeError'))).toEqual([])
  })

  it('moves a claim or an end state', () => {
    const idle = someOf(leavesOf(family)).filter((path) => movedBy(path) === undefined)
    expect(idle.map((path) => path.join('.'))).toEqual([])
  }, 300_000)
})
