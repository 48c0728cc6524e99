/**
 * What a package says it is for: its targets, and how each field of one admits a value. Reads manifests; gives
 * what rules of identity ask.
 */
import type { FactValue } from '../device/identity.ts'
import type { Shelved } from '../firmware/manifest.ts'
import type { Ground } from './rule.ts'
import { rule } from './rule.ts'
import type { Overruler } from '../verdict/verdict.ts'

export type Target = Shelved['manifest']['targets'][number]
export const targetsOf = ({ shelved }: Pick<Ground, 'shelved'>): readonly Target[] =>
  shelved.manifest.targets

const texts = new WeakMap<Shelved['manifest']['targets'], string>()
/** What a package says it is for, as a text. */
export function targetsText({ targets }: Pick<Shelved['manifest'], 'targets'>): string {
  const known = texts.get(targets) ?? JSON.stringify(targets)
  texts.set(targets, known)
  return known
}

/** The fields by which a target is for a board, and how each admits a value. */
export const TARGET_FIELDS: Readonly<
  Record<'model' | 'board' | 'chipset' | 'storageGb', (target: Target) => readonly FactValue[]>
> = {
  model: ({ model }) => [model],
  board: ({ boards }) => boards,
  chipset: ({ chipset }) => [chipset],
  storageGb: ({ storage }) => storage,
}
export type TargetField = keyof typeof TARGET_FIELDS
export const TARGET_FACTS = ['model', 'board', 'chipset', 'storageGb'] as const
export type BoardValues = Readonly<Partial<Record<TargetField, FactValue>>>

/** Whether a target admits every value that is known of the fields. */
export const admits = (target: Target, values: BoardValues): boolean =>
  TARGET_FACTS.every((fact) => {
    const value = values[fact]
    return value === undefined || TARGET_FIELDS[fact](target).includes(value)
  })

/** The targets that are for a board; where none is, other rules say so, and all of them are what it is for. */
export function targetsFor(at: Pick<Ground, 'shelved'>, board: BoardValues): readonly Target[] {
  const own = targetsOf(at).filter((target) => admits(target, board))
  return own.length > 0 ? own : targetsOf(at)
}

/** Whether a target is for a row of variants; one that names no carriers is for all of its region. */
export const isForRow = (target: Target, region: FactValue, carrier: FactValue): boolean =>
  target.region === undefined ||
  (target.region === region &&
    (target.carriers === undefined || target.carriers.includes(String(carrier))))

/** A plain rule of identity: some target lists the value, or the package is for something else. */
export function listed<const Field extends Exclude<TargetField, 'model'>>(
  fact: Field,
  overruled: Overruler,
) {
  const of = TARGET_FIELDS[fact]
  return rule({
    id: `identity.${fact}`,
    overruled,
    needs: [fact],
    alike: targetsText,
    says: { fits: ['fits', 'here'], not: ['does-not-fit', 'here', 'wanted'] },
    check: (values, at) => {
      const here = (values as Readonly<Record<Field, FactValue>>)[fact]
      const targets = targetsOf(at)
      if (targets.some((target) => of(target).includes(here)))
        return { say: 'fits', facts: { here } }
      const wanted = [...new Set(targets.flatMap(of))].join(', ')
      return { say: 'not', facts: { here, wanted } }
    },
  })
}
