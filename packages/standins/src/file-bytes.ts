/** The bytes of a file that lies on a store, read from its beginning. */
import { closeSync, openSync, readSync } from 'node:fs'

/** How much is read at once. */
const STRIDE = 1 << 20

/** The bytes of a file, piece after piece. */
export function* bytesIn(path: string): Generator<Uint8Array> {
  const file = openSync(path, 'r')
  try {
    for (let at = 0; ;) {
      const piece = new Uint8Array(STRIDE)
      const got = readSync(file, piece, 0, STRIDE, at)
      if (got === 0) return
      at += got
      yield piece.subarray(0, got)
    }
  } finally {
    closeSync(file)
  }
}
