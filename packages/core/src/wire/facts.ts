/** What a device reports of itself when it is met. */
import { z } from 'zod'
import type { Fact, PartRole } from '../terms/device.ts'
import { WORD_FACTS, limitSchema, modeSchema, slotSchema } from '../terms/device.ts'
import { isLegible, shownLegible } from '../terms/text.ts'

/** How a device's last start went. */
export const startOutcomeSchema = z.enum([
  'normal',
  /** Its system runs, asks who owns it, and knows of no data. */
  'set-up',
  /** Its system runs no further than the page that asks for a reset. */
  'asks-reset',
  /** It goes no further than the mode it is in. */
  'stays',
  'loop',
  'dead',
])
export type StartOutcome = z.infer<typeof startOutcomeSchema>

/** An update of its own: prepared, or half merged into what stands there. */
export const mergeSchema = z.enum(['none', 'staged', 'merging'])
export type Merge = z.infer<typeof mergeSchema>

/** What it waits for a hand to do. */
export const asksSchema = z.enum(['confirm', 'go-on'])
export type Asks = z.infer<typeof asksSchema>

/** Characters of a fact at most: what is longer is no fact. */
const FACT_MOST = 120
/**
 * What a device says in words. One odd character of one device must hurt no other: it is shown as odd, and
 * then equals nothing that is asked of it.
 */
const word = z.string().max(FACT_MOST).overwrite(shownLegible)
/** The id by which devices are told apart is legible, or the device is not met at all. */
const serial = z
  .string()
  .max(FACT_MOST)
  .refine((text) => isLegible(text) && !/\s/u.test(text), 'a serial number that is no text')

/** The fact that tells the floor of a role's part, or of the whole. */
export const floorFact = (role: PartRole | 'all'): Fact => FLOOR_OF[role] ?? 'floor'

const FLOOR_OF: Readonly<Partial<Record<PartRole | 'all', Fact>>> = {
  loader: 'floorLoader',
  modem: 'floorModem',
  main: 'floorMain',
}

/** What is burnt into a device: no write changes it. */
export const fusedSchema = z.object({
  model: word,
  board: word,
  chipset: word,
  storageGb: z.int().positive(),
  region: word,
  carrier: word,
  /** The id that its maker's permits are bound to. */
  deviceId: z.exactOptional(word),
})
export type Fused = z.infer<typeof fusedSchema>

/**
 * What a device says in a mode. Who it is, of which model, and how its last start went it says in every mode
 * that answers; of the rest what its family's mode shows: a fact that is not shown is not there.
 */
export const deviceFactsSchema = z.object({
  ...fusedSchema.partial().shape,
  model: word,
  serial,
  mode: modeSchema,
  build: z.exactOptional(word),
  release: z.exactOptional(z.int()),
  patchDate: z.exactOptional(z.iso.date()),
  track: z.exactOptional(word),
  loaderVersion: z.exactOptional(z.int()),
  floor: z.exactOptional(z.int()),
  floorLoader: z.exactOptional(z.int()),
  floorModem: z.exactOptional(z.int()),
  floorMain: z.exactOptional(z.int()),
  bootLock: z.exactOptional(z.enum(['closed', 'open'])),
  lockSwitch: z.exactOptional(z.enum(WORD_FACTS.lockSwitch)),
  slot: z.exactOptional(slotSchema),
  /** The slot that its next start takes. */
  slotToTry: z.exactOptional(slotSchema),
  merge: z.exactOptional(mergeSchema),
  /** It waits for a hand to say yes to what it installed. */
  asks: z.exactOptional(asksSchema),
  /** Whether a permit of its maker's is on it, in a mode that takes one. */
  permit: z.exactOptional(z.enum(['none', 'granted'])),
  /** Whole percent. */
  batteryPercent: z.exactOptional(z.int().min(0).max(100)),
  outcome: startOutcomeSchema,
  /** What it cannot do although its system runs. */
  limits: z.exactOptional(z.array(limitSchema)),
  /** The sentence that its screen shows since that start, and the marks it bears, by their family's ids. */
  shows: z.exactOptional(word),
  marks: z.exactOptional(z.array(word)),
  /** How often it came back by itself since its last start, where the start loops. */
  returns: z.int().nonnegative(),
  /** The declared size scale: 1 for a device at real size. */
  scale: z.int().positive(),
})
export type DeviceFacts = z.infer<typeof deviceFactsSchema>
