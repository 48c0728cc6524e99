/**
 * The shape of a family profile: everything that is particular to one maker's line of devices, as data. Reads
 * YAML-made JSON; gives the checked shape. Grammars are our own segments, never regular expressions.
 */
import { z } from 'zod'
import { ADOPTIONS, PACE_KEYS } from './words.ts'
import { THINGS } from '../terms/line.ts'
import { grammarSchema } from '../build/grammar.ts'
import { handActSchema, hurdleSchema, menuSchema, outlineSchema, usualSlipSchema } from './hands.ts'
import {
  DATA_KEYS,
  floorsSchema,
  goOnSchema,
  installRuleSchema,
  knownFaultSchema,
  lockSchema,
  markSchema,
  permissionSchema,
  remedySchema,
  startRuleSchema,
  storeRuleSchema,
} from './rules.ts'
import {
  factSchema,
  modeKindSchema,
  modeSchema,
  partRoleSchema,
  slotSchema,
  sourceSchema,
  takesSchema,
} from '../terms/device.ts'

const range = z
  .tuple([z.number().positive(), z.number().positive()])
  .refine(([low, high]) => low <= high, 'the lower figure first')
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
  how: z.enum(['chord', 'keys', 'cell', 'command', 'menu', 'self']),
  seconds: z.number().positive(),
  hands: z.boolean(),
  needs: z.exactOptional(z.literal('permission')),
  say: text,
  /** The same act by act, for hands. */
  acts: z.exactOptional(z.array(handActSchema).min(1).max(20)),
  hurdle: z.exactOptional(hurdleSchema),
  /** The line of the menu, in the mode where it begins. */
  line: z.exactOptional(z.string().max(24)),
  slip: z.exactOptional(usualSlipSchema),
})
const paceRule = z.union([z.object({ mibPerSecond: range }), z.object({ seconds: range })])
/** MiB of a partition: a number, a number by storage size, or what is left of the device. */
const mib = z.union([
  z.number().positive(),
  z.record(z.string(), z.number().positive()),
  z.literal('rest'),
])

/**
 * Software of its maker's that a computer needs for the link in these modes. Versions are counted: below `least` it is of
 * no use, `newest` is the one its maker gives out.
 */
const driver = z.object({
  id: z.string().min(1).max(40),
  name: text,
  modes: z.array(modeSchema).min(1),
  least: z.int().positive(),
  newest: z.int().positive(),
})

export const profileSchema = z.object({
  format: z.literal('plain-slate/family@2'),
  id: z.string().min(2).max(24),
  /** Counted by whoever writes it: a slip remembers the version by which it was decided. */
  version: z.int().positive(),
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
  /** As what its devices are sold: rows of region and carrier, of every model or of those that are named. */
  variants: z
    .array(
      z.object({
        region: text,
        carrier: text,
        /** As it stands in a sentence: "sold in the Holm Isles, open". */
        name: text,
        models: z.exactOptional(z.array(text).min(1)),
        /** Regions in which its emergency calls are not certified. */
        uncertifiedIn: z.exactOptional(z.array(text).min(1)),
      }),
    )
    .min(1),
  build: grammarSchema,
  facts: z.partialRecord(factSchema, z.array(readAt)),
  outline: outlineSchema,
  modes: z.array(
    z.object({
      id: modeSchema,
      kind: modeKindSchema,
      /** As it stands in a sentence: "it is in the loader". */
      name: text,
      looks: text,
      /** What it is taken for, and how to tell them apart. */
      confusedWith: z.array(z.object({ mode: modeSchema, tell: text })),
      menu: z.exactOptional(menuSchema),
      /** What it takes over the link, and for which roles of parts. */
      takes: z.partialRecord(takesSchema, z.union([z.literal('any'), z.array(partRoleSchema)])),
      charges: z.boolean(),
    }),
  ),
  /** Links that need a driver of their own; a mode that none names needs none. */
  drivers: z.array(driver),
  ways: z.array(way),
  partitions: z
    .array(
      z.object({
        name: text,
        role: partRoleSchema,
        slot: z.exactOptional(slotSchema),
        mib,
        /** Its partition type, and where it begins on the storage, where its maker fixes them; else they are not compared. */
        type: z.exactOptional(z.guid()),
        startKiB: z.exactOptional(z.int().nonnegative()),
      }),
    )
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
  /**
   * Whether a device that was wiped while an account was on it asks for its sign-in; and the customer's things that are
   * lost with the screen lock, once that is taken off.
   */
  account: z.object({ asksAfterReset: z.boolean(), lockTakes: z.array(z.enum(THINGS)) }),
  marks: z.array(markSchema),
  knownFaults: z.array(knownFaultSchema),
  /** Where its own updates merge after they started: what destroys the customer's data meanwhile. */
  merge: z.exactOptional(z.object({ destroyedBy: z.array(z.enum(['write', 'lock'])) })),
  remedies: z.array(remedySchema).max(60),
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
  /** How many times as fast a cell drains that somebody or something calls aged; left out: as fast as any. */
  agedDrains: z.exactOptional(z.number().min(1).max(10)),
})
export type Profile = z.infer<typeof profileSchema>
