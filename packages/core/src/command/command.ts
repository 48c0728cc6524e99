/**
 * A step becomes commands: what is said to the device, or asked of a person. The twin executes these in a
 * rehearsal and the agent sends the same to a device, through the same run. Reads a step; gives its
 * commands in order.
 */
import { z } from 'zod'
import type { Way } from '../family/profile.ts'
import type { Step } from '../plan/step.ts'
import { BY_HAND, READINESS, expectedSchema, idsSchema } from '../plan/step.ts'
import type { Mode } from '../terms/device.ts'
import { modeSchema, slotSchema, storeSchema } from '../terms/device.ts'
import { permitSchema } from '../wire/permit.ts'

const bytes = z.int().nonnegative()
const partition = z.string()
/** SHA-256 of the whole image, as hex. */
const image = z.string()

const file = { store: storeSchema, name: z.string() }

/** What a person is asked for: to make ready, to press keys, to start an install, to do what is left to hands. */
export const ASKS = [...READINESS, 'enter', 'install', ...BY_HAND] as const
export type Ask = (typeof ASKS)[number]

/** Commands as they are kept and sent between processes: parsed wherever one takes them. */
export const commandSchema = z.discriminatedUnion('kind', [
  z
    .object({
      kind: z.literal('person'),
      ask: z.enum(ASKS),
      /** The family's sentence for hands; empty where the ask says it all. */
      text: z.string(),
      /** The mode that the hands lead to, where they do. */
      to: z.exactOptional(modeSchema),
      /** Where hands find what they are asked for; what they install, of which store. */
      mode: z.exactOptional(modeSchema),
      store: z.exactOptional(storeSchema),
    })
    .readonly(),
  /** Wait until the device is met in this mode, and compare its ids. */
  z
    .object({ kind: z.literal('meet'), mode: modeSchema, ids: z.exactOptional(idsSchema) })
    .readonly(),
  /** A piece of an image to a partition: real bytes of the flash. */
  z
    .object({
      kind: z.literal('put'),
      mode: modeSchema,
      partition,
      offset: bytes,
      size: bytes,
      image,
    })
    .readonly(),
  /** The device's digest of the image's range must be the image's. */
  z
    .object({ kind: z.literal('digest'), mode: modeSchema, partition, size: bytes, image })
    .readonly(),
  /** The partition table must be this one, as `tableText` says it. */
  z.object({ kind: z.literal('table'), mode: modeSchema, table: z.string() }).readonly(),
  /** An update of its own: waited for until it is through, or taken back. */
  z
    .object({ kind: z.literal('merge'), mode: modeSchema, do: z.enum(['wait', 'cancel']) })
    .readonly(),
  /** A partition erased from end to end. */
  z.object({ kind: z.literal('erase'), mode: modeSchema, partition }).readonly(),
  z
    .object({ kind: z.literal('lock'), mode: modeSchema, to: z.enum(['open', 'closed']) })
    .readonly(),
  /** The slot that is to be tried at the next start. */
  z.object({ kind: z.literal('slot'), mode: modeSchema, slot: slotSchema }).readonly(),
  z.object({ kind: z.literal('permit'), mode: modeSchema, permit: permitSchema }).readonly(),
  /** A whole file to a store; `image` is its SHA-256. */
  z.object({ kind: z.literal('copy'), mode: modeSchema, ...file, size: bytes, image }).readonly(),
  /** The device's digest of a file must be this. */
  z.object({ kind: z.literal('prove-copy'), mode: modeSchema, ...file, image }).readonly(),
  z.object({ kind: z.literal('drop'), mode: modeSchema, ...file }).readonly(),
  /** A file put where it lies in memory, and installed by the device. */
  z.object({ kind: z.literal('push'), mode: modeSchema, ...file, size: bytes, image }).readonly(),
  z
    .object({
      kind: z.literal('restart'),
      to: modeSchema,
      /** Of the system, the first after it was written: whether the customer's data are there. */
      first: z.exactOptional(z.enum(['kept', 'wiped'])),
    })
    .readonly(),
  /** The device's facts; what is expected of them must hold. */
  z.object({ kind: z.literal('facts'), expect: expectedSchema.optional() }).readonly(),
  /** Nothing of the customer's can be counted any more. */
  z.object({ kind: z.literal('tally'), items: z.literal(0) }).readonly(),
])
export type Command = z.infer<typeof commandSchema>

/** The mode in which a command is carried out, or that it leads to; undefined: whatever it is in. */
export function modeOf(command: Command | undefined): string | undefined {
  if (command === undefined) return undefined
  if ('mode' in command) return command.kind === 'meet' ? undefined : command.mode
  return command.kind === 'restart' ? command.to : undefined
}

/** The commands of a step. */
export function commandsOf(step: Step): readonly Command[] {
  switch (step.kind) {
    case 'ready':
      return [{ kind: 'person', ask: step.what, text: '' }]
    case 'enter': {
      const { way, answers } = step
      if (!way.hands) return [{ kind: 'restart', to: way.to }]
      const hands = { kind: 'person', ask: 'enter', text: way.say, to: way.to } as const
      return answers ? [hands, { kind: 'meet', mode: way.to }] : [hands]
    }
    case 'meet':
      return [
        { kind: 'meet', mode: step.mode, ids: step.ids },
        { kind: 'facts', expect: undefined },
        ...lookedAt(step),
      ]
    case 'write': {
      const { partition, sha256: image } = step.image
      const { mode, offset, size } = step
      return [{ kind: 'put', mode, partition, offset, size, image }]
    }
    case 'read-back': {
      const { partition, size, sha256: image } = step.image
      return [{ kind: 'digest', mode: step.mode, partition, size, image }]
    }
    case 'erase':
      return [{ kind: 'erase', mode: step.mode, partition: step.partition }]
    case 'lock':
      return [{ kind: 'lock', mode: step.mode, to: step.to }]
    case 'merge':
      return [{ kind: 'merge', mode: step.mode, do: step.do }]
    case 'permit':
      return [{ kind: 'permit', mode: step.mode, permit: step.permit }]
    case 'slot':
      return [{ kind: 'slot', mode: step.mode, slot: step.slot }]
    case 'restart':
      return [{ kind: 'restart', to: step.to }]
    case 'first-start':
      if (step.by !== undefined) return startedByHand(step.by, step.wiped)
      return [{ kind: 'restart', to: step.to, first: step.wiped ? 'wiped' : 'kept' }]
    case 'by-hand':
      return [{ kind: 'person', ask: step.what, text: step.say, ...modeIn(step) }]
    case 'copy':
    case 'push':
    case 'prove-copy':
    case 'drop':
    case 'install':
      return inStore(step)
    case 'prove':
      return [
        { kind: 'facts', expect: step.expect },
        ...(step.wiped ? [{ kind: 'tally', items: 0 } as const] : []),
      ]
  }
}

const modeIn = ({ mode }: { readonly mode?: Mode }) => (mode === undefined ? {} : { mode })

/** The table and what is left alone, looked at again before anything is written. */
function lookedAt({ mode, look }: Extract<Step, { kind: 'meet' }>): readonly Command[] {
  const { table, left } = look ?? { table: undefined, left: [] }
  const digests = left.map(({ image: { partition, size, sha256: image } }) => ({
    kind: 'digest' as const,
    mode,
    partition,
    size,
    image,
  }))
  return [...(table === undefined ? [] : [{ kind: 'table' as const, mode, table }]), ...digests]
}

type InStore = Extract<Step, { kind: 'copy' | 'push' | 'prove-copy' | 'drop' | 'install' }>

/** Commands of a step with a package in a store. */
function inStore(step: InStore): readonly Command[] {
  const { mode, store, name } = step
  switch (step.kind) {
    case 'copy':
    case 'push': {
      const { kind, bytes: size, archive: image } = step
      return [{ kind, mode, store, name, size, image }]
    }
    case 'prove-copy':
      return [{ kind: 'prove-copy', mode, store, name, image: step.archive }]
    case 'drop':
      return [{ kind: 'drop', mode, store, name }]
    case 'install':
      return [
        { kind: 'person', ask: 'install', text: step.say, mode, store },
        { kind: 'meet', mode },
      ]
  }
}

/** Hands start it; wiped, nobody is heard before somebody has gone through the set-up. */
function startedByHand(way: Way, wiped: boolean): readonly Command[] {
  const hands = { kind: 'person', ask: 'enter', text: way.say, to: way.to } as const
  return wiped ? [hands] : [hands, { kind: 'meet', mode: way.to }]
}
