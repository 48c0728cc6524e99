/**
 * What is said over the device link: requests with an id, answers that refer to it, events. Reads
 * headers of frames; gives checked messages. Every writing verb carries run and epoch, and a device
 * refuses an older epoch than it has met.
 */
import { z } from 'zod'
import { digestSchema } from '../book/entry.ts'
import { modeSchema, slotSchema, storeSchema } from '../terms/device.ts'
import { permitSchema } from './permit.ts'
import { asksSchema, deviceFactsSchema } from './facts.ts'
import { shownLegible } from '../terms/text.ts'

const partition = z.string().min(1).max(36)
const offset = z.int().nonnegative()
const length = z.int().positive()
const lease = { run: z.string().min(1).max(64), epoch: z.int().nonnegative() }

/** A file's place: names are plain, with no way out of the store. */
const fileName = z
  .string()
  .max(120)
  .regex(/^[A-Za-z0-9][A-Za-z0-9._-]*$/, 'letters, digits, points and dashes')
const file = { store: storeSchema, name: fileName }

export const requestSchema = z.discriminatedUnion('verb', [
  z.object({
    verb: z.literal('hello'),
    ...lease,
    protocol: z.string().max(40),
    secret: z.string().max(200),
  }),
  z.object({ verb: z.literal('facts') }),
  z.object({ verb: z.literal('table') }),
  z.object({
    verb: z.literal('begin'),
    ...lease,
    partition,
    offset,
    size: length,
    /** SHA-256 of the whole image the piece belongs to: what the maker signed. */
    image: digestSchema,
  }),
  z.object({ verb: z.literal('chunk'), ...lease, offset, crc32: z.int().nonnegative() }),
  /** The piece's own SHA-256 comes last, so that it can be made while the bytes are sent. */
  z.object({ verb: z.literal('finish'), ...lease, piece: digestSchema }),
  z.object({ verb: z.literal('digest'), partition, from: offset, to: length }),
  /** A digest of each block of a range; the range's bytes themselves. Both as payload, 1 MiB at most. */
  z.object({ verb: z.literal('blocks'), partition, from: offset, to: length }),
  z.object({ verb: z.literal('read'), partition, from: offset, to: length }),
  z.object({ verb: z.literal('restart'), ...lease, to: modeSchema }),
  /** A partition, from end to end. */
  z.object({ verb: z.literal('erase'), ...lease, partition }),
  z.object({ verb: z.literal('lock'), ...lease, to: z.enum(['open', 'closed']) }),
  /** The slot that the next start takes. */
  z.object({ verb: z.literal('slot'), ...lease, slot: slotSchema }),
  /** Its own update: answered when it is merged, or taken back while it is only prepared. */
  z.object({ verb: z.literal('merge'), ...lease, do: z.enum(['wait', 'cancel']) }),
  /** What its maker permits this one device. */
  z.object({ verb: z.literal('permit'), ...lease, permit: permitSchema }),
  z.object({ verb: z.literal('tally') }),
  /** A file to a store: its bytes follow in chunks, its own SHA-256 is what it must come to. */
  z.object({ verb: z.literal('file-put'), ...lease, ...file, size: length, image: digestSchema }),
  z.object({ verb: z.literal('file-list'), store: storeSchema }),
  z.object({ verb: z.literal('file-digest'), ...file }),
  z.object({ verb: z.literal('file-drop'), ...lease, ...file }),
  /** A package in a store, opened, looked over and written by the device itself. */
  z.object({ verb: z.literal('install'), ...lease, ...file }),
])
export type LinkRequest = z.infer<typeof requestSchema>
export type Verb = LinkRequest['verb']

/** Why a device says no. */
export const REFUSALS = [
  'wrong-mode',
  'old-epoch',
  'no-session',
  'other-session',
  'bad-offset',
  'bad-checksum',
  'bad-digest',
  'no-partition',
  'too-large',
  'never-written',
  'floor',
  'not-signed',
  'not-granted',
  'no-permission',
  'battery-low',
  /** The lock: nobody but the maker opens it, its switch is off, or a part is of another row. */
  'not-allowed',
  'lock-switch',
  'other-variant',
  /** Files and packages: no such place or file, too large, cut short or odd, for another, on another build. */
  'no-store',
  'no-file',
  'no-room',
  'not-whole',
  'other-target',
  'other-base',
  'modified',
  'merging',
  /** Its rescue is its owner's own: it cannot open the locked storage, or takes nothing that its maker signed. */
  'no-storage',
  'own-rescue',
  /** Permits: for another device, used up, or none for what is written. */
  'other-device',
  'spent',
  'no-permit',
  'busy',
  'unknown-verb',
] as const
export type DeviceRefusal = (typeof REFUSALS)[number]

/** Verbs that change the device; the others may be asked again at will. */
const WRITING: readonly Verb[] = [
  ...(['begin', 'chunk', 'finish', 'restart', 'erase', 'lock', 'slot'] as const),
  ...(['file-put', 'file-drop', 'install', 'merge', 'permit'] as const),
]
export const isWriting = (verb: Verb): boolean => WRITING.includes(verb)

/**
 * What a device answers. `id` is the request's; `at` is the device's own time in ms of model time, from
 * which every duration on screen is measured.
 */
const refersTo = { id: z.int().nonnegative(), at: z.number().nonnegative() }
export const answerSchema = z.discriminatedUnion('answer', [
  z.object({ answer: z.literal('facts'), ...refersTo, facts: deviceFactsSchema }),
  /** Bytes of the open piece that are kept. */
  z.object({ answer: z.literal('kept'), ...refersTo, got: offset }),
  z.object({ answer: z.literal('digest'), ...refersTo, sha256: digestSchema }),
  /** The first bytes of each block's SHA-256 as the payload, one block after the other. */
  z.object({ answer: z.literal('blocks'), ...refersTo, blockBytes: length, digestBytes: length }),
  /** The range's bytes as the payload. */
  z.object({ answer: z.literal('bytes'), ...refersTo }),
  /** Ranges of the disk as the payload, one after the other. */
  z.object({
    answer: z.literal('table'),
    ...refersTo,
    sectorBytes: length,
    diskBytes: length,
    ranges: z.array(z.object({ at: offset, length })).max(8),
  }),
  z.object({ answer: z.literal('mode'), ...refersTo, mode: modeSchema }),
  /** Carried out, and nothing more to say. */
  z.object({ answer: z.literal('done'), ...refersTo }),
  /** The customer's things: how many, their bytes, and whether they open. */
  z.object({
    answer: z.literal('tally'),
    ...refersTo,
    items: z.int().nonnegative(),
    bytes: offset,
    opens: z.boolean(),
  }),
  z.object({
    answer: z.literal('files'),
    ...refersTo,
    files: z.array(z.object({ name: z.string().max(120), size: offset })).max(1000),
  }),
  z.object({
    answer: z.literal('refused'),
    ...refersTo,
    code: z.enum(REFUSALS),
    text: z.string().max(500),
  }),
])
export type LinkAnswer = z.infer<typeof answerSchema>

/** The link's own version, said in hello; a device of another major version is not written to. */
export const LINK_PROTOCOL = 'plain-slate/link@1'

/** Of a block's SHA-256 as many bytes are told. */
export const BLOCK_DIGEST_BYTES = 16

const screenText = z.string().max(200).overwrite(shownLegible)
/** What a device says without being asked, to whoever owns it: what its screen shows, what it waits for. */
export const eventSchema = z.discriminatedUnion('event', [
  z.object({ event: z.literal('screen'), text: screenText }),
  z.object({ event: z.literal('prompt'), asks: asksSchema, text: screenText }),
])
export type DeviceEvent = z.infer<typeof eventSchema>

/** A request as it is asked for, before whoever speaks puts the lease to it. */
export type Unleased = LinkRequest extends infer One
  ? One extends LinkRequest
    ? Omit<One, keyof typeof lease>
    : never
  : never

/** An answer without what only the link needs of it: the request it refers to, and when it was given. */
export type Said = LinkAnswer extends infer One
  ? One extends LinkAnswer
    ? Omit<One, keyof typeof refersTo>
    : never
  : never
