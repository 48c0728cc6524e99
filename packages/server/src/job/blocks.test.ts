/** How alike two images are: the same blocks at the same places, empty ones left out. */
import { Readable } from 'node:stream'
import type { Vault } from '@plain-slate/vault'
import { describe, expect, it } from 'vitest'
import { blocksAt, likenessOf } from './blocks.ts'

const BLOCK = 4096
const image = (...blocks: readonly number[]) =>
  Buffer.concat(blocks.map((fill) => Buffer.alloc(BLOCK, fill)))
/** A vault that holds one image behind 10 bytes of something else, and gives it in odd pieces. */
const holding = (bytes: Buffer): Vault =>
  ({
    read: (_: string, { from, to }: { from: number; to: number }) => {
      const all = Buffer.concat([Buffer.alloc(10, 9), bytes]).subarray(from, to)
      const parts = Array.from({ length: Math.ceil(all.length / 1000) }, (__, at) =>
        all.subarray(at * 1000, (at + 1) * 1000),
      )
      return Promise.resolve(Readable.from(parts))
    },
  }) as unknown as Vault
const blocks = (bytes: Buffer) =>
  blocksAt(holding(bytes), { archive: 'a', offset: 10, size: bytes.length })

describe('two images', () => {
  const like = async (one: Buffer, other: Buffer) =>
    likenessOf(await blocks(one), await blocks(other))

  it('are as alike as their blocks are, at their places', async () => {
    expect(await like(image(1, 2, 3, 4), image(1, 2, 3, 4))).toEqual({ equal: 4, blocks: 4 })
    expect(await like(image(1, 2, 3, 4), image(1, 9, 3, 4))).toEqual({ equal: 3, blocks: 4 })
    expect(await like(image(1, 2, 3, 4), image(4, 3, 2, 1))).toEqual({ equal: 0, blocks: 4 })
  })

  it('are no more alike for what is empty in both, and less for what one alone has', async () => {
    expect(await like(image(1, 0, 0, 0), image(2, 0, 0, 0))).toEqual({ equal: 0, blocks: 1 })
    expect(await like(image(1, 0), image(1, 5))).toEqual({ equal: 1, blocks: 2 })
    expect(await like(image(1), image(1, 5, 5))).toEqual({ equal: 1, blocks: 3 })
    const cut = Buffer.concat([image(1), Buffer.alloc(100, 7)])
    expect(await like(cut, cut)).toEqual({ equal: 2, blocks: 2 })
  })
})
