/**
 * What an operation on a device does, declared once: what it writes, what it needs, what it drains,
 * which pace it follows. Routes cost it, plans fold it, the twin executes it. Reads a family and an
 * operation; gives its effect as data. Bytes are those of the real device (model bytes).
 */
import type { Family, PaceKey } from '../family/profile.ts'
import type { PartRole } from '../terms/device.ts'

export type Operation =
  | { readonly kind: 'hands'; readonly seconds: number }
  | {
      readonly kind: 'write'
      readonly partition: string
      readonly role: PartRole
      readonly bytes: number
    }
  | { readonly kind: 'digest'; readonly bytes: number }
  | { readonly kind: 'restart' }
  | { readonly kind: 'first-start'; readonly wiped: boolean }
  | { readonly kind: 'ask' }

export type Drain = keyof Family['drainPerMinute'] | 'none'

export type Effect = {
  /** How long it lasts: a pace of the family's, or plain seconds. */
  readonly pace: { readonly key: PaceKey; readonly bytes: number } | { readonly seconds: number }
  readonly drain: Drain
  readonly writes: string | undefined
  readonly hands: boolean
  readonly cable: boolean
  readonly restarts: boolean
  readonly raisesFloor: boolean
}

const NOTHING: Effect = {
  pace: { seconds: 0 },
  drain: 'none',
  writes: undefined,
  hands: false,
  cable: true,
  restarts: false,
  raisesFloor: false,
}
/** Reading facts over the link takes about this long on any family. */
const ASK_SECONDS = 2

/** The effect of an operation on this family. */
export function effectOf(family: Family, operation: Operation): Effect {
  switch (operation.kind) {
    case 'hands':
      return { ...NOTHING, pace: { seconds: operation.seconds }, hands: true, cable: false }
    case 'write':
      return {
        ...NOTHING,
        pace: { key: 'write', bytes: operation.bytes },
        drain: 'writing',
        writes: operation.partition,
        raisesFloor: family.floors.rises === 'write',
      }
    case 'digest':
      return { ...NOTHING, pace: { key: 'digest', bytes: operation.bytes }, drain: 'idle' }
    case 'restart':
      return {
        ...NOTHING,
        pace: { key: 'restart', bytes: 0 },
        drain: 'idle',
        restarts: true,
      }
    case 'first-start':
      return {
        ...NOTHING,
        pace: { key: operation.wiped ? 'first-start-wiped' : 'first-start', bytes: 0 },
        drain: 'first-start',
        restarts: true,
        raisesFloor: family.floors.rises === 'first-start',
      }
    case 'ask':
      return { ...NOTHING, pace: { seconds: ASK_SECONDS }, drain: 'idle' }
  }
}
