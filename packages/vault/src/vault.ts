/**
 * Bytes by their content: what is proven once is known by its SHA-256, never by a name. One interface;
 * a folder by default. Reads and writes streams; nothing half-written is ever found under a digest.
 */
import type { Readable } from 'node:stream'

/** 64 lower-case hex digits. */
export type Digest = string

export type Stored = { readonly sha256: Digest; readonly bytes: number }

/** A range of what is stored, from `from` to before `to`. */
export type Range = { readonly from: number; readonly to: number }

/** Bytes that came in whole and are not under their digest yet. One of the two must be called. */
export type Received = Stored & {
  /** Lays them under their digest; what is there already is replaced by this copy. */
  readonly keep: () => Promise<void>
  readonly forget: () => Promise<void>
}

export type Vault = {
  /** Takes bytes in and waits for a word whether to keep them. What breaks off is forgotten. */
  readonly receive: (source: AsyncIterable<Uint8Array>) => Promise<Received>
  /**
   * Takes bytes in and answers their digest. With `expected`, anything else is refused by throwing
   * NotAsPromised, and nothing is kept. Storing what is there already keeps one copy.
   */
  readonly store: (source: AsyncIterable<Uint8Array>, expected?: Digest) => Promise<Stored>
  readonly has: (digest: Digest) => Promise<boolean>
  /** Bytes stored under a digest; undefined when there are none. */
  readonly size: (digest: Digest) => Promise<number | undefined>
  /** What changes when stored bytes are touched: their number and when that was; undefined: none. */
  readonly stamp: (digest: Digest) => Promise<string | undefined>
  /** A stream of the bytes, or of a range of them. Throws NotStored. */
  readonly read: (digest: Digest, range?: Range) => Promise<Readable>
  /** Forgets what is stored; answers whether there was something. */
  readonly drop: (digest: Digest) => Promise<boolean>
}

/** What came in is not what was promised. */
export class NotAsPromised extends Error {
  override readonly name = 'NotAsPromised'
  readonly expected: Digest
  readonly found: Digest
  constructor(expected: Digest, found: Digest) {
    super(`expected ${expected}, found ${found}`)
    this.expected = expected
    this.found = found
  }
}

/** Nothing is stored under this digest. */
export class NotStored extends Error {
  override readonly name = 'NotStored'
}
