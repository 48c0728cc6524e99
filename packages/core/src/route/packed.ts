/**
 * A state as JSON, for a browser that judges by itself, and back. What is big is parsed by its own schema where it
 * arrives. Reads a state; gives text-safe data; throws ZodError on a family or a manifest that is none.
 */
import { familySchema } from '../family/file.ts'
import { manifestSchema, PACKAGE_STATES } from '../firmware/manifest.ts'
import type { Partition, Table } from '../layout/table.ts'
import { houseSchema } from '../match/house.ts'
import type { Unheld } from '../match/rule.ts'
import type { DeviceState } from '../plan/state.ts'

/** A table without the one figure of it that JSON does not take. */
type PackedTable = Omit<Table, 'partitions'> & {
  readonly partitions: readonly (Omit<Partition, 'attributes'> & { readonly attributes: string })[]
}
type Packed = Omit<Unheld, 'evidence' | 'lines' | 'overruled' | 'table'> & {
  readonly table: PackedTable | null
  readonly evidence: readonly (readonly [string, unknown])[]
  readonly lines: readonly (readonly [string, unknown])[] | null
  readonly overruled: readonly (readonly [string, readonly string[]])[]
}
export type PackedState = Omit<DeviceState, 'at'> & { readonly at: Packed }

export const packState = ({ at, ...rest }: DeviceState): PackedState => ({
  ...rest,
  at: {
    ...at,
    table: at.table === undefined ? null : packTable(at.table),
    evidence: [...at.evidence],
    lines: at.lines === undefined ? null : [...at.lines],
    overruled: [...(at.overruled ?? [])],
  },
})

const packTable = (table: Table): PackedTable => ({
  ...table,
  partitions: table.partitions.map((one) => ({ ...one, attributes: String(one.attributes) })),
})

const unpackTable = (table: PackedTable): Table => ({
  ...table,
  partitions: table.partitions.map((one) => ({ ...one, attributes: BigInt(one.attributes) })),
})

/** What JSON left out is undefined again: a table nobody read, a day nobody told. */
export function unpackState({ at, ...rest }: PackedState): DeviceState {
  const { evidence, lines, overruled, ...plain } = at
  return {
    ...rest,
    at: {
      ...plain,
      table: plain.table === null ? undefined : unpackTable(plain.table),
      today: plain.today ?? undefined,
      family: familySchema.parse(plain.family),
      house: houseSchema.parse(plain.house),
      shelf: plain.shelf.map(({ manifest, state, ...one }) => ({
        ...one,
        manifest: manifestSchema.parse(manifest),
        state: PACKAGE_STATES.find((one) => one === state) ?? 'known',
      })),
      evidence: new Map(evidence as Iterable<[string, never]>),
      lines: lines === null ? undefined : new Map(lines as Iterable<[string, never]>),
      overruled: new Map(overruled),
    },
  }
}
