/**
 * A tar read as a stream: push bytes in any cutting, take what comes out, say when it ended. Reads
 * ustar, pax and GNU headers; gives entries with the range of the archive their bytes lie in, and those
 * bytes as they pass. No I/O. Every length is held against a limit before it is used. GNU and pax sparse
 * files are refused by name: their holes are not bytes of the archive.
 */
import type { ArchiveRefusal, EntryRefusal } from '../limits.ts'
import { LIMITS } from '../limits.ts'
import type { Header } from './header.ts'
import { BLOCK, isZero, readHeader } from './header.ts'
import { paxNumber, readPax } from './pax.ts'

export type TarEntry = {
  readonly name: string
  readonly size: number
  /** Where its bytes begin in the archive. */
  readonly offset: number
  /** Why it is not used, if it is not. Folders are no entries. */
  readonly refused: EntryRefusal | undefined
}

export type TarOutput =
  | { readonly kind: 'entry'; readonly entry: TarEntry }
  | { readonly kind: 'bytes'; readonly bytes: Uint8Array }
  | { readonly kind: 'entry-end' }
  | { readonly kind: 'end'; readonly endMark: boolean }
  | { readonly kind: 'refused'; readonly refusal: ArchiveRefusal }

export type TarDecoder = {
  /** Takes bytes. After a refusal nothing more comes out. */
  readonly push: (bytes: Uint8Array) => readonly TarOutput[]
  /** No more bytes come. */
  readonly end: () => readonly TarOutput[]
}

type Phase =
  | { readonly kind: 'header' }
  | { readonly kind: 'gather'; readonly header: Header; readonly left: number }
  | {
      readonly kind: 'body'
      readonly left: number
      readonly padding: number
      readonly shown: boolean
    }
  | { readonly kind: 'padding'; readonly left: number }
  | { readonly kind: 'over' }

const padded = (size: number): number => Math.ceil(size / BLOCK) * BLOCK - size
const EMPTY = new Uint8Array()

/** A decoder of one archive. */
export function tarDecoder(): TarDecoder {
  const reader = new TarReader()
  return { push: (bytes) => reader.push(bytes), end: () => reader.end() }
}

/** What is remembered between pushes. A class, because every part of it changes with every block. */
class TarReader {
  private phase: Phase = { kind: 'header' }
  private held: Uint8Array = EMPTY
  private gathered: Uint8Array[] = []
  private offset = 0
  private zeros = 0
  private longName: string | undefined
  private pax: ReadonlyMap<string, string> | undefined
  private current = ''
  private bytesOut = 0
  private readonly names = namesSeen()
  private out: TarOutput[] = []

  push(bytes: Uint8Array): readonly TarOutput[] {
    let rest = bytes
    while (rest.length > 0) rest = rest.subarray(this.take(rest))
    return this.given()
  }

  /** Cut inside the zeros after the last entry is fine; anywhere else something is missing. */
  end(): readonly TarOutput[] {
    if (this.phase.kind === 'over') return this.given()
    const between =
      this.phase.kind === 'padding' || (this.phase.kind === 'header' && isZero(this.held))
    const awaited = this.pax !== undefined || this.longName !== undefined
    if (between && !awaited) this.out.push({ kind: 'end', endMark: false })
    else this.refuse('truncated')
    this.phase = { kind: 'over' }
    return this.given()
  }

  private given(): readonly TarOutput[] {
    const { out } = this
    this.out = []
    return out
  }

  private refuse(rule: ArchiveRefusal['rule'], entry = this.current, at = this.offset): void {
    this.out.push({ kind: 'refused', refusal: { entry, offset: at, rule } })
    this.phase = { kind: 'over' }
  }

  /** Takes what the phase can use of the bytes; answers how many it took, at least one. */
  private take(bytes: Uint8Array): number {
    const { phase } = this
    switch (phase.kind) {
      case 'over':
        return bytes.length
      case 'header':
        return this.takeHeader(bytes)
      case 'gather':
        return this.takeExtended(bytes, phase)
      case 'body':
        return this.takeBody(bytes, phase)
      case 'padding': {
        const taken = Math.min(bytes.length, phase.left)
        this.offset += taken
        this.skip(phase.left - taken)
        return taken
      }
    }
  }

  private takeHeader(bytes: Uint8Array): number {
    const part = bytes.subarray(0, BLOCK - this.held.length)
    const block = this.held.length === 0 ? part : joined([this.held, part])
    this.offset += part.length
    this.held = block.length < BLOCK ? block : EMPTY
    if (block.length === BLOCK) this.header(block)
    return part.length
  }

  private takeExtended(bytes: Uint8Array, phase: Extract<Phase, { kind: 'gather' }>): number {
    const part = bytes.subarray(0, phase.left)
    this.gathered.push(part)
    this.offset += part.length
    const left = phase.left - part.length
    this.phase = { ...phase, left }
    if (left === 0) this.extended(phase.header)
    return part.length
  }

  private takeBody(bytes: Uint8Array, phase: Extract<Phase, { kind: 'body' }>): number {
    const part = bytes.subarray(0, phase.left)
    this.offset += part.length
    if (phase.shown) this.out.push({ kind: 'bytes', bytes: part })
    const left = phase.left - part.length
    this.phase = { ...phase, left }
    if (left === 0) this.bodyEnds(phase)
    return part.length
  }

  /** What is left of a block is padding; none left, and a header comes. */
  private skip(left: number): void {
    this.phase = left === 0 ? { kind: 'header' } : { kind: 'padding', left }
  }

  private header(block: Uint8Array): void {
    const at = this.offset - BLOCK
    if (isZero(block)) return this.zeroBlock()
    this.zeros = 0
    const read = readHeader(block)
    if (!read.ok) return this.refuse(read.refusal, '', at)
    const { type, size, name } = read.value
    if (!EXTENDED.includes(type)) return this.begin(read.value, at)
    if (size > LIMITS.headerBytes) return this.refuse('header-too-long', name, at)
    this.gathered = []
    this.phase = { kind: 'gather', header: read.value, left: size }
    if (size === 0) this.extended(read.value)
  }

  private zeroBlock(): void {
    this.zeros += 1
    if (this.zeros < 2) return
    this.phase = { kind: 'over' }
    this.out.push({ kind: 'end', endMark: true })
  }

  /** An extended header is whole: it speaks of the entry that follows (or, global, of nothing we use). */
  private extended({ type, size }: Header): void {
    const bytes = joined(this.gathered)
    if (type === 'x') {
      this.pax = readPax(bytes)
      if (this.pax === undefined) return this.refuse('pax')
    }
    if (type === 'L') this.longName = new TextDecoder().decode(bytes).replace(/\0.*$/s, '')
    this.skip(padded(size))
  }

  private begin(head: Header, at: number): void {
    const { pax } = this
    const size = pax?.has('size') === true ? paxNumber(pax.get('size')) : head.size
    const name = pax?.get('path') ?? this.longName ?? head.name
    this.current = name
    this.pax = undefined
    this.longName = undefined
    if (size === undefined) return this.refuse('number', name, at)
    if (isSparse(head, pax)) return this.refuse('sparse', name, at)
    const trouble = this.names.add(name)
    if (trouble !== undefined) return this.refuse(trouble, name, at)
    const hasBytes = head.type === '0' || head.type === '7'
    const length = hasBytes ? size : 0
    this.bytesOut += length
    if (this.bytesOut > LIMITS.bytesOut) return this.refuse('too-much', name, at)
    const shown = head.type !== '5' && !(hasBytes && name.endsWith('/'))
    if (shown) {
      const refused = entryRefusal(head, name, this.names)
      const entry = { name, size: length, offset: this.offset, refused }
      this.out.push({ kind: 'entry', entry })
    }
    const body = { kind: 'body', left: length, padding: padded(length), shown } as const
    this.phase = body
    if (length === 0) this.bodyEnds(body)
  }

  private bodyEnds({ shown, padding }: Extract<Phase, { kind: 'body' }>): void {
    if (shown) this.out.push({ kind: 'entry-end' })
    this.skip(padding)
  }
}

/** Types of header that say more about the one after: pax, pax for all, GNU long name, long link. */
const EXTENDED = ['x', 'g', 'L', 'K']

const isSparse = (head: Header, pax: ReadonlyMap<string, string> | undefined): boolean =>
  head.type === 'S' || [...(pax?.keys() ?? [])].some((key) => key.startsWith('GNU.sparse'))

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const bytes = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const part of parts) {
    bytes.set(part, at)
    at += part.length
  }
  return bytes
}

type Names = {
  /** Counts a name; answers the limit it breaks. */
  readonly add: (name: string) => ArchiveRefusal['rule'] | undefined
  readonly isDuplicate: (name: string) => boolean
  readonly isCaseTwin: (name: string) => boolean
}

/** Names of the archive so far: how many, how long, which came twice. */
function namesSeen(): Names {
  const exact = new Map<string, number>()
  const folded = new Map<string, Set<string>>()
  let count = 0
  let bytes = 0
  return {
    add(name) {
      const length = new TextEncoder().encode(name).length
      count += 1
      bytes += length
      if (count > LIMITS.entries) return 'too-many-entries'
      if (length > LIMITS.nameBytes) return 'name-too-long'
      if (bytes > LIMITS.namesBytes) return 'names-too-long'
      exact.set(name, (exact.get(name) ?? 0) + 1)
      const key = name.normalize('NFC').toLowerCase()
      folded.set(key, (folded.get(key) ?? new Set()).add(name))
      return undefined
    },
    isDuplicate: (name) => (exact.get(name) ?? 0) > 1,
    isCaseTwin: (name) => (folded.get(name.normalize('NFC').toLowerCase())?.size ?? 0) > 1,
  }
}

function entryRefusal(head: Header, name: string, names: Names): EntryRefusal | undefined {
  if (head.type === '1' || head.type === '2') return 'link'
  if (head.type !== '0' && head.type !== '7') return 'device'
  if (name === '') return 'no-name'
  if (/^(\/|\\|[A-Za-z]:)/.test(name)) return 'absolute-path'
  if (name.split(/[/\\]/).includes('..')) return 'climbs-out'
  if (names.isDuplicate(name)) return 'duplicate'
  return names.isCaseTwin(name) ? 'case-twin' : undefined
}
