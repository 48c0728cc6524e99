/**
 * Pieces of images on a simulated device: begun, taken chunk by chunk into the flash, ended by their digest, cut
 * where a cut was planned. The device lends its state; bytes and state change together.
 */
import type { LinkRequest } from '@plain-slate/core'
import { BLOCK_BYTES, answersIn, cutAt, step, withoutPower } from '@plain-slate/core'
import type { Handled } from './answers.ts'
import { brokenOff, said, tornBytes } from './answers.ts'
import type { Lent } from './lent.ts'
import { OpenPiece } from './open-piece.ts'
import { cutWithin } from './planned-cut.ts'

type Asked<V extends LinkRequest['verb']> = Extract<LinkRequest, { verb: V }>

export class DevicePieces {
  #piece = new OpenPiece()
  readonly #lent: Lent
  constructor(lent: Lent) {
    this.#lent = lent
  }

  forget(): void {
    this.#piece = new OpenPiece()
  }

  begin({ epoch, partition, offset, size, image }: Asked<'begin'>, at: number): Handled {
    const { model, take, site, save, countsDown, cut, cutNow } = this.#lent
    const input = { kind: 'begin', epoch, partition, offset, size, image } as const
    const before = model().session
    const { device, output, doneAt } = step(site().nature, model(), input, at)
    take(device)
    if (output.kind !== 'kept') return said(output, doneAt)
    if (device.session !== before) {
      this.forget()
      countsDown()
    }
    save()
    const planned = cut()
    if (planned?.piece === 0 && planned.bytes === 0) return cutNow(0, doneAt)
    return said(output, doneAt)
  }

  chunk({ epoch, offset }: Asked<'chunk'>, payload: Uint8Array, at: number): Handled {
    const { model, take, site, cutNow } = this.#lent
    const { nature, flash, startOf } = site()
    const cut = cutWithin(this.#lent.cut(), offset, payload.length)
    const input = { kind: 'chunk', epoch, offset, size: payload.length } as const
    const before = model()
    const { device, output, doneAt } = step(nature, before, input, at)
    if (output.kind !== 'kept') {
      take(device)
      return said(output, doneAt)
    }
    const taken = cut === undefined ? payload : payload.subarray(0, cut - offset)
    this.#piece.take(flash, before.session, startOf(before.session?.partition ?? ''), taken)
    if (cut === undefined) {
      take(device)
      const empty = !answersIn(nature.family, device.mode)
      if (empty) this.forget()
      return { ...said(output, doneAt), ends: empty ? 'instead' : 'no' }
    }
    take({ ...before, at: device.at, battery: device.battery, epoch: device.epoch })
    return cutNow(cut, doneAt)
  }

  finish(request: Asked<'finish'>, at: number): Handled {
    const { model, take, site, save, ask, cut, cutNow } = this.#lent
    const { session } = model()
    const whole = session !== undefined && session.got === session.size
    if (whole && this.#piece.digest() !== request.piece) {
      take({ ...brokenOff(site().nature.family, model()), mode: model().mode })
      this.forget()
      return said({ kind: 'refused', code: 'bad-digest' }, at)
    }
    const handled = ask({ kind: 'finish', epoch: request.epoch }, at)
    if (handled.answer.answer === 'kept') this.forget()
    const planned = cut()
    if (session !== undefined && planned?.piece === 0 && planned.bytes > session.size)
      return { ...cutNow(session.size, handled.doneAt), ...handled, ends: 'after' }
    save()
    return handled
  }

  /** Power gone: the unfinished block is torn, equal neither to what was there nor to the image. */
  losePower(got = this.#lent.model().session?.got ?? 0): void {
    const { model, take, site } = this.#lent
    const { nature, flash, startOf } = site()
    const { session } = model()
    if (session !== undefined && got % BLOCK_BYTES !== 0 && got < session.size) {
      const within = session.offset + got - (got % BLOCK_BYTES)
      const at = startOf(session.partition) + within
      flash.write(at, tornBytes(flash.read(at, BLOCK_BYTES), this.#piece.tail))
    }
    take(withoutPower(nature.family, cutAt(nature.family, model(), got, true)))
    this.forget()
  }
}
