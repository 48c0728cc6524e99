/** The flash of a simulated device, read beside it: what its bytes are, whatever its model says. */
import { createHash } from 'node:crypto'
import { closeSync, openSync, readSync } from 'node:fs'
import type { Manifest } from '@plain-slate/core'
import { readDevice } from '@plain-slate/standins'

/** `path`: of its two files, without their endings. Ranges are read when they are asked for, and no others. */
export function flashOf(path: string) {
  const { starts, marks } = readDevice(`${path}.json`)
  const file = `${path}.flash`
  const marked = marks.map(({ from, to }) => bytesIn(file, from, to))
  return {
    /** Partitions whose bytes are not the package's. */
    wrong: (pack: Manifest) =>
      pack.images
        .filter(({ partition, size, sha256: wanted }) => {
          const at = starts[partition] ?? 0
          return sha256(bytesIn(file, at, at + size)) !== wanted
        })
        .map(({ partition }) => partition),
    marks: marked.map(sha256),
    /** Marked ranges of the customer's of which a byte can still be read. */
    readable: marks.filter((_, index) => marked[index]?.some((byte) => byte !== 0)),
  }
}

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

/** What lies in a range; past the end of the file there is nothing, which is zeros. */
function bytesIn(path: string, from: number, to: number): Buffer {
  const bytes = Buffer.alloc(to - from)
  const file = openSync(path, 'r')
  try {
    readSync(file, bytes, 0, bytes.length, from)
  } finally {
    closeSync(file)
  }
  return bytes
}
