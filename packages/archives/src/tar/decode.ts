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
import { nameText } from './names.ts'
import { kindOfBytes } from './not-tar.ts'
import { mergePax, paxNumber, readPax } from './pax.ts'

export type TarEntry = {
  readonly name: string
  readonly size: number
  /** Where its bytes begin in the archive. */
  readonly offset: number
  /** A folder has no bytes; it is told, since its name may climb out or be another's twin. */
  readonly folder: boolean
  /** Why it is not used, if it is not. */
  readonly refused: EntryRefusal | undefined
}

/** What stands behind the end mark, and where: no refusal, but it is said. */
export type Behind = { readonly what: 'second-archive' | 'bytes'; readonly offset: number }

export type TarOutput =
  | { readonly kind: 'entry'; readonly entry: TarEntry }
  | { readonly kind: 'bytes'; readonly bytes: Uint8Array }
  | { readonly kind: 'entry-end' }
  | { readonly kind: 'end'; readonly endMark: boolean; readonly behind: Behind | undefined }
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
  /** The end mark was met; what comes behind it is looked at, and not used. */
  | { readonly kind: 'behind' }
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
  private begun = 0
  private globals: ReadonlyMap<string, string> = new Map()
  private behind: Behind | undefined
  private readonly names = namesSeen()
  private out: TarOutput[] = []

  push(bytes: Uint8Array): readonly TarOutput[] {
    let rest = bytes
    while (rest.length > 0) rest = rest.subarray(this.take(rest))
    return this.given()
  }

  /** Cut inside the zeros after the last entry is fine; anywhere else something is missing. */
  end(): readonly TarOutput[] {
    const { phase } = this
    if (phase.kind === 'over') return this.given()
    if (phase.kind === 'behind') this.lookBehind(this.held, this.offset - this.held.length)
    const between = phase.kind === 'padding' || (phase.kind === 'header' && isZero(this.held))
    const awaited = this.pax !== undefined || this.longName !== undefined
    if (phase.kind !== 'behind' && (!between || awaited)) this.cutOff()
    else if (this.begun === 0) this.refuse('empty', '', 0)
    else this.out.push({ kind: 'end', endMark: phase.kind === 'behind', behind: this.behind })
    this.phase = { kind: 'over' }
    return this.given()
  }

  /** Less than one header in all is no tar that was cut; a cut header belongs to no entry yet. */
  private cutOff(): void {
    if (this.offset < BLOCK) return this.refuse(kindOfBytes(this.held), '', 0)
    this.refuse('truncated')
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
      case 'behind':
        return this.takeBlock(bytes)
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

  private takeBlock(bytes: Uint8Array): number {
    const part = bytes.subarray(0, BLOCK - this.held.length)
    const block = this.held.length === 0 ? part : joined([this.held, part])
    this.offset += part.length
    this.held = block.length < BLOCK ? block : EMPTY
    if (block.length < BLOCK) return part.length
    if (this.phase.kind === 'behind') this.lookBehind(block, this.offset - BLOCK)
    else this.header(block)
    return part.length
  }

  /** The first thing behind the end mark that is not zero is told; a header there begins a second tar. */
  private lookBehind(block: Uint8Array, offset: number): void {
    if (this.behind !== undefined || isZero(block)) return
    const header = block.length === BLOCK && readHeader(block).ok
    this.behind = { what: header ? 'second-archive' : 'bytes', offset }
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
    this.current = ''
    this.phase = left === 0 ? { kind: 'header' } : { kind: 'padding', left }
  }

  private header(block: Uint8Array): void {
    const at = this.offset - BLOCK
    if (isZero(block)) return this.zeroBlock()
    this.zeros = 0
    const read = readHeader(block)
    if (!read.ok) return this.refuse(at === 0 ? kindOfBytes(block) : read.refusal, '', at)
    const { type, size, name } = read.value
    if (!EXTENDED.includes(type)) return this.begin(read.value, at)
    if (size > LIMITS.headerBytes) return this.refuse('header-too-long', name, at)
    this.gathered = []
    this.phase = { kind: 'gather', header: read.value, left: size }
    if (size === 0) this.extended(read.value)
  }

  private zeroBlock(): void {
    this.zeros += 1
    if (this.zeros >= 2) this.phase = { kind: 'behind' }
  }

  /** An extended header is whole: it speaks of the entry that follows, or (global) of all that follow. */
  private extended({ type, size }: Header): void {
    const bytes = joined(this.gathered)
    if (type === 'x' || type === 'g') {
      const records = readPax(bytes)
      if (records === undefined) return this.refuse('pax')
      if (type === 'x') this.pax = records
      else this.globals = mergePax(this.globals, records)
    }
    if (type === 'L') {
      const end = bytes.indexOf(0)
      this.longName = nameText(end < 0 ? bytes : bytes.subarray(0, end))
    }
    this.skip(padded(size))
  }

  private begin(head: Header, at: number): void {
    const pax = mergePax(this.globals, this.pax ?? new Map())
    const told = pax.has('size') ? paxNumber(pax.get('size')) : head.size
    const name = pax.get('path') ?? this.longName ?? head.name
    this.begun += 1
    this.current = name
    this.pax = undefined
    this.longName = undefined
    if (told === undefined) return this.refuse('number', name, at)
    if (isSparse(head, pax)) return this.refuse('sparse', name, at)
    /* Readers do not agree whether bytes follow these, so nothing after them would be sure. */
    if (told > 0 && SIZELESS.includes(head.type)) return this.refuse('size-of-no-file', name, at)
    const trouble = this.names.add(name)
    if (trouble !== undefined) return this.refuse(trouble, name, at)
    /* A hard link's size is that of the file it names; its own bytes are none. */
    const length = head.type === HARD_LINK ? 0 : told
    this.bytesOut += length
    if (this.bytesOut > LIMITS.bytesOut) return this.refuse('too-much', name, at)
    const shown = head.type !== VOLUME_LABEL
    if (shown) {
      const entry = { name, size: length, offset: this.offset, ...standingOf(head, name, length) }
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
const HARD_LINK = '1'
const FOLDER = '5'
/** GNU's name of the whole archive: no entry, no bytes. */
const VOLUME_LABEL = 'V'
/** Symbolic links, devices, folders, pipes: POSIX gives them no bytes. */
const SIZELESS = ['2', '3', '4', FOLDER, '6']

const isSparse = (head: Header, pax: ReadonlyMap<string, string>): boolean =>
  head.type === 'S' || [...pax.keys()].some((key) => key.startsWith('GNU.sparse'))

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
}

/** Names of the archive so far: how many, how long. Which came twice is told when all are known. */
function namesSeen(): Names {
  let count = 0
  let bytes = 0
  return {
    add(name) {
      const length = new TextEncoder().encode(name).length
      count += 1
      bytes += length
      if (count > LIMITS.entries) return 'too-many-entries'
      if (length > LIMITS.nameBytes) return 'name-too-long'
      return bytes > LIMITS.namesBytes ? 'names-too-long' : undefined
    },
  }
}

/** Whether it is a folder, and why it is not used. */
function standingOf(
  { type }: Header,
  name: string,
  size: number,
): Pick<TarEntry, 'folder' | 'refused'> {
  const named = name.endsWith('/')
  const isFile = type === '0' || type === '7'
  const folder = type === FOLDER || (isFile && named && size === 0)
  return { folder, refused: byName(name) ?? byType(type, folder, named) }
}

function byName(name: string): EntryRefusal | undefined {
  if (name === '') return 'no-name'
  if (name.includes('\0')) return 'nul-in-name'
  if (/^(\/|\\|[A-Za-z]:)/.test(name)) return 'absolute-path'
  return name.split(/[/\\]/).includes('..') ? 'climbs-out' : undefined
}

function byType(type: string, folder: boolean, named: boolean): EntryRefusal | undefined {
  if (folder) return undefined
  if (type === HARD_LINK || type === '2') return 'link'
  if (type === '3' || type === '4' || type === '6') return 'device'
  if (type !== '0' && type !== '7') return 'unknown-type'
  return named ? 'folder-with-bytes' : undefined
}
