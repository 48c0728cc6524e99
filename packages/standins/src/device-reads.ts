/**
 * Ranges of a simulated device's flash as they are asked for: a digest of all, one of each block, the bytes. What
 * its mode lets be read core's twin says; the bytes are those of the flash. The device lends its state.
 */
import { createHash } from 'node:crypto'
import type { LinkRequest } from '@plain-slate/core'
import { BLOCK_BYTES, BLOCK_DIGEST_BYTES, PAYLOAD_MAX, inputOf } from '@plain-slate/core'
import type { Handled } from './answers.ts'
import { said } from './answers.ts'
import type { Lent } from './lent.ts'

type Ranged = Extract<LinkRequest, { verb: 'digest' | 'blocks' | 'read' }>

export function readRange(lent: Lent, request: Ranged, at: number): Handled {
  const { verb, partition, from, to } = request
  const part = lent.model().parts[partition]
  const odd = part === undefined ? undefined : oddIn(request, part.blocks * BLOCK_BYTES)
  if (odd !== undefined) return said({ kind: 'refused', code: odd }, at)
  const handled = lent.ask(inputOf(request), at)
  if (handled.answer.answer === 'refused') return handled
  const { flash, startOf } = lent.site()
  const start = startOf(partition)
  const { doneAt } = handled
  if (verb === 'digest') {
    const sha256 = flash.digest(start + from, start + to)
    return { ...handled, answer: { answer: 'digest', at: doneAt, sha256 } }
  }
  const bytes = flash.read(start + from, to - from)
  if (verb === 'read')
    return { ...handled, answer: { answer: 'bytes', at: doneAt }, payload: bytes }
  const sizes = { blockBytes: BLOCK_BYTES, digestBytes: BLOCK_DIGEST_BYTES }
  const answer = { answer: 'blocks', at: doneAt, ...sizes } as const
  return { ...handled, answer, payload: blockDigests(bytes) }
}

/** Why a range is none: outside its partition, too much for one answer, or not of whole blocks. */
function oddIn({ verb, from, to }: Ranged, bytes: number) {
  if (to <= from || to > bytes) return 'too-large' as const
  if (verb === 'digest') return undefined
  const payload = verb === 'read' ? to - from : ((to - from) / BLOCK_BYTES) * BLOCK_DIGEST_BYTES
  if (payload > PAYLOAD_MAX) return 'too-large' as const
  const whole = from % BLOCK_BYTES === 0 && to % BLOCK_BYTES === 0
  return verb === 'read' || whole ? undefined : ('bad-offset' as const)
}

function blockDigests(bytes: Uint8Array): Uint8Array {
  const digests: Uint8Array[] = []
  for (let from = 0; from < bytes.length; from += BLOCK_BYTES) {
    const block = bytes.subarray(from, from + BLOCK_BYTES)
    digests.push(createHash('sha256').update(block).digest().subarray(0, BLOCK_DIGEST_BYTES))
  }
  return Buffer.concat(digests)
}
