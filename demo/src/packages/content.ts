/**
 * Bytes of made-up images: the same ones every time, for any range, without keeping any. Neighbouring
 * builds share stretches in lifelike proportion; some stretches are empty or compress well. Reads what an
 * image is and a range; gives its bytes.
 */
import { createCipheriv, createHash } from 'node:crypto'
import type { PartRole } from '@plain-slate/core'
import { digestOfPieces, keptDigest, keptImage } from './kept.ts'

/** What an image is made from: its part, its board line, and the builds before it, oldest first. */
export type Origin = {
  readonly role: PartRole
  readonly board: string
  /** The builds of the line up to and with this one. */
  readonly line: readonly string[]
  /** Its owner changed it: a fifth of its blocks are their own, the first among them. */
  readonly changed?: true
}

/** Content changes from build to build by stretches of this many bytes. */
export const STRETCH = 64 * 1024

/** Of a hundred stretches, how many a build renews: a radio is wholly new, a rescue often the same. */
const RENEWED: Readonly<Partial<Record<PartRole, number>>> = {
  loader: 100,
  modem: 100,
  kernel: 80,
  main: 50,
  support: 40,
  rescue: 0,
  variant: 0,
}
/** Of a hundred blocks of this many bytes, how many an owner changed. */
const CHANGED = 20
const BLOCK = 4096
/** Of a hundred stretches, how many are empty, and how many (of the rest) are text. */
const EMPTY = 6
const TEXT = 20

const digest = (text: string) => createHash('sha256').update(text).digest()
/** A number from 0 to 99 that hangs on a text. */
const chance = (text: string) => digest(text).readUInt32BE(0) % 100

/** Bytes of an image from `from` to before `to`, at most a few MiB at a time. */
export function bytesOf(origin: Origin, from: number, to: number): Uint8Array {
  const bytes = Buffer.alloc(to - from)
  for (let stretch = Math.floor(from / STRETCH); stretch * STRETCH < to; stretch += 1) {
    const at = stretch * STRETCH
    const [a, b] = [Math.max(from, at), Math.min(to, at + STRETCH)]
    stretchOf(origin, stretch).copy(bytes, a - from, a - at, b - at)
  }
  return bytes
}

function stretchOf(origin: Origin, stretch: number): Buffer {
  const made = madeStretch(origin, stretch)
  if (origin.changed !== true) return made
  const { role, board, line } = origin
  for (let at = 0; at < STRETCH; at += BLOCK) {
    const seed = `changed ${role} ${board} ${line.at(-1) ?? ''} ${stretch * STRETCH + at}`
    const own = stretch + at === 0 || chance(seed) < CHANGED
    if (own) noiseOf(seed).copy(made, at, 0, BLOCK)
  }
  return made
}

function madeStretch({ role, board, line }: Origin, stretch: number): Buffer {
  const renews = RENEWED[role] ?? 50
  const renewed = line.filter(
    (build, index) => index === 0 || chance(`${role} ${board} ${build} ${stretch}`) < renews,
  )
  const seed = `${role} ${board} ${renewed.at(-1) ?? ''} ${stretch}`
  const kind = chance(`kind ${role} ${board} ${stretch}`)
  if (kind < EMPTY && stretch > 0) return Buffer.alloc(STRETCH)
  if (kind < EMPTY + TEXT) return textOf(seed)
  return noiseOf(seed)
}

/** What does not compress: a key stream (AES-128 in counter mode) over zeros. */
function noiseOf(seed: string): Buffer {
  const key = digest(seed)
  const cipher = createCipheriv('aes-128-ctr', key.subarray(0, 16), key.subarray(16, 32))
  return cipher.update(Buffer.alloc(STRETCH))
}

/** What compresses: a line said again and again. */
const textOf = (seed: string): Buffer =>
  Buffer.alloc(STRETCH, `${seed} ${digest(seed).toString('hex')}\n`)

/** The whole image in pieces; read where it was made before and is kept. */
export function* piecesOf(origin: Origin, size: number, piece = 1 << 20): Generator<Uint8Array> {
  const kept = keptImage(JSON.stringify([origin, size]))
  if (kept?.here === true) return yield* kept.pieces(piece)
  const made = kept?.anew()
  for (let at = 0; at < size; at += piece) {
    const bytes = bytesOf(origin, at, Math.min(size, at + piece))
    made?.add(bytes)
    yield bytes
  }
  made?.whole()
}

/** SHA-256 of the whole image, as hex. */
export const digestOf = (origin: Origin, size: number): string =>
  keptDigest(JSON.stringify([origin, size]), () => digestOfPieces(piecesOf(origin, size)))
