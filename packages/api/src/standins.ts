/**
 * The control side of simulated devices: what hands can do with them. The bench process answers it on
 * loopback under its own secret; people reach it through the server only.
 */
import { modeSchema, storeSchema } from '@plain-slate/core'
import { z } from 'zod'
import { modeShownSchema } from './mode.ts'

export const standInDeviceSchema = z.object({
  serial: z.string(),
  name: z.string(),
  model: z.string(),
  port: z.string().nullable(),
  /** Null while it is restarting. */
  mode: modeShownSchema.nullable(),
  battery: z.int(),
  cellOut: z.boolean(),
  /** Whether its cell comes out by hand. */
  removable: z.boolean(),
  /** The link permission in its settings; they are reached while it runs. */
  permission: z.boolean(),
  /** A reset can be asked of it here; the switch for its lock: null where it has none. */
  canReset: z.boolean(),
  lockSwitch: z.boolean().nullable(),
  /** An account is on it, of which its owner can sign out. */
  account: z.boolean(),
  /** Where hands can install from in its menu here; what it asks of hands: null where nothing. */
  installs: z.array(z.object({ id: storeSchema, name: z.string() })),
  asks: z.string().nullable(),
  /** Model seconds in a real one; 0: as fast as bytes go. */
  pace: z.number(),
  /** Keys that its chords hold, and parts that can be damaged by hand. */
  chord: z.array(z.object({ key: z.string(), works: z.boolean() })),
  parts: z.array(z.string()),
  /** What keys lead to from here, in the family's words. */
  keys: z.array(
    z.object({
      to: modeShownSchema,
      say: z.string(),
      /** How long they are held, from and to; null: that does not matter. */
      held: z.tuple([z.number(), z.number()]).nullable(),
    }),
  ),
})
export type StandInDevice = z.infer<typeof standInDeviceSchema>

const serial = z.string().min(4).max(40)
const port = z.string().min(1).max(12)
/**
 * What is done with the computer beside them. `version` null: it is taken off; `program` null: it is closed. `at`: a
 * port of the computer that is meant; left out: the first.
 */
const computerActs = [
  z.object({
    kind: z.literal('driver'),
    driver: z.string().min(1).max(40),
    version: z.int().positive().nullable(),
    at: z.exactOptional(port),
  }),
  z.object({ kind: z.literal('rival'), port, program: z.string().min(1).max(60).nullable() }),
  z.object({ kind: z.literal('power-saving'), port, on: z.boolean() }),
  z.object({ kind: z.literal('hub'), port, on: z.boolean() }),
  z.object({
    kind: z.literal('sleep'),
    minutes: z.int().positive().max(10_000).nullable(),
    at: z.exactOptional(port),
  }),
] as const

export const standInActSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('plug'), serial, port }),
  z.object({ kind: z.literal('unplug'), serial }),
  z.object({ kind: z.literal('cell-out'), serial }),
  z.object({ kind: z.literal('cell-in'), serial }),
  z.object({ kind: z.literal('charge'), serial, percent: z.int().min(1).max(100) }),
  /** `held`: for how many seconds; left out: for as long as it takes. */
  z.object({
    kind: z.literal('keys'),
    serial,
    to: modeSchema,
    held: z.exactOptional(z.number().nonnegative().max(600)),
  }),
  /** A key of its chords breaks, or is mended. */
  z.object({ kind: z.literal('key'), serial, key: z.string().min(1).max(40), works: z.boolean() }),
  /** A part's first bytes are damaged. */
  z.object({ kind: z.literal('tear'), serial, part: z.string().min(1).max(40) }),
  /** A device like this one is laid beside it, under a serial of its own. */
  z.object({ kind: z.literal('like'), serial }),
  z.object({ kind: z.literal('permit'), serial, given: z.boolean() }),
  z.object({ kind: z.literal('reset'), serial }),
  z.object({ kind: z.literal('lock-switch'), serial, on: z.boolean() }),
  z.object({ kind: z.literal('sign-out'), serial }),
  z.object({ kind: z.literal('install'), serial, store: storeSchema }),
  z.object({ kind: z.literal('confirm'), serial }),
  /**
   * A cut that waits: at the nth piece from now, after so many bytes of it are kept; or, `asked`, as it hears the nth
   * request of a kind, in this mode or whichever.
   */
  z.object({
    kind: z.literal('cut'),
    serial,
    piece: z.int().positive().max(1000),
    bytes: z.int().nonnegative(),
    how: z.enum(['cable', 'battery', 'computer']),
    asked: z.exactOptional(
      z.object({
        verb: z.enum(['hello', 'digest', 'restart']),
        mode: z.exactOptional(modeSchema),
      }),
    ),
  }),
  ...computerActs,
])
export type StandInAct = z.infer<typeof standInActSchema>

/** What the bench process answers to an act. */
export const standInAnswerSchema = z.object({ done: z.boolean(), sentence: z.string() })
