/**
 * A step becomes commands: what is said to the device, or asked of a person. The twin executes these in a
 * rehearsal and the agent sends the same to a device, through the same run. Reads a step; gives its
 * commands in order.
 */
import type { Expected, Readiness, Step } from '../plan/step.ts'
import type { Mode } from '../terms/device.ts'

export type Command =
  | { readonly kind: 'person'; readonly ask: Readiness | 'enter'; readonly text: string }
  /** Wait until the device is met in this mode, and compare its ids. */
  | { readonly kind: 'meet'; readonly mode: Mode }
  /** One begin-to-finish of a piece. */
  | {
      readonly kind: 'put'
      readonly partition: string
      readonly offset: number
      readonly size: number
      readonly image: string
    }
  /** The device's digest of the image's range must be the image's. */
  | {
      readonly kind: 'digest'
      readonly partition: string
      readonly size: number
      readonly image: string
    }
  | { readonly kind: 'restart'; readonly to: Mode }
  | { readonly kind: 'facts'; readonly expect: Expected | undefined }

/** The commands of a step. */
export function commandsOf(step: Step): readonly Command[] {
  switch (step.kind) {
    case 'ready':
      return [{ kind: 'person', ask: step.what, text: '' }]
    case 'enter':
      return step.way.hands
        ? [
            { kind: 'person', ask: 'enter', text: step.way.say },
            ...(step.way.to === 'off' ? [] : [{ kind: 'meet', mode: step.way.to } as const]),
          ]
        : [{ kind: 'restart', to: step.way.to }]
    case 'meet':
      return [
        { kind: 'meet', mode: 'loader' },
        { kind: 'facts', expect: undefined },
      ]
    case 'write': {
      const { partition, sha256: image } = step.image
      return [{ kind: 'put', partition, offset: step.offset, size: step.size, image }]
    }
    case 'read-back': {
      const { partition, size, sha256: image } = step.image
      return [{ kind: 'digest', partition, size, image }]
    }
    case 'restart':
      return [{ kind: 'restart', to: 'loader' }]
    case 'first-start':
      return [{ kind: 'restart', to: 'normal' }]
    case 'prove':
      return [{ kind: 'facts', expect: step.expect }]
  }
}
