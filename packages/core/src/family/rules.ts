/**
 * What a family says of starting, locks, floors, keys and marks: the rules that the twin interprets. Reads
 * nothing; gives the schemas. Conditions are closed lists: a family that needs another word makes this grow.
 */
import { z } from 'zod'
import { limitSchema, modeSchema, partRoleSchema, storeSchema } from '../terms/device.ts'
import { remedyActSchema, troubleSchema } from '../terms/trouble.ts'

const text = z.string().min(1).max(200)
const roles = z.array(partRoleSchema).min(1)
const rolesOrAny = z.union([roles, z.literal('any')])

/**
 * What may be asked of a part of the slot that starts. *torn*: neither what was there nor a whole image.
 * *modified*: not the maker's. *other-chipset*, *other-board*: made for another. *below-floor*: of a
 * generation the hardware accepts no more. *unpaired*: the loader that runs is outside what the part names.
 * *other-variant*: of a row that the system is not made for; *not-fused*: of a row the fuses do not expect.
 */
export const PART_CONDITIONS = [
  'torn',
  'modified',
  'other-chipset',
  'other-board',
  'below-floor',
  'unpaired',
  'other-variant',
  'not-fused',
] as const

/** What may be asked of the set that is signed together: *needs-loader*: it starts under a newer one only. */
export const SET_CONDITIONS = ['torn', 'mixed', 'needs-loader'] as const

/** What may be asked of the customer's data against the build that would use them. */
export const DATA_CONDITIONS = [
  'newer-release',
  'newer-patch',
  'later-track',
  'reset-asked',
] as const

export const conditionSchema = z.union([
  z.object({
    part: rolesOrAny,
    is: z.enum(PART_CONDITIONS),
    /** Of every slot's part, and not of the running slot's alone. */
    every: z.exactOptional(z.literal(true)),
  }),
  z.object({ set: z.enum(SET_CONDITIONS) }),
  z.object({ lock: z.enum(['open', 'closed']) }),
  z.object({ data: z.enum(DATA_CONDITIONS) }),
  z.object({ merge: z.enum(['staged', 'merging']) }),
])
export type Condition = z.infer<typeof conditionSchema>

/**
 * What a start comes to. The first rule that decides is the last that is asked; a limit and a warning decide
 * nothing and go on. `falls-back`: after so many bad starts the other slot is started instead, and if that is
 * bad too it stays in a mode.
 */
export const startEndSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('dead') }),
  z.object({ kind: z.literal('stays'), mode: modeSchema }),
  z.object({ kind: z.literal('loop') }),
  z.object({ kind: z.literal('falls-back'), after: z.int().min(1).max(10), mode: modeSchema }),
  z.object({ kind: z.literal('asks-reset') }),
  z.object({ kind: z.literal('limit'), limit: limitSchema }),
  z.object({ kind: z.literal('warns'), seconds: z.number().positive() }),
])
export type StartEnd = z.infer<typeof startEndSchema>

export const startRuleSchema = z.object({
  /** All of these must hold. */
  when: z.array(conditionSchema).min(1),
  end: startEndSchema,
  /** What the device shows or says then. */
  says: z.exactOptional(text),
})
export type StartRule = z.infer<typeof startRuleSchema>

/** When a floor rises: as a part is written, at the first start, as a slot is found good, as the lock closes. */
export const RISES = ['write', 'first-start', 'good', 'lock'] as const
export type Rise = (typeof RISES)[number]

/**
 * The lowest generation that the hardware still accepts: one for the whole, or one a part. What is below is
 * refused as it is written, or not started.
 */
export const floorsSchema = z.object({
  kept: z.enum(['one', 'parts']),
  rules: z
    .array(
      z.object({
        roles: rolesOrAny,
        refused: z.enum(['write', 'start']),
        rises: z.array(z.enum(RISES)).min(1),
      }),
    )
    .min(1),
})

/** What a change does to the customer's data. */
export const DATA_CHANGES = ['keeps', 'wipes', 'unreadable'] as const
const dataChange = z.enum(DATA_CHANGES)
export type DataChange = z.infer<typeof dataChange>

/** What a lock is closed over: signed parts only, of the row the fuses expect, at or above the floors. */
export const CLOSES_OVER = ['signed', 'fused-variant', 'floors'] as const

/** A lock that nobody but the maker opens has nothing more to say of itself. */
const makersLock = z.object({
  opens: z.literal('maker-only'),
  /** Parts that it lets nobody write while it is closed, signed or not; left out: it keeps none that are signed. */
  keeps: z.exactOptional(roles),
})
const openableLock = z.object({
  opens: z.literal('command'),
  keeps: z.exactOptional(roles),
  /** Carriers on whose devices the switch stays greyed for good, and days after set-up for the others. */
  neverOn: z.array(text),
  greyedDays: z.number().nonnegative(),
  opening: dataChange,
  /** The first row that names the model, or names none. */
  closing: z.array(z.object({ models: z.exactOptional(z.array(text)), data: dataChange })),
  closesOver: z.array(z.enum(CLOSES_OVER)),
})
export const lockSchema = z.discriminatedUnion('opens', [makersLock, openableLock])

/** Acts that clear the link permission. */
export const CLEARS_PERMISSION = ['wipe', 'slot'] as const

export const permissionSchema = z.object({
  what: text,
  /** How it is given, step by step. */
  steps: z.array(text).min(1).max(12),
  clearedBy: z.array(z.enum(CLEARS_PERMISSION)),
})

/**
 * A place where files lie. Bytes reach it over the link in these modes; what is pushed lies in the memory of the
 * mode that took it, and is gone with it or with the power.
 */
export const storeRuleSchema = z.object({
  id: storeSchema,
  name: text,
  modes: z.array(modeSchema).min(1),
  /** The partition it lies on: what erases that takes the files. */
  partition: z.exactOptional(text),
  /** The largest file it takes, MiB of the real device. */
  mostMiB: z.exactOptional(z.number().positive()),
})
export type StoreRule = z.infer<typeof storeRuleSchema>

/**
 * What a device looks over before it installs. `stock-rescue`: a rescue that its owner changed takes nothing that the
 * maker signed.
 */
export const INSTALL_CHECKS = ['stock-rescue', 'target', 'base', 'unmodified', 'floors'] as const

/**
 * A package that the device opens, checks and writes by itself. It stands whole in one store; of several there
 * it takes the one it is told, or, where hands tell it nothing, the first by name that ends as it must.
 */
export const installRuleSchema = z.object({
  from: storeSchema,
  mode: modeSchema,
  kinds: z.array(z.enum(['full', 'incremental'])).min(1),
  /** Started from a line of its mode's menu by hand; where nothing is said, over the link. */
  hands: z.exactOptional(
    z.object({ line: z.string().min(1).max(24), seconds: z.number().positive() }),
  ),
  /** How the names of the files end that it looks at. */
  ends: text,
  checks: z.array(z.enum(INSTALL_CHECKS)),
  /** Kinds of package that it looks over block by block, which takes its time. */
  slowly: z.array(z.enum(['full', 'incremental'])),
  /** Percent of charge below which it refuses. */
  leastPercent: z.number().min(0).max(100),
  /** What it asks hands for at its end, and after how many seconds it takes that for a no. */
  confirm: z.exactOptional(z.object({ say: text, seconds: z.number().positive() })),
  /** Whether what it wrote is merged after its first start. */
  merges: z.boolean(),
})
export type InstallRule = z.infer<typeof installRuleSchema>

/**
 * A key that a device asks for before it goes on, at the first start of its own system after this build or a newer
 * one was written over the cable; it waits for it without an end.
 */
export const goOnSchema = z.object({
  from: text,
  say: text,
  seconds: z.number().positive(),
})

/**
 * What is tried in a trouble: percent of the times in which it was the cure, minutes it takes, how many of them hands
 * are busy, and on how many troubles the figure rests (0: the maker's word).
 */
export const remedySchema = z.object({
  trouble: troubleSchema,
  does: remedyActSchema,
  chance: z.number().positive().max(100),
  minutes: z.number().positive().max(600),
  hands: z.number().nonnegative().max(600),
  of: z.int().nonnegative(),
})

/** What the customer's data hang on of the build that uses them: one that goes back makes them unreadable. */
export const DATA_KEYS = ['release', 'patchDate', 'track'] as const

export const markSchema = z.object({
  id: z.string().min(1).max(24),
  /** As people are told: "custom software has run on it". */
  says: text,
  setBy: z.array(z.enum(['modified-start', 'service', 'opening'])).min(1),
})

/** A fault of boards that no firmware cures: under some kernels they start with less, or drain more. */
export const knownFaultSchema = z.object({
  models: z.exactOptional(z.array(text)),
  boards: z.array(text).min(1),
  /** The maker's own images of this role, from this build on. */
  role: partRoleSchema,
  from: text,
  limit: z.exactOptional(limitSchema),
  drain: z.number().min(1).max(10),
  says: text,
  /** Who saw it, on how many devices, when. */
  source: text,
  devices: z.int().positive(),
  date: z.iso.date(),
})
export type KnownFault = z.infer<typeof knownFaultSchema>
