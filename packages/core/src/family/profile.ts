/**
 * A family profile: everything that is particular to one maker's line of devices, as data. Reads
 * YAML-made JSON; gives the checked profile and small questions to it. Adding a maker needs no code.
 * Grammars are our own segments, never regular expressions.
 */
import { z } from 'zod'
import { grammarSchema } from '../build/grammar.ts'
import type { Fact, Mode, Source } from '../terms/device.ts'
import {
  FIXED_FACTS,
  factSchema,
  modeSchema,
  partRoleSchema,
  sourceSchema,
} from '../terms/device.ts'

const range = z.tuple([z.number().positive(), z.number().positive()])
const text = z.string().min(1).max(200)
const readAt = z.object({
  source: sourceSchema,
  mode: z.union([modeSchema, z.literal('any')]),
  where: text,
  seconds: z.number().positive(),
  /** Trust of this source for this fact where it is not the usual one. */
  trust: z.exactOptional(z.int().min(1).max(20)),
})
const way = z.object({
  from: modeSchema,
  to: modeSchema,
  how: z.enum(['chord', 'keys', 'command', 'menu', 'self']),
  seconds: z.number().positive(),
  hands: z.boolean(),
  needs: z.exactOptional(z.literal('permission')),
  say: text,
})
const paceRule = z.union([z.object({ mibPerSecond: range }), z.object({ seconds: range })])
export const PACE_KEYS = ['write', 'digest', 'restart', 'first-start', 'first-start-wiped'] as const
export type PaceKey = (typeof PACE_KEYS)[number]

/** MiB of a partition: a number, a number by storage size, or what is left of the device. */
const mib = z.union([
  z.number().positive(),
  z.record(z.string(), z.number().positive()),
  z.literal('rest'),
])

export const familySchema = z.object({
  format: z.literal('plain-slate/family@1'),
  id: z.string().min(2).max(24),
  maker: text,
  sectorBytes: z.union([z.literal(512), z.literal(4096)]),
  pieceMiB: z.number().positive(),
  keptOnce: z.array(partRoleSchema),
  models: z.array(
    z.object({
      code: text,
      name: text,
      boards: z.array(text).min(1),
      chipset: text,
      storages: z.array(z.int().positive()).min(1),
    }),
  ),
  build: grammarSchema,
  facts: z.partialRecord(factSchema, z.array(readAt)),
  modes: z.array(
    z.object({
      id: modeSchema,
      also: z.array(text),
      looks: text,
      confusedWith: z.array(modeSchema),
    }),
  ),
  ways: z.array(way),
  partitions: z.array(z.object({ name: text, role: partRoleSchema, mib })).min(1),
  writeOrder: z.array(partRoleSchema),
  restartAfter: z.array(partRoleSchema),
  never: z.array(partRoleSchema),
  signedSet: z.array(partRoleSchema),
  pairs: z.array(z.tuple([partRoleSchema, partRoleSchema])),
  floors: z.object({ rises: z.enum(['write', 'first-start', 'lock']) }),
  lock: z.object({ opens: z.enum(['maker-only', 'permission-switch', 'never']) }),
  dataKeys: z.object({ hangOn: z.array(z.enum(['device', 'lock', 'release', 'patchDate'])) }),
  permission: z.object({
    what: text,
    neededFor: z.array(z.literal('command-in-normal')),
    wipedByReset: z.boolean(),
  }),
  items: z.array(z.object({ id: text, name: text, partition: text })),
  pace: z.record(z.enum(PACE_KEYS), paceRule),
  /** Seconds a phase may give no sign; one that is not named is never stuck by silence alone. */
  silentSeconds: z.partialRecord(z.enum(PACE_KEYS), z.number().positive()),
  drainPerMinute: z.object({
    writing: z.number().nonnegative(),
    'first-start': z.number().nonnegative(),
    'loader-idle': z.number().nonnegative(),
  }),
  chargesIn: z.array(modeSchema),
})
export type Family = z.infer<typeof familySchema>
export type Model = Family['models'][number]
export type Way = Family['ways'][number]

/** A model by its code, or undefined. */
export const modelOf = (family: Family, code: string): Model | undefined =>
  family.models.find((model) => model.code === code)

/** Trust by source where the family says nothing else. */
const USUAL_TRUST: Readonly<Record<Source, number>> = {
  link: 8,
  screen: 5,
  settings: 5,
  rescue: 4,
  label: 2,
  box: 2,
  earlier: 2,
  person: 1,
}

/** Trust of ids that the link reads from the fuses: they settle a fact by themselves. */
export const FUSED = 12

/** How far a source is trusted for a fact on this family. */
export function trustOf(family: Pick<Family, 'facts'>, fact: Fact, source: Source): number {
  const told = family.facts[fact]?.find((one) => one.source === source)?.trust
  if (told !== undefined) return told
  return source === 'link' && FIXED_FACTS.includes(fact) ? FUSED : USUAL_TRUST[source]
}

/** What a mode looks like on arrival. */
export const looksOf = (family: Family, mode: Mode): string =>
  family.modes.find(({ id }) => id === mode)?.looks ?? ''
