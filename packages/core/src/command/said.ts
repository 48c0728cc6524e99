/**
 * What a step's sentence needs, kind by kind: the same from the plan to the page, parsed wherever it crosses a
 * process. Reads a step and its family; gives kind and facts, no sentences. Sizes are MiB of the real device.
 */
import { z } from 'zod'
import { lockChange } from '../effect/effect.ts'
import { modeName } from '../family/modes.ts'
import type { Family } from '../family/profile.ts'
import { DATA_CHANGES } from '../family/rules.ts'
import type { Step } from '../plan/step.ts'
import { BY_HAND, READINESS } from '../plan/step.ts'
import type { Store } from '../terms/device.ts'
import { partRoleSchema, slotSchema } from '../terms/device.ts'

const MIB = 1024 ** 2

const text = z.string()
const mibs = z.int().nonnegative()
const count = z.int().positive()
/** Null: nothing of it is promised. Plans of before kept an empty text for that. */
const promised = z.preprocess((raw) => (raw === '' ? null : raw), z.int().nullable())
const said = <Kind extends Step['kind'], Facts extends z.ZodRawShape>(kind: Kind, facts: Facts) =>
  z.object({ kind: z.literal(kind), facts: z.object(facts).readonly() }).readonly()

export const stepSaidSchema = z.discriminatedUnion('kind', [
  said('ready', { what: z.enum(READINESS) }),
  /** `to`, `mode`, `store`: the family's own names of them. */
  said('enter', { say: text, to: text }),
  /** `left`: images that are looked at again because the plan leaves them alone. */
  said('meet', { mode: text, left: z.int().nonnegative().default(0) }),
  said('write', { partition: text, piece: count, pieces: count, mib: mibs }),
  said('read-back', { partition: text, mib: mibs }),
  said('erase', { partition: text, role: partRoleSchema }),
  said('lock', { to: z.enum(['open', 'closed']), data: z.enum(DATA_CHANGES) }),
  said('slot', { slot: slotSchema }),
  said('permit', { id: text, until: text }),
  said('merge', { do: z.enum(['wait', 'cancel']) }),
  said('restart', { to: text }),
  /** `say`: how hands start it; empty where it starts over the link. */
  said('first-start', { wiped: z.enum(['true', 'false']), say: text.default('') }),
  said('copy', { store: text, name: text, mib: mibs }),
  said('prove-copy', { store: text, name: text, mib: mibs }),
  said('push', { store: text, name: text, mib: mibs }),
  said('install', { store: text, name: text, mib: mibs, say: text }),
  said('drop', { store: text, name: text }),
  said('by-hand', { what: z.enum(BY_HAND), say: text.default('') }),
  said('prove', { build: text, loader: promised, floor: promised }),
])
export type StepSaid = z.infer<typeof stepSaidSchema>

/** The partition that a step is about; undefined: it is about none. */
export const partitionOf = ({ facts }: StepSaid): string | undefined =>
  'partition' in facts ? facts.partition : undefined

/** A step as its sentence needs it. */
export function saidOf(step: Step, family: Family): StepSaid {
  const { kind } = step
  switch (kind) {
    case 'ready':
      return { kind, facts: { what: step.what } }
    case 'enter':
      return { kind, facts: { say: step.way.say, to: modeName(family, step.way.to) } }
    case 'meet': {
      const mode = modeName(family, step.mode)
      return { kind, facts: { mode, left: step.look?.left.length ?? 0 } }
    }
    case 'write': {
      const { image, piece, pieces, size, scale } = step
      return { kind, facts: { partition: image.partition, piece, pieces, mib: mib(size * scale) } }
    }
    case 'read-back': {
      const { image, scale } = step
      return { kind, facts: { partition: image.partition, mib: mib(image.size * scale) } }
    }
    case 'erase':
      return { kind, facts: { partition: step.partition, role: step.role } }
    case 'lock':
      return { kind, facts: { to: step.to, data: lockChange(family, step.to, step.model) } }
    case 'permit':
      return { kind, facts: { id: step.permit.id, until: step.permit.until } }
    case 'slot':
      return { kind, facts: { slot: step.slot } }
    case 'merge':
      return { kind, facts: { do: step.do } }
    case 'restart':
      return { kind, facts: { to: modeName(family, step.to) } }
    case 'first-start':
      return { kind, facts: { wiped: step.wiped ? 'true' : 'false', say: step.by?.say ?? '' } }
    case 'by-hand':
      return { kind, facts: { what: step.what, say: step.say } }
    case 'prove': {
      const { build, loaderVersion, floor } = step.expect
      return { kind, facts: { build, loader: loaderVersion ?? null, floor: floor ?? null } }
    }
    case 'copy':
    case 'prove-copy':
    case 'push':
    case 'install':
    case 'drop':
      return inStore(step, family)
  }
}

type InStore = Extract<Step, { kind: 'copy' | 'prove-copy' | 'push' | 'install' | 'drop' }>

function inStore(step: InStore, family: Family): StepSaid {
  const { kind, name } = step
  const store = storeName(family, step.store)
  if (kind === 'drop') return { kind, facts: { store, name } }
  const facts = { store, name, mib: mib(step.bytes * step.scale) }
  return kind === 'install' ? { kind, facts: { ...facts, say: step.say } } : { kind, facts }
}

const storeName = ({ stores }: Family, store: Store): string =>
  stores.find(({ id }) => id === store)?.name ?? store

const mib = (bytes: number): number => Math.round(bytes / MIB)
