/**
 * A family profile: everything that is particular to one maker's line of devices, as data. Reads
 * YAML-made JSON; gives the checked profile and small questions to it. Adding a maker needs no code.
 * Grammars are our own segments, never regular expressions.
 */
import { z } from 'zod'
import { grammarSchema } from '../build/grammar.ts'
import type { Fact, Source } from '../terms/device.ts'
import {
  DATA_KEYS,
  floorsSchema,
  goOnSchema,
  installRuleSchema,
  knownFaultSchema,
  lockSchema,
  markSchema,
  permissionSchema,
  startRuleSchema,
  storeRuleSchema,
} from './rules.ts'
import {
  FIXED_FACTS,
  factSchema,
  modeKindSchema,
  modeSchema,
  partRoleSchema,
  slotSchema,
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
export const PACE_KEYS = [
  'write',
  'digest',
  'erase',
  'lock',
  'restart',
  'first-start',
  'first-start-wiped',
  'merge',
  /** Bytes to a store, what is pushed apart; a package looked over block by block, and written by the device. */
  'copy',
  'push',
  'check',
  'install',
] as const
export type PaceKey = (typeof PACE_KEYS)[number]

/** The variant part alone, with the data as they are; or with all of the customer's erased. */
export const ADOPTIONS = ['in-place', 'from-new'] as const
export type Adoption = (typeof ADOPTIONS)[number]

/** MiB of a partition: a number, a number by storage size, or what is left of the device. */
const mib = z.union([
  z.number().positive(),
  z.record(z.string(), z.number().positive()),
  z.literal('rest'),
])

const profileSchema = z.object({
  format: z.literal('plain-slate/family@2'),
  id: z.string().min(2).max(24),
  maker: text,
  sectorBytes: z.union([z.literal(512), z.literal(4096)]),
  pieceMiB: z.number().positive(),
  /** Whether the cell comes out by hand: a sealed one loses its power only when it is empty, or opened. */
  cell: z.enum(['removable', 'sealed']),
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
  partitions: z
    .array(z.object({ name: text, role: partRoleSchema, slot: z.exactOptional(slotSchema), mib }))
    .min(1),
  /** Devices whose layout is another: the first row that names model and board, or names none. */
  layouts: z.array(
    z.object({
      models: z.exactOptional(z.array(text)),
      boards: z.exactOptional(z.array(text)),
      /** Every partition in device order, where that is another. */
      order: z.exactOptional(z.array(text)),
      mib: z.exactOptional(z.record(z.string(), mib)),
      without: z.exactOptional(z.array(text)),
    }),
  ),
  writeOrder: z.array(partRoleSchema),
  restartAfter: z.array(partRoleSchema),
  never: z.array(partRoleSchema),
  signedSet: z.array(partRoleSchema),
  start: z.array(startRuleSchema),
  floors: floorsSchema,
  lock: lockSchema,
  dataKeys: z.object({
    hangOn: z.array(z.enum(DATA_KEYS)),
    /** Of a family whose builds come on tracks: data of the one are not opened by a build of the other. */
    tracksBack: z.array(z.object({ from: text, to: text })),
  }),
  permission: permissionSchema,
  /** How another variant of the same region is taken up; empty: its variants are not exchanged. */
  adopts: z.array(z.enum(ADOPTIONS)),
  /** Roles that a wipe erases, whoever makes it. */
  wipe: z.array(partRoleSchema).min(1),
  /** Whether a device that was wiped while an account was on it asks for its sign-in. */
  account: z.object({ asksAfterReset: z.boolean() }),
  marks: z.array(markSchema),
  knownFaults: z.array(knownFaultSchema),
  /** Where its own updates merge after they started: what destroys the customer's data meanwhile. */
  merge: z.exactOptional(z.object({ destroyedBy: z.array(z.enum(['write', 'lock'])) })),
  goOn: z.exactOptional(goOnSchema),
  stores: z.array(storeRuleSchema),
  installs: z.array(installRuleSchema),
  items: z.array(z.object({ id: text, name: text, partition: text })),
  pace: z.partialRecord(z.enum(PACE_KEYS), paceRule),
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
  family.modes.forEach(({ takes: { read } }, index) => {
    /* What is the device's own, or the customer's, is copied out of no device. */
    if (read === 'any' || read?.some((role) => family.never.includes(role)) === true)
      problem(['modes', index, 'takes', 'read'], 'roles that are read back, none of them untouched')
  })
  const turns = family.modes.findIndex(({ takes }) => takes.lock !== undefined)
  if (turns >= 0 && family.lock.opens !== 'command')
    problem(['modes', turns, 'takes', 'lock'], 'a lock that only the maker turns')
  family.start.forEach(({ end }, index) => {
    if ('mode' in end) known(['start', index, 'end', 'mode'], end.mode)
  })
  const parts = family.partitions.map(({ name }) => name)
  const part = (path: readonly (string | number)[], name: string) =>
    parts.includes(name) || problem(path, `no partition ${name}`)
  family.layouts.forEach(({ order, mib: sizes, without }, index) => {
    for (const name of [...(order ?? []), ...Object.keys(sizes ?? {}), ...(without ?? [])])
      part(['layouts', index], name)
    if (order !== undefined && new Set(order).size !== parts.length)
      problem(['layouts', index, 'order'], 'every partition once')
  })
  family.stores.forEach(({ modes, partition }, index) => {
    for (const one of modes) known(['stores', index, 'modes'], one)
    if (partition !== undefined) part(['stores', index], partition)
  })
  family.installs.forEach(({ from, mode, kinds, slowly, hands }, index) => {
    known(['installs', index, 'mode'], mode)
    if (!family.stores.some(({ id }) => id === from))
      problem(['installs', index], `no store ${from}`)
    if (slowly.some((kind) => !kinds.includes(kind)))
      problem(['installs', index, 'slowly'], 'a kind that it does not take')
    const takes = family.modes.find(({ id }) => id === mode)?.takes.install !== undefined
    if (takes === (hands !== undefined))
      problem(['installs', index], 'started by hands, or taken over the link by its mode')
    for (const key of [from === 'push' ? 'push' : 'copy', 'check', 'install'] as const)
      if (family.pace[key] === undefined) problem(['pace'], `no pace of ${key}`)
  })
  family.items.forEach(({ partition }, index) => part(['items', index, 'partition'], partition))
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

/** Whether data of one track are not opened by a build of another. */
export const isTrackBack = (
  { dataKeys }: Pick<Family, 'dataKeys'>,
  from: string,
  to: string,
): boolean => dataKeys.tracksBack.some((one) => one.from === from && one.to === to)

/** How far a source is trusted for a fact on this family. */
export function trustOf(family: Pick<Family, 'facts'>, fact: Fact, source: Source): number {
  const told = family.facts[fact]?.find((one) => one.source === source)?.trust
  if (told !== undefined) return told
  return source === 'link' && FIXED_FACTS.includes(fact) ? FUSED : USUAL_TRUST[source]
}
