/**
 * The table that a family gives a device, kept: a whole shelf is judged on one. Reads a family and what is known of the
 * device; gives the table where none was read, and the first difference of a read one from what family and package give.
 */
import type { FactValue } from '../device/identity.ts'
import type { LaidOut } from '../family/layout.ts'
import {
  assumedTable,
  familyTable,
  layoutOf,
  mibOf,
  partitionsOf,
  typeBytes,
} from '../family/layout.ts'
import type { Family } from '../family/profile.ts'
import type { Difference, Table } from '../layout/table.ts'
import type { Layout } from '../layout/wanted.ts'
import { compareLayout } from '../layout/wanted.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Ground } from './rule.ts'

/** What a layout goes by. */
export const TABLE_FACTS = ['storageGb', 'model', 'board'] as const
export type About = Readonly<Partial<Record<(typeof TABLE_FACTS)[number], FactValue>>>

const made = new WeakMap<Family, Map<string, Table>>()
const compared = new WeakMap<Table, WeakMap<Family, Map<string, First>>>()

/**
 * The table of such a device at a package's scale, on a flash of so many bytes, or of any with room for it.
 * Undefined while its storage is not known, or where the family names no sizes for it.
 */
export function tableFor(
  { family, shelved }: Ground,
  { storageGb, model, board }: About,
  diskBytes?: number,
): Table | undefined {
  if (storageGb === undefined) return undefined
  const about = aboutOf(storageGb, model, board)
  const { scale } = shelved.manifest
  const known = made.get(family) ?? new Map<string, Table>()
  made.set(family, known)
  const key = `${model ?? ''} ${board ?? ''} ${storageGb} ${scale} ${diskBytes ?? ''}`
  const kept = known.get(key)
  if (kept !== undefined || !isSized(family, about)) return kept
  const table =
    diskBytes === undefined
      ? assumedTable(family, about, scale)
      : familyTable(family, about, scale, diskBytes)
  known.set(key, table)
  return table
}

const aboutOf = (
  storageGb: FactValue,
  model: FactValue | undefined,
  board: FactValue | undefined,
): LaidOut => ({
  storageGb: Number(storageGb),
  ...(model === undefined ? {} : { model: String(model) }),
  ...(board === undefined ? {} : { board: String(board) }),
})

/** Whether the family says how large every part of such a device is. */
const isSized = (family: Family, about: LaidOut): boolean =>
  family.partitions.every(
    ({ name, mib }) =>
      mib === 'rest' ||
      mibOf(family, name, about) !== undefined ||
      !partitionsOf(family, about).some((one) => one.name === name),
  )

/** The layout that the family gives such a device at a package's scale. */
export const layoutFor = (
  { family, shelved }: Ground,
  { storageGb, model, board }: About,
): Layout | undefined =>
  storageGb === undefined
    ? undefined
    : layoutOf(family, aboutOf(storageGb, model, board), shelved.manifest.scale)

/** The first difference of a table that was read from what the family gives such a device. */
export function firstDifference(
  ground: Ground,
  table: Table,
  about: About,
): Difference | undefined {
  const { storageGb, model, board } = about
  const key = `${ground.family.id} ${ground.shelved.manifest.scale} ${storageGb ?? ''} ${model ?? ''} ${board ?? ''}`
  const ofTable = compared.get(table) ?? new WeakMap<Family, Map<string, First>>()
  compared.set(table, ofTable)
  const ofFamily = ofTable.get(ground.family) ?? new Map<string, First>()
  ofTable.set(ground.family, ofFamily)
  const known = ofFamily.get(key) ?? { first: firstOf(table, layoutFor(ground, about)) }
  ofFamily.set(key, known)
  return known.first
}

type First = { readonly first: Difference | undefined }
const firstOf = (table: Table, layout: Layout | undefined): Difference | undefined =>
  layout === undefined ? undefined : compareLayout(table, layout)[0]

/** The layout that a package says it is made for; undefined: it says none. */
function layoutIn({ layout }: Manifest): Layout | undefined {
  if (layout === undefined) return undefined
  const partitions = layout.partitions.map(({ name, bytes, startBytes, type }) => ({
    name,
    bytes,
    startBytes,
    ...(type === undefined ? {} : { type: typeBytes(type) }),
  }))
  return { partitions, alignBytes: layout.alignBytes }
}

/** The first difference of a table from the layout that a package says it is made for; undefined: none, or it says none. */
export function differsFromPackage(manifest: Manifest, table: Table): Difference | undefined {
  const layout = layoutIn(manifest)
  return layout === undefined ? undefined : compareLayout(table, layout)[0]
}

/**
 * The layout that a device whose table nobody read must turn out to have: the family's, with what the package says of the
 * same partitions where the family is silent. A package that names others than the family is the package's own.
 */
export function wantedLayout(ground: Ground, about: About): Layout | undefined {
  const own = layoutFor(ground, about)
  const made = layoutIn(ground.shelved.manifest)
  if (own === undefined || made === undefined) return own ?? made
  const names = ({ partitions }: Layout) => partitions.map(({ name }) => name).join('\n')
  if (names(own) !== names(made)) return made
  const partitions = own.partitions.map((one, at) => ({ ...made.partitions[at], ...stated(one) }))
  return { ...made, partitions } as Layout
}

const stated = <Value extends object>(one: Value): Partial<Value> =>
  Object.fromEntries(
    Object.entries(one).filter(([, value]) => value !== undefined),
  ) as Partial<Value>
