/** What a step does to a device, as an operation with its declared effect. */
import type { Operation } from '../effect/effect.ts'
import type { StepBody } from './step.ts'

export function operationOf(step: StepBody): Operation {
  switch (step.kind) {
    case 'ready':
      return { kind: 'hands', seconds: step.seconds }
    case 'by-hand':
      return step.what === 'reset'
        ? { kind: 'reset' }
        : { kind: 'hands', seconds: step.seconds, plugged: true }
    case 'enter':
      return step.way.hands ? { kind: 'hands', seconds: step.way.seconds } : { kind: 'restart' }
    case 'meet': {
      const left = step.look?.left ?? []
      const bytes = left.reduce((sum, { image, scale }) => sum + image.size * scale, 0)
      return bytes === 0 ? { kind: 'ask' } : { kind: 'digest', bytes }
    }
    case 'prove':
      return { kind: 'ask' }
    case 'write': {
      const { partition, role } = step.image
      return { kind: 'write', partition, role, bytes: step.size * step.scale }
    }
    case 'erase':
      return { kind: 'erase', partition: step.partition, role: step.role }
    case 'lock':
      return { kind: 'lock', to: step.to, model: step.model }
    case 'permit':
      return { kind: 'permit' }
    case 'slot':
      return { kind: 'slot', slot: step.slot }
    case 'read-back':
      return { kind: 'digest', bytes: step.image.size * step.scale }
    case 'copy':
      return { kind: 'copy', bytes: step.bytes * step.scale }
    case 'prove-copy':
      return { kind: 'digest', bytes: step.bytes * step.scale }
    case 'push':
    case 'install': {
      const { kind, store, slowly, slot, bytes, scale } = step
      return { kind: 'install', store, pushed: kind === 'push', slowly, slot, bytes: bytes * scale }
    }
    case 'merge':
      return { kind: 'merge', do: step.do }
    case 'drop':
      return { kind: 'ask' }
    case 'restart':
      return { kind: 'restart' }
    case 'first-start':
      return { kind: 'first-start', wiped: step.wiped }
  }
}
