/**
 * What was made once of the demo's images, for whoever is begun after: their digests and their bytes in a folder, by what they
 * are of. The content of an image hangs on its origin alone, so that both hold for as long as this program is the same.
 * Nothing is kept but where a folder is named.
 */
import { createHash } from 'node:crypto'
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  renameSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'

/** The folder in which they are kept, of this process and all that it begins. */
const KEPT_IN = 'PLAIN_SLATE_DEMO_KEPT'

/** Keeps bytes and digests in this folder from now on. */
export function keepContent(folder: string): void {
  mkdirSync(folder, { recursive: true })
  process.env[KEPT_IN] = folder
}

/** SHA-256 of something in pieces, as hex. */
export function digestOfPieces(pieces: Iterable<Uint8Array>): string {
  const hash = createHash('sha256')
  for (const piece of pieces) hash.update(piece)
  return hash.digest('hex')
}

const known = new Map<string, string>()

/** A digest by what it is of; computed where nobody has yet. */
export function keptDigest(of: string, compute: () => string): string {
  const path = pathOf(`digest of ${of}`)
  const digest =
    known.get(of) ??
    (path !== undefined && existsSync(path) ? readFileSync(path, 'utf8') : undefined) ??
    compute()
  known.set(of, digest)
  if (path !== undefined && !existsSync(path)) putWhole(path, [Buffer.from(digest)])
  return digest
}

/** Where something lies by what it is of; undefined: nothing is kept. */
function pathOf(of: string): string | undefined {
  const folder = process.env[KEPT_IN]
  return folder === undefined
    ? undefined
    : join(folder, createHash('sha256').update(of).digest('hex'))
}

type KeptImage = {
  /** Whether it was made before, and is there whole. */
  readonly here: boolean
  readonly pieces: (piece: number) => Generator<Uint8Array>
  /** Puts it down as it is made; it is there once it is whole. */
  readonly anew: () => {
    readonly add: (bytes: Uint8Array) => void
    readonly whole: () => void
  }
}

/** An image by what it is of; undefined: nothing is kept. */
export function keptImage(of: string): KeptImage | undefined {
  const path = pathOf(of)
  if (path === undefined) return undefined
  return {
    here: existsSync(path),
    pieces: (piece) => piecesIn(path, piece),
    anew() {
      const made: Uint8Array[] = []
      return {
        add: (bytes) => made.push(bytes),
        whole: () => putWhole(path, made),
      }
    },
  }
}

let drafts = 0
/** Under a name of its own, then in its place: whoever looks finds it whole or not at all. */
function putWhole(path: string, pieces: readonly Uint8Array[]): void {
  const draft = `${path}.${process.pid}.${(drafts += 1)}`
  const file = openSync(draft, 'w')
  try {
    for (const bytes of pieces) writeFileSync(file, bytes)
  } finally {
    closeSync(file)
  }
  renameSync(draft, path)
}

function* piecesIn(path: string, piece: number): Generator<Uint8Array> {
  const file = openSync(path, 'r')
  try {
    for (;;) {
      const bytes = Buffer.alloc(piece)
      const read = readSync(file, bytes)
      if (read === 0) return
      yield bytes.subarray(0, read)
    }
  } finally {
    closeSync(file)
  }
}
