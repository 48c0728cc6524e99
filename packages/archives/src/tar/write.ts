/** Writing a plain ustar archive: for packages that are made here. Reads names and bytes; gives blocks. */
import { BLOCK } from './header.ts'

const encoder = new TextEncoder()

/** A header block of a file. Throws RangeError for a name past 100 bytes: ours are short. */
export function tarHeader(name: string, size: number, type = '0'): Uint8Array {
  const block = new Uint8Array(BLOCK)
  const bytes = encoder.encode(name)
  if (bytes.length > 100) throw new RangeError(`a name of ${bytes.length} bytes`)
  const put = (text: string, at: number) => block.set(encoder.encode(text), at)
  block.set(bytes, 0)
  put('0000644\0', 100)
  put('0000000\0', 108)
  put('0000000\0', 116)
  put(`${size.toString(8).padStart(11, '0')}\0`, 124)
  put('00000000000\0', 136)
  put('        ', 148)
  put(type, 156)
  put('ustar\0', 257)
  put('00', 263)
  const sum = block.reduce((total, byte) => total + byte, 0)
  put(`${sum.toString(8).padStart(6, '0')}\0 `, 148)
  return block
}

/** Zeros that fill up the last block of a file. */
export const tarPadding = (size: number): Uint8Array =>
  new Uint8Array(Math.ceil(size / BLOCK) * BLOCK - size)

/** Two blocks of zeros. */
export const tarEnd = (): Uint8Array => new Uint8Array(2 * BLOCK)

/** A whole archive in memory, for small ones. */
export function tarOf(
  files: readonly { readonly name: string; readonly bytes: Uint8Array }[],
): Uint8Array {
  const parts = files.flatMap(({ name, bytes }) => [
    tarHeader(name, bytes.length),
    bytes,
    tarPadding(bytes.length),
  ])
  return Buffer.concat([...parts, tarEnd()])
}
