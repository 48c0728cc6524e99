/** How alike two images are, block by block: what of one lies at the same place in the other. Empty blocks tell nothing. */
import { createHash } from 'node:crypto'
import type { ImagePlace } from '@plain-slate/core'
import type { Vault } from '@plain-slate/vault'

const BLOCK_BYTES = 4096
const DIGEST_BYTES = 8
/** What stands for a block of zeros. */
const EMPTY = 0n

/** The first 8 bytes of each block's SHA-256, in order; 0 for a block of nothing but zeros. */
export async function blocksAt(
  vault: Vault,
  { archive, offset, size }: ImagePlace,
): Promise<BigUint64Array> {
  const blocks = new BigUint64Array(Math.ceil(size / BLOCK_BYTES))
  let at = 0
  let left = Buffer.alloc(0)
  const put = (block: Buffer) => {
    blocks[at] = block.every((byte) => byte === 0) ? EMPTY : digestOf(block)
    at += 1
  }
  for await (const part of await vault.read(archive, { from: offset, to: offset + size })) {
    const bytes = Buffer.concat([left, part as Buffer])
    let from = 0
    for (; from + BLOCK_BYTES <= bytes.length; from += BLOCK_BYTES)
      put(bytes.subarray(from, from + BLOCK_BYTES))
    left = bytes.subarray(from)
  }
  if (left.length > 0) put(left)
  return blocks
}

const digestOf = (block: Buffer): bigint => {
  const first = createHash('sha256').update(block).digest().subarray(0, DIGEST_BYTES)
  return first.readBigUInt64BE(0) || 1n
}

/** How many of the blocks that are not empty in either are the same at the same place. */
export function likenessOf(
  one: BigUint64Array,
  other: BigUint64Array,
): { readonly equal: number; readonly blocks: number } {
  let equal = 0
  let blocks = 0
  for (let at = 0; at < Math.max(one.length, other.length); at += 1) {
    const [a, b] = [one[at] ?? EMPTY, other[at] ?? EMPTY]
    if (a === EMPTY && b === EMPTY) continue
    blocks += 1
    if (a === b) equal += 1
  }
  return { equal, blocks }
}
