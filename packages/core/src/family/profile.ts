/**
 * A family profile: everything that is particular to one maker's line of devices, as data. Reads
 * YAML-made JSON; gives the checked profile and small questions to it. Adding a maker needs no code.
 * Grammars are our own segments, never regular expressions.
 */
import { z } from 'zod'
import { grammarSchema } from '../build/grammar.ts'
import type { Fact, Source } from '../terms/device.ts'
import {
  FIXED_FACTS,
  factSchema,
  modeKindSchema,
  modeSchema,
  partRoleSchema,
  sourceSchema,
  takesSchema,
} from '../terms/device.ts'

const range = z.tuple([z.number().positive(), z.number().positive()])
const text = z.string().min(1).max(200)
const readAt = z.object({
  source: sourceSchema,
  /** The modes in which it can be read there; `any`: what stands on the housing. */
  modes: z.union([z.array(modeSchema).min(1), z.literal('any')]),
  where: text,
  seconds: z.number().positive(),
  /** Trust of this source for this fact where it is not the usual one. */
  trust: z.exactOptional(z.int().min(1).max(20)),
})
const way = z.object({
  from: z.union([z.array(modeSchema).min(1), z.literal('any')]),
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

const profileSchema = z.object({
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
      kind: modeKindSchema,
      /** As it stands in a sentence: "it is in the loader". */
      name: text,
      looks: text,
      confusedWith: z.array(modeSchema),
      /** What it takes over the link, and for which roles of parts. */
      takes: z.partialRecord(takesSchema, z.union([z.literal('any'), z.array(partRoleSchema)])),
      charges: z.boolean(),
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
    /** Answering and doing nothing, in a mode that does not charge. */
    idle: z.number().nonnegative(),
  }),
})

/** Kinds of mode of which a family has one and no more. */
const ONE_EACH = ['off', 'system'] as const

/** A profile whose parts refer to each other as they must. */
export const familySchema = profileSchema.superRefine((family, context) => {
  const problem = (path: readonly (string | number)[], message: string) =>
    context.addIssue({ code: 'custom', path: [...path], message })
  for (const kind of ONE_EACH)
    if (family.modes.filter((mode) => mode.kind === kind).length !== 1)
      problem(['modes'], `one mode of the kind ${kind}, no more and no fewer`)
  const ids = family.modes.map(({ id }) => id)
  const known = (path: readonly (string | number)[], mode: string) =>
    ids.includes(mode) || problem(path, `no mode ${mode}`)
  family.ways.forEach(({ from, to }, index) => {
    known(['ways', index, 'to'], to)
    if (from !== 'any') for (const one of from) known(['ways', index, 'from'], one)
  })
  for (const [fact, places] of Object.entries(family.facts))
    places.forEach(({ modes }, index) => {
      if (modes !== 'any') for (const one of modes) known(['facts', fact, index, 'modes'], one)
    })
  family.modes.forEach(({ confusedWith }, index) => {
    for (const one of confusedWith) known(['modes', index, 'confusedWith'], one)
  })
})
export type Family = z.infer<typeof familySchema>
export type ModeProfile = Family['modes'][number]
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
