/**
 * A step becomes commands: what is said to the device, or asked of a person. The twin executes these in a
 * rehearsal and the agent sends the same to a device, through the same run. Reads a step; gives its
 * commands in order.
 */
import { z } from 'zod'
import type { Step } from '../plan/step.ts'
import { READINESS, expectedSchema } from '../plan/step.ts'
import { modeSchema } from '../terms/device.ts'

const bytes = z.int().nonnegative()
const partition = z.string()
/** SHA-256 of the whole image, as hex. */
const image = z.string()

/** Commands as they are kept and sent between processes: parsed wherever one takes them. */
export const commandSchema = z.discriminatedUnion('kind', [
  z
    .object({
      kind: z.literal('person'),
      ask: z.enum([...READINESS, 'enter']),
      /** The family's sentence for hands; empty where the ask says it all. */
      text: z.string(),
      /** The mode that the hands lead to, where they do. */
      to: z.exactOptional(modeSchema),
    })
    .readonly(),
  /** Wait until the device is met in this mode, and compare its ids. */
  z.object({ kind: z.literal('meet'), mode: modeSchema }).readonly(),
  /** One begin-to-finish of a piece; bytes of the flash. */
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
])
export type Command = z.infer<typeof commandSchema>

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
        { kind: 'meet', mode: step.mode },
        { kind: 'facts', expect: undefined },
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
    case 'restart':
      return [{ kind: 'restart', to: step.to }]
    case 'first-start':
      return [{ kind: 'restart', to: step.to, first: step.wiped ? 'wiped' : 'kept' }]
    case 'prove':
      return [{ kind: 'facts', expect: step.expect }]
  }
}
