/** Tars for tests: made of headers as they are wanted, and what reading them gives. */
import { createHash } from 'node:crypto'
import { readTar } from '../prove.ts'
import { tarDecoder } from '../tar/decode.ts'
import type { TarOutput } from '../tar/decode.ts'
import { tarEnd, tarHeader, tarPadding } from '../tar/write.ts'

export const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
export const bytesOf = (length: number, seed = 7) =>
  Uint8Array.from({ length }, (_, index) => (index * 31 + seed) & 0xff)

/** Decodes bytes cut into pieces of these lengths, over and over. */
export function decode(tar: Uint8Array, cuts: readonly number[] = [1 << 20]): readonly TarOutput[] {
  const decoder = tarDecoder()
  const out: TarOutput[] = []
  for (let at = 0, cut = 0; at < tar.length; cut += 1) {
    const next = at + (cuts[cut % cuts.length] ?? 1)
    out.push(...decoder.push(tar.subarray(at, next)))
    at = next
  }
  return [...out, ...decoder.end()]
}
/** What came out, with bytes of an entry put together. */
export function told(outputs: readonly TarOutput[]) {
  const entries: { name: string; refused: unknown; offset: number; bytes: number[] }[] = []
  for (const output of outputs) {
    if (output.kind === 'entry') {
      const { name, refused, offset } = output.entry
      entries.push({ name, refused, offset, bytes: [] })
    }
    if (output.kind === 'bytes') entries.at(-1)?.bytes.push(...output.bytes)
  }
  return { entries, last: outputs.at(-1) }
}
export async function read(tar: Uint8Array) {
  return readTar(
    (async function* () {
      await Promise.resolve()
      yield tar
    })(),
  )
}

/** One header with pax records before it. */
export function withPax(records: readonly string[], type = 'x'): Uint8Array {
  const lines = records.map((record) => {
    const bare = Buffer.byteLength(record) + 2
    const length = bare + String(bare + String(bare).length).length
    return `${length} ${record}\n`
  })
  const bytes = Buffer.from(lines.join(''))
  return Buffer.concat([tarHeader('pax', bytes.length, type), bytes, tarPadding(bytes.length)])
}
export const file = (name: string, size = 3, type = '0') =>
  Buffer.concat([tarHeader(name, size, type), bytesOf(size), tarPadding(size)])
export const listed = async (...parts: readonly Uint8Array[]) => {
  const reading = await read(Buffer.concat([...parts, tarEnd()]))
  return reading.ok
    ? reading.listing.entries.map(({ name, refused }) => `${name}: ${refused ?? 'good'}`)
    : `refused: ${reading.refusal.rule}`
}
