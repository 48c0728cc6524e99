/**
 * A second far end, written from docs/link.md alone: one handheld in memory, which shares no code with the twin or
 * with the simulated bench. What stands on it is what its bytes digest to; how it starts is written out here for this
 * one family. Agreement with it is agreement with somebody else.
 */
import { createHash } from 'node:crypto'
import { createServer } from 'node:net'
import type { AddressInfo, Server, Socket } from 'node:net'
import { crc32 } from 'node:zlib'

/** What its maker signed of an image. */
export type Signed = {
  readonly role: string
  readonly size: number
  readonly builds: readonly {
    readonly build: string
    readonly release: number
    readonly patchDate: string
    readonly generation: number
    readonly minLoader: number
  }[]
  /** The loader it is, of a loader. */
  readonly version?: number
}

export type Born = {
  readonly secret: string
  readonly serial: string
  readonly fused: Readonly<Record<string, string | number>>
  readonly flash: Buffer
  /** Where each partition begins and how long it is, in bytes. */
  readonly parts: Readonly<Record<string, { readonly at: number; readonly bytes: number }>>
  readonly signed: ReadonlyMap<string, Signed>
  readonly loader: number
  readonly floor: number
  readonly battery: number
  readonly scale: number
}

type Header = Readonly<Record<string, unknown>>
type Reply = { readonly header: Header; readonly payload?: Buffer; readonly ends?: boolean }
type Piece = { key: string; at: number; size: number; image: string; got: number; hash: Buffer[] }

const SET = ['kernel', 'support', 'main']
const NEVER = ['calib', 'customer']
const SECTOR = 512
const HEAD_SECTORS = 34
const HEADER_MOST = 64 * 1024
const PAYLOAD_MOST = 1024 * 1024

const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

export class SmallDevice {
  readonly born: Born
  readonly #server: Server
  mode = 'normal'
  outcome = 'normal'
  floor: number
  waits = false
  #fresh = false
  #epoch = 0
  #clock = 1
  #piece: Piece | undefined
  #owner: Socket | undefined
  /** Its cable comes out once so many bytes of the nth piece are kept. */
  cable: { piece: number; bytes: number } | undefined
  #pieces = 0

  constructor(born: Born) {
    this.born = born
    this.floor = born.floor
    this.#server = createServer((socket) => this.#meet(socket))
  }

  async open(): Promise<number> {
    await new Promise<void>((resolve) => this.#server.listen(0, '127.0.0.1', resolve))
    return (this.#server.address() as AddressInfo).port
  }

  async close(): Promise<void> {
    this.#owner?.destroy()
    await new Promise<void>((resolve) => this.#server.close(() => resolve()))
  }

  /** The digest of the image that a partition holds, by its bytes; undefined: none that was signed. */
  holds(partition: string): string | undefined {
    const place = this.born.parts[partition]
    if (place === undefined) return undefined
    const sizes = new Set([...this.born.signed.values()].map(({ size }) => size))
    for (const size of sizes) {
      if (size > place.bytes) continue
      const digest = sha(this.born.flash.subarray(place.at, place.at + size))
      if (this.born.signed.get(digest)?.role === partition) return digest
    }
    return undefined
  }

  /** The newest build that the whole set is of, and whether the loader is new enough for it. */
  #starts() {
    const sets = SET.map((part) => this.born.signed.get(this.holds(part) ?? '')?.builds ?? [])
    const [first = [], ...others] = sets
    const common = first.filter(({ build }) =>
      others.every((set) => set.some((one) => one.build === build)),
    )
    const found = [...common].sort((a, b) => (a.patchDate < b.patchDate ? 1 : -1))[0]
    return found !== undefined && found.minLoader <= this.#loader() ? found : undefined
  }

  #loader(): number {
    return this.born.signed.get(this.holds('loader') ?? '')?.version ?? this.born.loader
  }

  /** Keys, or a word over the link: dead, looping, or in the mode that was wanted. */
  start(to: string): void {
    this.#piece = undefined
    const build = this.#starts()
    if (to === 'normal' && build === undefined) {
      this.mode = 'off'
      this.outcome = 'loop'
      return
    }
    this.mode = to
    if (to !== 'normal' || build === undefined) return
    this.outcome = 'normal'
    if (this.#fresh) this.floor = Math.max(this.floor, build.generation)
    this.waits = this.waits || (this.#fresh && build.build >= 'H2.104')
    this.#fresh = false
  }

  facts(): Header {
    const main = this.born.signed.get(this.holds('main') ?? '')?.builds.at(-1)
    const { build, release, patchDate } = this.#starts() ?? main ?? {}
    return {
      ...this.born.fused,
      serial: this.born.serial,
      mode: this.mode,
      ...(build === undefined ? {} : { build, release, patchDate }),
      loaderVersion: this.#loader(),
      floor: this.floor,
      bootLock: 'closed',
      batteryPercent: this.born.battery,
      outcome: this.outcome,
      ...(this.waits ? { asks: 'go-on' } : {}),
      returns: this.outcome === 'loop' ? 1 : 0,
      scale: this.born.scale,
    }
  }

  #meet(socket: Socket): void {
    let came = Buffer.alloc(0)
    let greeted = false
    socket.on('error', () => socket.destroy())
    if (this.mode === 'off') return void socket.destroy()
    const late = setTimeout(() => greeted || socket.destroy(), 2000)
    socket.on('close', () => clearTimeout(late))
    socket.on('data', (bytes: Buffer) => {
      came = Buffer.concat([came, bytes])
      for (;;) {
        if (came.length < 4) return
        const length = came.readUInt32BE(0)
        if (length > HEADER_MOST) return void socket.destroy()
        if (came.length < 4 + length) return
        const header = JSON.parse(came.subarray(4, 4 + length).toString('utf8')) as Header
        const more = typeof header['payload'] === 'number' ? header['payload'] : 0
        if (more > PAYLOAD_MOST) return void socket.destroy()
        if (came.length < 4 + length + more) return
        const payload = Buffer.from(came.subarray(4 + length, 4 + length + more))
        came = came.subarray(4 + length + more)
        if (!greeted) {
          const known = header['verb'] === 'hello' && header['secret'] === this.born.secret
          if (!known || header['protocol'] !== 'plain-slate/link@1') return void socket.destroy()
          greeted = true
          if (!this.#greets(socket, header)) return
        }
        const { header: answer, payload: bytes2, ends } = this.#answer(header, payload)
        if (ends === true && answer['cut'] === true) return void socket.destroy()
        this.#send(socket, { ...answer, id: header['id'] }, bytes2)
        if (ends === true) socket.end()
      }
    })
  }

  /** A look is turned away while somebody owns it; an older owner is told so. */
  #greets(socket: Socket, { epoch, id }: Header): boolean {
    const looks = epoch === 0
    if (!looks && Number(epoch) < this.#epoch) {
      this.#send(socket, { ...this.#refused('old-epoch'), id })
      socket.end()
      return false
    }
    if (looks && this.#owner !== undefined && !this.#owner.closed) {
      socket.destroy()
      return false
    }
    if (looks) return true
    this.#owner?.destroy()
    this.#owner = socket
    return true
  }

  #send(socket: Socket, header: Header, payload?: Buffer): void {
    const full = payload === undefined ? header : { ...header, payload: payload.length }
    const text = Buffer.from(JSON.stringify(full))
    const length = Buffer.alloc(4)
    length.writeUInt32BE(text.length)
    socket.write(Buffer.concat([length, text, payload ?? Buffer.alloc(0)]))
  }

  #refused = (code: string): Header => ({ answer: 'refused', at: this.#clock, code, text: code })
  #kept = (got: number): Header => ({ answer: 'kept', at: this.#clock, got })

  #answer(asked: Header, payload: Buffer): Reply {
    this.#clock += 1
    const verb = String(asked['verb'])
    const owns = 'epoch' in asked && !(verb === 'hello' && asked['epoch'] === 0)
    if (owns && Number(asked['epoch']) < this.#epoch) return { header: this.#refused('old-epoch') }
    if (owns) this.#epoch = Number(asked['epoch'])
    switch (verb) {
      case 'hello':
      case 'facts':
        return { header: { answer: 'facts', at: this.#clock, facts: this.facts() } }
      case 'table':
        return this.#table()
      case 'begin':
        return this.#begin(asked)
      case 'chunk':
        return this.#chunk(asked, payload)
      case 'finish':
        return this.#finish(asked)
      case 'digest':
      case 'blocks':
        return this.#digests(asked)
      case 'erase':
        return this.#erase(String(asked['partition']))
      case 'restart':
        this.start(String(asked['to']))
        return { header: { answer: 'mode', at: this.#clock, mode: asked['to'] }, ends: true }
      case 'file-put':
      case 'file-list':
        return { header: this.#refused(isPlain(asked['name']) ? 'no-store' : 'unknown-verb') }
      case 'read':
      case 'permit':
      case 'lock':
      case 'slot':
      case 'install':
        return { header: this.#refused('wrong-mode') }
      default:
        return { header: this.#refused('unknown-verb') }
    }
  }

  /** Of a range, or sixteen bytes of the SHA-256 of each 4 KiB of it. */
  #digests({ verb, partition, from, to }: Header): Reply {
    const place = this.born.parts[String(partition)]
    if (place === undefined || Number(to) > place.bytes)
      return { header: this.#refused(place === undefined ? 'no-partition' : 'too-large') }
    const range = this.born.flash.subarray(place.at + Number(from), place.at + Number(to))
    const at = this.#clock
    if (verb === 'digest') return { header: { answer: 'digest', at, sha256: sha(range) } }
    const digests = Array.from({ length: range.length / 4096 }, (_, index) =>
      Buffer.from(sha(range.subarray(index * 4096, index * 4096 + 4096)).slice(0, 32), 'hex'),
    )
    const header = { answer: 'blocks', at, blockBytes: 4096, digestBytes: 16 }
    return { header, payload: Buffer.concat(digests) }
  }

  #table(): Reply {
    const { flash } = this.born
    const head = HEAD_SECTORS * SECTOR
    const tail = (HEAD_SECTORS - 1) * SECTOR
    const ranges = [
      { at: 0, length: head },
      { at: flash.length - tail, length: tail },
    ]
    const payload = Buffer.concat(ranges.map(({ at, length }) => flash.subarray(at, at + length)))
    const plain = { sectorBytes: SECTOR, diskBytes: flash.length, ranges }
    return { header: { answer: 'table', at: this.#clock, ...plain }, payload }
  }

  #begin(asked: Header): Reply {
    const [partition, image] = [String(asked['partition']), String(asked['image'])]
    const [offset, size] = [Number(asked['offset']), Number(asked['size'])]
    const place = this.born.parts[partition]
    if (this.mode !== 'loader') return { header: this.#refused('wrong-mode') }
    if (place === undefined) return { header: this.#refused('no-partition') }
    if (NEVER.includes(partition)) return { header: this.#refused('never-written') }
    if (this.born.signed.get(image)?.role !== partition)
      return { header: this.#refused('not-signed') }
    if (offset + size > place.bytes) return { header: this.#refused('too-large') }
    const key = `${partition} ${offset} ${image}`
    if (this.#piece?.key !== key) {
      this.#piece = { key, at: place.at + offset, size, image, got: 0, hash: [] }
      this.#pieces += 1
    }
    return { header: this.#kept(this.#piece.got) }
  }

  #chunk(asked: Header, payload: Buffer): Reply {
    const piece = this.#piece
    if (payload.length === 0 || crc32(payload) !== asked['crc32'])
      return { header: this.#refused('bad-checksum') }
    if (piece === undefined) return { header: this.#refused('no-session') }
    if (asked['offset'] !== piece.got || piece.got + payload.length > piece.size)
      return { header: this.#refused('bad-offset') }
    const { cable } = this
    const cuts =
      cable?.piece === this.#pieces &&
      cable.bytes > piece.got &&
      cable.bytes <= piece.got + payload.length
    const taken = cuts ? payload.subarray(0, cable.bytes - piece.got) : payload
    taken.copy(this.born.flash, piece.at + piece.got)
    piece.hash.push(Buffer.from(taken))
    piece.got += taken.length
    this.#fresh = true
    if (cuts) this.cable = undefined
    return cuts ? { header: { cut: true }, ends: true } : { header: this.#kept(piece.got) }
  }

  #finish(asked: Header): Reply {
    const piece = this.#piece
    if (piece === undefined) return { header: this.#refused('no-session') }
    if (piece.got < piece.size) return { header: this.#refused('bad-offset') }
    this.#piece = undefined
    const right = sha(Buffer.concat(piece.hash)) === asked['piece']
    return { header: right ? this.#kept(piece.size) : this.#refused('bad-digest') }
  }

  #erase(partition: string): Reply {
    const place = this.born.parts[partition]
    if (this.mode !== 'loader') return { header: this.#refused('wrong-mode') }
    if (place === undefined) return { header: this.#refused('no-partition') }
    if (!['customer', 'cache'].includes(partition))
      return { header: this.#refused('never-written') }
    this.born.flash.fill(0, place.at, place.at + place.bytes)
    return { header: { answer: 'done', at: this.#clock } }
  }
}

const isPlain = (name: unknown): boolean =>
  name === undefined || /^[A-Za-z0-9][A-Za-z0-9._-]*$/.test(String(name))
