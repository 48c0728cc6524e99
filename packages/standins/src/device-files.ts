/**
 * Files on a simulated device: their bytes on its stores, packages it opens and installs by itself. The device lends
 * its state and its flash; both change together, and what is answered is on the disk.
 */
import type { DeviceRefusal, LinkRequest, Store, TwinInput } from '@plain-slate/core'
import { inputOf, installCut, step } from '@plain-slate/core'
import type { Handled } from './answers.ts'
import { said } from './answers.ts'
import type { Lent } from './lent.ts'
import type { PlannedCut } from './planned-cut.ts'
import { cutWithin } from './planned-cut.ts'
import type { Stores } from './stores.ts'

type Asked<V extends LinkRequest['verb']> = Extract<LinkRequest, { verb: V }>
type Install = Extract<TwinInput, { kind: 'install' }>

/** The middle of an install. */
const HALF = 0.5

export class DeviceFiles {
  readonly #lent: Lent
  readonly #forgetPiece: () => void
  constructor(lent: Lent, forgetPiece: () => void) {
    this.#lent = lent
    this.#forgetPiece = forgetPiece
  }

  get #stores(): Stores {
    return this.#lent.site().stores
  }

  put({ epoch, store, name, size, image }: Asked<'file-put'>, at: number): Handled {
    const { model, ask, save, countsDown, cut, cutNow } = this.#lent
    const before = model().incoming
    const handled = ask({ kind: 'file-put', epoch, store, name, size, image }, at)
    if (handled.answer.answer !== 'kept') return handled
    const { incoming } = model()
    if (incoming?.got === 0) this.#stores.begin(incoming)
    if (before === undefined || incoming?.got === 0) countsDown()
    save()
    const planned = cut()
    return planned?.piece === 0 && planned.bytes === 0 ? cutNow(0, handled.doneAt) : handled
  }

  /** What came is on the disk before it is answered; a cut keeps what came before it. */
  chunk({ epoch, offset }: Asked<'chunk'>, payload: Uint8Array, at: number): Handled {
    const { model, ask, cutNow } = this.#lent
    const { incoming } = model()
    const cut = cutWithin(this.#lent.cut(), offset, payload.length)
    const taken = cut === undefined ? payload : payload.subarray(0, cut - offset)
    const handled = ask({ kind: 'chunk', epoch, offset, size: taken.length }, at)
    if (handled.answer.answer !== 'kept' || incoming === undefined) return handled
    this.#stores.append(incoming, offset, taken)
    return cut === undefined ? handled : cutNow(cut, handled.doneAt)
  }

  /** A file that is all there is what it was announced to be, or nothing of it stays. */
  finish({ epoch, piece }: Asked<'finish'>, at: number): Handled {
    const { model, ask, take, save, cut, cutNow } = this.#lent
    const { incoming } = model()
    const whole = incoming !== undefined && incoming.got === incoming.size
    if (whole && [piece, this.#stores.digest(incoming)].some((one) => one !== incoming.holds)) {
      take({ ...model(), incoming: undefined })
      this.#stores.keepOnly(model())
      return said({ kind: 'refused', code: 'bad-digest' }, at)
    }
    const handled = ask({ kind: 'finish', epoch }, at)
    const planned = cut()
    const copied = incoming !== undefined && incoming.store !== 'push'
    if (copied && planned?.piece === 0 && planned.bytes > incoming.size)
      return { ...cutNow(0, handled.doneAt), ...handled, ends: 'after' }
    save()
    return handled
  }

  digest(request: Asked<'file-digest'>, at: number): Handled {
    const handled = this.#lent.ask(inputOf(request), at)
    if (handled.answer.answer !== 'digest') return handled
    const sha256 = this.#stores.digest(request)
    return { ...handled, answer: { answer: 'digest', at: handled.doneAt, sha256 } }
  }

  /** A package it was told to install: a cut falls into the middle of it, or after it. */
  install({ epoch, store, name }: Asked<'install'>, at: number): Handled {
    const { model, save, cut, cutNow } = this.#lent
    const asked = { kind: 'install', epoch, store, name } as const
    const file = model().files.find((one) => one.store === store && one.name === name)
    const size = file?.size ?? 0
    const planned = cut()
    const due = planned?.piece === 0 && planned.bytes > size
    const handled = this.#installs(asked, at, due && isHalf(planned, size + 1))
    save()
    return due ? { ...cutNow(0, handled.doneAt), ends: 'instead' } : handled
  }

  /** Started by hands from its menu; why it does not, or undefined, and when it is through. */
  installByHand(
    store: Store,
    at: number,
  ): { readonly refused: DeviceRefusal | undefined; readonly doneAt: number } {
    const { countsDown, cut, cutNow } = this.#lent
    const due = countsDown()
    const planned = cut()
    if (due && planned?.bytes === 0) {
      cutNow(0, at)
      return { refused: undefined, doneAt: at }
    }
    const asked = { kind: 'install', store, name: undefined } as const
    const { answer, doneAt } = this.#installs(asked, at, due && isHalf(planned, 1))
    if (due) cutNow(0, doneAt)
    return { refused: answer.answer === 'refused' ? answer.code : undefined, doneAt }
  }

  /** Opened and checked by its own bytes, then written: model and flash together. */
  #installs(asked: Install, at: number, half: boolean): Handled {
    const { model, take, site } = this.#lent
    const { nature: own, stores, flash, startOf } = site()
    const before = model()
    const packages = stores.packages(before, own.catalogue)
    const nature = { ...own, packages: packages.facts }
    const stepped = step(nature, before, asked, at)
    const device = half ? installCut(nature, before, asked, HALF) : stepped.device
    packages.write(before, device, { flash, startOf })
    take(device)
    this.#forgetPiece()
    return said(stepped.output, stepped.doneAt)
  }
}

const isHalf = (planned: PlannedCut | undefined, at: number): boolean =>
  planned?.kind === 'battery' && planned.bytes === at
