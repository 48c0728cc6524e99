/**
 * What a device may be: the rows of its family, each a model on a board with its storage, sold as something. Reads a
 * profile, what is settled, and the devices of slips that were closed; gives the rows that agree, each with its weight,
 * and what would be settled besides once one more fact is.
 */
import type { FactValue, Identity, Standing } from '../device/identity.ts'
import type { Family } from '../family/profile.ts'
import type { Fact } from '../terms/device.ts'

/** The facts of which a row is made. */
export const ROW_FACTS = ['model', 'board', 'chipset', 'storageGb', 'region', 'carrier'] as const
export type RowFact = (typeof ROW_FACTS)[number]
export type Row = Readonly<Record<RowFact, FactValue>>
/** `weight`: 1, and 1 for each closed slip whose device was of this row. */
export type WeighedRow = { readonly row: Row; readonly weight: number }
/** What was settled of a device whose slip is closed. */
export type ClosedDevice = Readonly<Partial<Record<Fact, FactValue>>>

export const isRowFact = (fact: Fact): fact is RowFact => ROW_FACTS.some((one) => one === fact)

const kept = new WeakMap<Pick<Family, 'models' | 'variants'>, readonly Row[]>()

/** Every row of a family, in its order. */
export function rowsOf(family: Pick<Family, 'models' | 'variants'>): readonly Row[] {
  const known = kept.get(family)
  if (known !== undefined) return known
  const rows = family.models.flatMap(({ code, boards, chipset, storages }) =>
    family.variants
      .filter(({ models }) => models === undefined || models.includes(code))
      .flatMap(({ region, carrier }) =>
        boards.flatMap((board) =>
          storages.map((storageGb) => ({
            model: code,
            board,
            chipset,
            storageGb,
            region,
            carrier,
          })),
        ),
      ),
  )
  kept.set(family, rows)
  return rows
}

const isSettled = ({ kind }: Standing): boolean => kind === 'settled'
const says = (standing: Standing, value: FactValue): boolean =>
  standing.kind === 'settled' && standing.value === value

/** Rows that agree with everything that is settled; none where the device is of no row that its family names. */
export function agreeing(
  family: Pick<Family, 'models' | 'variants'>,
  identity: Identity,
  closed: readonly ClosedDevice[] = [],
): readonly WeighedRow[] {
  const known = ROW_FACTS.filter((fact) => isSettled(identity[fact]))
  return rowsOf(family)
    .filter((row) => known.every((fact) => says(identity[fact], row[fact])))
    .map((row) => ({ row, weight: 1 + closed.filter((one) => isOf(one, row)).length }))
}

const isOf = (device: ClosedDevice, row: Row): boolean =>
  ROW_FACTS.every((fact) => device[fact] === row[fact])

/**
 * What a reading of a value would settle: its own fact, and every fact of a row that the remaining rows share and
 * nobody has settled.
 */
export function settledBy(
  identity: Identity,
  rows: readonly WeighedRow[],
  fact: Fact,
  value: FactValue,
): Readonly<Partial<Record<Fact, FactValue>>> {
  const own = { [fact]: value }
  if (!isRowFact(fact)) return own
  const left = rows.filter(({ row }) => row[fact] === value)
  const shared = ROW_FACTS.flatMap((other) => {
    const [first, ...others] = new Set(left.map(({ row }) => row[other]))
    const alone = first !== undefined && others.length === 0
    return alone && other !== fact && !isSettled(identity[other]) ? [[other, first] as const] : []
  })
  return { ...own, ...Object.fromEntries(shared) }
}

/** An identity once these were settled. */
export function supposing(
  identity: Identity,
  settled: Readonly<Partial<Record<Fact, FactValue>>>,
): Identity {
  const standings = Object.entries(settled).map(([fact, value]): readonly [string, Standing] => [
    fact,
    { kind: 'settled', value, claims: [], doubted: false },
  ])
  return { ...identity, ...Object.fromEntries(standings) }
}
