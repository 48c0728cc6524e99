/** The flash of a simulated device, read beside it: what its bytes are, whatever its model says. */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import type { Manifest } from '@plain-slate/core'
import { readDevice } from '@plain-slate/standins'

/** `path`: of its two files, without their endings. */
export function flashOf(path: string) {
  const { starts, marks } = readDevice(`${path}.json`)
  const bytes = readFileSync(`${path}.flash`)
  const sha256 = (from: number, to: number) =>
    createHash('sha256').update(bytes.subarray(from, to)).digest('hex')
  return {
    /** Partitions whose bytes are not the package's. */
    wrong: (pack: Manifest) =>
      pack.images
        .filter(({ partition, size, sha256: wanted }) => {
          const at = starts[partition] ?? 0
          return sha256(at, at + size) !== wanted
        })
        .map(({ partition }) => partition),
    marks: marks.map(({ from, to }) => sha256(from, to)),
    /** Marked ranges of the customer's of which a byte can still be read. */
    readable: marks.filter(({ from, to }) => bytes.subarray(from, to).some((byte) => byte !== 0)),
  }
}
