/**
 * The flash of a simulated device: real bytes in a sparse file, with an extent map of our own (which
 * ranges were ever written), since a sparse file's holes cannot be asked from here. Reads and writes are
 * synchronous: a device's bytes and its state change together or not at all.
 */
import { createHash } from 'node:crypto'
import type { Hash } from 'node:crypto'
import { closeSync, ftruncateSync, openSync, readSync, writeSync } from 'node:fs'

/** A range of the disk that was written, from `from` to before `to`, in bytes. */
export type Extent = { readonly from: number; readonly to: number }

export type Flash = {
  readonly bytes: number
  readonly write: (at: number, bytes: Uint8Array) => void
  /** Bytes of a range; what was never written reads as zeros. */
  readonly read: (at: number, length: number) => Uint8Array
  /** Erases a range: its bytes are gone, and it reads as one that was never written. */
  readonly erase: (from: number, to: number) => void
  /** Written ranges in order, joined where they touch. */
  readonly extents: () => readonly Extent[]
  /** SHA-256 of a range, as hex. */
  readonly digest: (from: number, to: number) => string
  readonly close: () => void
}

/** How much is read at once for a digest, or written at once in erasing. */
const STRIDE = 1 << 20
const ZEROS = new Uint8Array(STRIDE)

/** Opens the file, making it where it is missing. `extents` are those it had when it was closed. */
export function openFlash(path: string, bytes: number, extents: readonly Extent[] = []): Flash {
  const file = openSync(path, 'a+')
  closeSync(file)
  const handle = openSync(path, 'r+')
  ftruncateSync(handle, bytes)
  let map = extents
  const read = (at: number, length: number): Uint8Array => {
    const out = new Uint8Array(length)
    for (const { from, to } of map) {
      const [a, b] = [Math.max(at, from), Math.min(at + length, to)]
      if (a < b) readSync(handle, out, a - at, b - a, a)
    }
    return out
  }
  return {
    bytes,
    read,
    extents: () => map,
    write(at, data) {
      if (at < 0 || at + data.length > bytes)
        throw new RangeError(`bytes ${at} to ${at + data.length} of ${bytes}`)
      for (let done = 0; done < data.length;)
        done += writeSync(handle, data, done, data.length - done, at + done)
      map = withExtent(map, { from: at, to: at + data.length })
    },
    erase(from, to) {
      for (const one of map) {
        const [a, b] = [Math.max(from, one.from), Math.min(to, one.to)]
        for (let at = a; at < b; at += STRIDE)
          writeSync(handle, ZEROS, 0, Math.min(STRIDE, b - at), at)
      }
      map = withoutExtent(map, { from, to })
    },
    digest: (from, to) => hashRange(read, createHash('sha256'), from, to).digest('hex'),
    close: () => closeSync(handle),
  }
}

function hashRange(read: Flash['read'], hash: Hash, from: number, to: number): Hash {
  for (let at = from; at < to; at += STRIDE) hash.update(read(at, Math.min(STRIDE, to - at)))
  return hash
}

/** The map with a range laid in. */
export function withExtent(map: readonly Extent[], added: Extent): readonly Extent[] {
  if (added.from >= added.to) return map
  const apart = map.filter(({ from, to }) => to < added.from || from > added.to)
  const touched = map.filter(({ from, to }) => to >= added.from && from <= added.to)
  const whole = touched.reduce(
    (one, { from, to }) => ({ from: Math.min(one.from, from), to: Math.max(one.to, to) }),
    added,
  )
  return [...apart, whole].sort((a, b) => a.from - b.from)
}

/** The map with a range taken out. */
export const withoutExtent = (map: readonly Extent[], gone: Extent): readonly Extent[] =>
  map.flatMap(({ from, to }) => [
    ...(from < Math.min(to, gone.from) ? [{ from, to: Math.min(to, gone.from) }] : []),
    ...(Math.max(from, gone.to) < to ? [{ from: Math.max(from, gone.to), to }] : []),
  ])
