/**
 * What is said over the device link: requests with an id, answers that refer to it, events. Reads
 * headers of frames; gives checked messages. Every writing verb carries run and epoch, and a device
 * refuses an older epoch than it has met.
 */
import { z } from 'zod'
import { digestSchema } from '../book/entry.ts'
import { modeSchema } from '../terms/device.ts'

const partition = z.string().min(1).max(36)
const offset = z.int().nonnegative()
const length = z.int().positive()
const lease = { run: z.string().min(1).max(64), epoch: z.int().nonnegative() }

export const requestSchema = z.discriminatedUnion('verb', [
  z.object({ verb: z.literal('hello'), ...lease, secret: z.string() }),
  z.object({ verb: z.literal('facts') }),
  z.object({ verb: z.literal('table') }),
  z.object({
    verb: z.literal('begin'),
    ...lease,
    partition,
    offset,
    size: length,
    /** SHA-256 of the piece and of the whole image. */
    piece: digestSchema,
    image: digestSchema,
  }),
  z.object({ verb: z.literal('chunk'), ...lease, offset, crc32: z.int().nonnegative() }),
  z.object({ verb: z.literal('finish'), ...lease }),
  z.object({ verb: z.literal('digest'), partition, from: offset, to: length }),
  z.object({ verb: z.literal('erase'), ...lease, partition }),
  z.object({ verb: z.literal('restart'), ...lease, to: modeSchema }),
  z.object({ verb: z.literal('tally') }),
])
export type Request = z.infer<typeof requestSchema>
export type Verb = Request['verb']

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
  'no-permission',
  'battery-low',
] as const
export type DeviceRefusal = (typeof REFUSALS)[number]

/** Verbs that change the device; the others may be asked again at will. */
const WRITING: readonly Verb[] = ['begin', 'chunk', 'finish', 'erase', 'restart']
export const isWriting = (verb: Verb): boolean => WRITING.includes(verb)

export const eventSchema = z.discriminatedUnion('event', [
  z.object({ event: z.literal('mode'), mode: modeSchema }),
  z.object({ event: z.literal('screen'), text: z.string() }),
  z.object({ event: z.literal('gone') }),
])
export type DeviceEvent = z.infer<typeof eventSchema>
