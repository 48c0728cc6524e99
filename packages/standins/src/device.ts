/**
 * A simulated device: core's twin decides what it says and how long it takes, the flash holds the bytes.
 * Reads one request (or what hands do) and the model time; changes model and flash together; gives the
 * answer. It cuts itself where it was told to, by its own count of bytes kept.
 */
import { crc32 } from 'node:zlib'
import type {
  DeviceEvent,
  DeviceModel,
  DeviceRefusal,
  LinkRequest,
  Mode,
  Nature,
  Part,
  Store,
  TwinInput,
} from '@plain-slate/core'
import {
  BLOCK_BYTES,
  cutAt,
  factsOf,
  inputOf,
  step,
  takesIn,
  withoutMemory,
} from '@plain-slate/core'
import type { Handled } from './answers.ts'
import { NO_BYTES, brokenOff, said, tableOf } from './answers.ts'
import { DeviceFiles } from './device-files.ts'
import { eventsBetween } from './device-events.ts'
import { DevicePieces } from './device-pieces.ts'
import { readRange } from './device-reads.ts'
import type { Lent } from './lent.ts'
import { checkedByBytes } from './checked.ts'
import type { DeviceFile } from './device-file.ts'
import type { Flash } from './flash.ts'
import type { PlannedCut } from './planned-cut.ts'
import { askedOnce, counted } from './planned-cut.ts'
import type { Stores } from './stores.ts'

type Chunk = Extract<LinkRequest, { verb: 'chunk' }>
type ByHandInput = Extract<
  TwinInput,
  { kind: 'charge' | 'permit' | 'reset' | 'lock-switch' | 'sign-out' | 'confirm' }
>

const isErased = (part: Part | undefined): boolean =>
  part !== undefined && part.map.every(({ kind }) => kind === 'erased')

export class SimulatedDevice {
  #model: DeviceModel
  #cut: PlannedCut | undefined
  #port: string | null
  #cellOut: boolean
  #brokenKeys: readonly string[]
  /** Until when it is away from its cable, restarting; ms of model time. */
  #awayUntil = 0
  #left = false
  readonly file: DeviceFile
  readonly nature: Nature
  readonly flash: Flash
  readonly stores: Stores
  readonly #keep: (file: DeviceFile) => void
  readonly #listeners = new Set<(event: DeviceEvent) => void>()
  readonly #lent: Lent = {
    model: () => this.#model,
    cut: () => this.#cut,
    ask: (input, at) => this.#ask(input, at),
    take: (model) => this.#take(model),
    save: () => this.#save(),
    countsDown: () => this.#countsDown(),
    cutNow: (bytes, doneAt) => this.#cutNow(bytes, doneAt),
    site: () => ({
      nature: this.nature,
      flash: this.flash,
      stores: this.stores,
      startOf: this.#startOf,
    }),
  }
  readonly #pieces = new DevicePieces(this.#lent)
  readonly #files = new DeviceFiles(this.#lent, () => this.#pieces.forget())

  constructor(
    file: DeviceFile,
    nature: Nature,
    { flash, stores }: { readonly flash: Flash; readonly stores: Stores },
    keep: (file: DeviceFile) => void = () => undefined,
  ) {
    this.file = file
    this.nature = nature
    this.flash = flash
    this.stores = stores
    this.#keep = keep
    this.#port = file.port
    this.#cellOut = file.cellOut
    this.#brokenKeys = file.brokenKeys
    const model = withoutMemory(file.model)
    stores.keepOnly(model)
    this.#model =
      model.session === undefined
        ? model
        : checkedByBytes(brokenOff(nature.family, model), nature.catalogue, file, flash)
  }

  get model(): DeviceModel {
    return this.#model
  }
  get port(): string | null {
    return this.#port
  }
  get cellOut(): boolean {
    return this.#cellOut
  }
  get brokenKeys(): readonly string[] {
    return this.#brokenKeys
  }
  get awayUntil(): number {
    return this.#awayUntil
  }
  /** What it says of itself. */
  facts = () => factsOf(this.nature, this.#model)

  kept(): DeviceFile {
    return {
      ...this.file,
      port: this.#port,
      cellOut: this.#cellOut,
      brokenKeys: [...this.#brokenKeys],
      extents: [...this.flash.extents()],
      model: this.#model,
    }
  }
  #save(): void {
    if (!this.#left) this.#keep(this.kept())
  }
  /** Saves for the last time: what happens to its stream from now on is not written down. */
  leave(): void {
    this.#save()
    this.#left = true
  }

  plug(port: string): void {
    this.#port = port
    this.#save()
  }
  unplug(): void {
    this.#port = null
    this.#save()
  }
  takeCellOut(): void {
    this.#pieces.losePower()
    this.#cellOut = true
    this.#save()
  }
  putCellIn(): void {
    this.#cellOut = false
    this.#save()
  }
  key(key: string, works: boolean): void {
    const others = this.#brokenKeys.filter((one) => one !== key)
    this.#brokenKeys = works ? others : [...others, key]
    this.#save()
  }
  /** What befalls it without being asked. */
  befall(model: DeviceModel): void {
    this.#take(model)
    this.#pieces.forget()
    this.#save()
  }
  /** What hands do in its settings or to its cell; it is back on its cable when that is done. */
  byHand(input: ByHandInput, at: number): void {
    const stepped = step(this.nature, this.#model, input, at)
    this.#take(stepped.device)
    if (input.kind === 'reset') {
      this.#pieces.forget()
      this.#awayUntil = stepped.doneAt
    }
    this.#save()
  }
  /** The keys of a chord or a menu; answers when it will be there, ms of model time. */
  keys(to: Mode, at: number): number {
    this.#take(checkedByBytes(this.#model, this.nature.catalogue, this.file, this.flash))
    const stepped = step(this.nature, this.#model, { kind: 'keys', to }, at)
    this.#take(stepped.device)
    this.#pieces.forget()
    this.#awayUntil = stepped.doneAt
    this.#save()
    return stepped.doneAt
  }
  /** Started by hands from its menu; why it does not, or undefined. It is not heard before it is through. */
  installByHand(store: Store, at: number): DeviceRefusal | undefined {
    const { refused, doneAt } = this.#files.installByHand(store, at)
    this.#awayUntil = doneAt
    this.#save()
    return refused
  }
  planCut(cut: PlannedCut): void {
    this.#cut = cut
  }

  /** The stream is gone: the session stays, as long as there is power. */
  streamEnded(): void {
    this.#save()
  }

  /** One request. `payload` belongs to chunks. */
  handle(request: LinkRequest, payload: Uint8Array, at: number): Handled {
    this.#cut = askedOnce(this.#cut, request.verb, this.#model.mode)
    if (this.#cut?.asked !== undefined && this.#cut.piece === 0) return this.#cutNow(0, at)
    switch (request.verb) {
      case 'hello':
      case 'facts':
      case 'tally':
        return this.#ask(inputOf(request), at)
      case 'table':
        return this.#table(at)
      case 'begin':
        return this.#pieces.begin(request, at)
      case 'chunk':
        return this.#chunk(request, payload, at)
      case 'finish':
        return this.#model.incoming === undefined
          ? this.#pieces.finish(request, at)
          : this.#files.finish(request, at)
      case 'digest':
      case 'blocks':
      case 'read':
        return readRange(this.#lent, request, at)
      case 'restart':
        return this.#restart(request, at)
      case 'erase':
      case 'lock':
      case 'slot':
      case 'permit':
      case 'merge':
        return this.#changed(inputOf(request), at)
      case 'file-put':
        return this.#files.put(request, at)
      case 'file-digest':
        return this.#files.digest(request, at)
      case 'file-list':
      case 'file-drop':
        return this.#ask(inputOf(request), at)
      case 'install':
        return this.#files.install(request, at)
    }
  }

  #chunk(request: Chunk, payload: Uint8Array, at: number): Handled {
    if (payload.length === 0 || crc32(payload) !== request.crc32)
      return this.#refuse('bad-checksum', at)
    const { incoming } = this.#model
    return (incoming === undefined ? this.#pieces : this.#files).chunk(request, payload, at)
  }

  /** A verb that changes what it keeps; its state is on the disk before it is answered. */
  #changed(input: TwinInput, at: number): Handled {
    const due = this.#countsDown()
    if (due && this.#cut?.bytes === 0) return this.#cutNow(0, at)
    const handled = this.#ask(input, at)
    this.#pieces.forget()
    this.#save()
    return due ? this.#cutNow(0, handled.doneAt) : handled
  }

  /** One more change begun; true when the planned cut falls into it. */
  #countsDown(): boolean {
    if (this.#cut?.asked !== undefined) return false
    this.#cut = counted(this.#cut)
    return this.#cut?.piece === 0
  }

  /** The model and the bytes change together: what is erased now can be read no more. */
  #take(model: DeviceModel): void {
    for (const [name, part] of Object.entries(model.parts))
      if (isErased(part) && !isErased(this.#model.parts[name])) {
        const start = this.#startOf(name)
        this.flash.erase(start, start + part.blocks * BLOCK_BYTES)
      }
    if (model.files !== this.#model.files) this.stores.keepOnly(model)
    const events = eventsBetween(this.nature.family, this.#model, model)
    this.#model = model
    for (const event of events) for (const listener of this.#listeners) listener(event)
  }

  /** Tells a listener what it says without being asked, until the listening is ended. */
  listen(listener: (event: DeviceEvent) => void): () => void {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }

  #ask(input: TwinInput, at: number): Handled {
    const { device, output, doneAt } = step(this.nature, this.#model, input, at)
    this.#take(device)
    return said(output, doneAt)
  }

  /** The cut that was planned: what is kept is kept, the stream ends, with power the session too. */
  #cutNow(bytes: number, doneAt: number): Handled {
    const kind = this.#cut?.kind
    this.#cut = undefined
    if (kind === 'battery') this.#pieces.losePower(bytes)
    else this.#take(cutAt(this.nature.family, this.#model, bytes, false))
    if (kind === 'cable') this.#port = null
    this.#save()
    const answer = { answer: 'kept', at: doneAt, got: bytes } as const
    return { answer, payload: NO_BYTES, doneAt, ends: 'instead' }
  }

  /** Where a partition begins on the disk, in bytes. */
  #startOf = (partition = ''): number => this.file.starts[partition] ?? 0

  #table(at: number): Handled {
    if (!takesIn(this.nature.family, this.#model.mode, 'table'))
      return this.#refuse('wrong-mode', at)
    return tableOf(this.file, this.flash, at)
  }

  #restart(request: Extract<LinkRequest, { verb: 'restart' }>, at: number): Handled {
    const { to } = request
    this.#take(checkedByBytes(this.#model, this.nature.catalogue, this.file, this.flash))
    const { device, output, doneAt } = step(this.nature, this.#model, inputOf(request), at)
    this.#take(device)
    if (output.kind === 'refused') return said(output, doneAt)
    this.#pieces.forget()
    this.#awayUntil = doneAt
    this.#save()
    const answer = { answer: 'mode', at, mode: to } as const
    return { answer, payload: NO_BYTES, doneAt: at, ends: 'after' }
  }

  #refuse(code: DeviceRefusal, at: number): Handled {
    return said({ kind: 'refused', code }, at)
  }
}
