/**
 * The piece that is open on a simulated device: its digest so far, and the bytes of the block that is not
 * whole yet. Flash is written by whole blocks; at a piece's end nothing waits.
 */
import { createHash } from 'node:crypto'
import type { DeviceModel } from '@plain-slate/core'
import { BLOCK_BYTES } from '@plain-slate/core'
import { NO_BYTES } from './answers.ts'
import type { Flash } from './flash.ts'

export class OpenPiece {
  readonly #hash = createHash('sha256')
  /** What came of the block under way. */
  tail: Uint8Array = NO_BYTES

  /** Takes bytes of a piece as it stood before them; `start` is its partition's first byte on the disk. */
  take(flash: Flash, session: DeviceModel['session'], start: number, bytes: Uint8Array): void {
    if (session === undefined) return
    this.#hash.update(bytes)
    const from = start + session.offset + session.got - this.tail.length
    const all = this.tail.length === 0 ? bytes : Buffer.concat([this.tail, bytes])
    const ends = session.got + bytes.length === session.size
    const whole = ends ? all.length : all.length - (all.length % BLOCK_BYTES)
    if (whole > 0) flash.write(from, all.subarray(0, whole))
    this.tail = all.slice(whole)
  }

  /** SHA-256 of what came, as hex. */
  digest = (): string => this.#hash.copy().digest('hex')
}
