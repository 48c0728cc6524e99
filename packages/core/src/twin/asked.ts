/**
 * The twin spoken to as a device is: a request of the link as its input, its output as an answer of the link.
 * Rehearsals and simulated devices speak to it so, and no other way. What carries bytes (`begin`,
 * `file-put`, `chunk`, `finish`) is asked by whoever has them.
 */
import type { LinkRequest, Said } from '../wire/verbs.ts'
import type { TwinInput, TwinOutput } from './stepped.ts'

/** Requests that carry no bytes and ask for none. */
export type Plain = Exclude<
  LinkRequest,
  { verb: 'begin' | 'chunk' | 'finish' | 'table' | 'file-put' }
>

export function inputOf(request: Plain): TwinInput {
  switch (request.verb) {
    case 'hello':
      return { kind: 'hello', epoch: request.epoch }
    case 'facts':
    case 'tally':
      return { kind: request.verb }
    case 'digest':
    case 'blocks':
    case 'read': {
      const { verb: kind, partition, from, to } = request
      return { kind, partition, size: to - from }
    }
    case 'restart':
      return { kind: 'restart', epoch: request.epoch, to: request.to }
    case 'erase':
      return { kind: 'erase', epoch: request.epoch, partition: request.partition }
    case 'lock':
      return { kind: 'lock', epoch: request.epoch, to: request.to }
    case 'file-list':
      return { kind: 'file-list', store: request.store }
    case 'file-digest':
      return { kind: 'file-digest', store: request.store, name: request.name }
    case 'file-drop':
    case 'install': {
      const { verb: kind, epoch, store, name } = request
      return { kind, epoch, store, name }
    }
    case 'merge':
      return { kind: 'merge', epoch: request.epoch, do: request.do }
    case 'permit':
      return { kind: 'take-permit', epoch: request.epoch, permit: request.permit }
    case 'slot':
      return { kind: 'slot', epoch: request.epoch, slot: request.slot }
  }
}

/** What is said where an image's bytes have no digest that is known. */
const UNKNOWN_DIGEST = '0'.repeat(64)

/** What the twin says, as a device would; undefined: nobody is heard. A refusal's words are the device's own. */
export function saidBy(output: TwinOutput): Said | undefined {
  switch (output.kind) {
    case 'facts':
      return { answer: 'facts', facts: output.facts }
    case 'kept':
      return { answer: 'kept', got: output.got }
    case 'mode':
      return { answer: 'mode', mode: output.mode }
    case 'done':
      return { answer: 'done' }
    case 'files':
      return { answer: 'files', files: [...output.files] }
    case 'tally': {
      const { items, bytes, opens } = output
      return { answer: 'tally', items, bytes, opens }
    }
    case 'refused':
      return { answer: 'refused', code: output.code, text: '' }
    case 'digest':
      return { answer: 'digest', sha256: output.image ?? UNKNOWN_DIGEST }
    case 'silent':
      return undefined
  }
}
