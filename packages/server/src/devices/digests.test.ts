/** Of several ranges of a partition the one counts whose digest is an image's. */
import type { Manifest } from '@plain-slate/core'
import { familyNamed } from '@plain-slate/demo'
import { describe, expect, it } from 'vitest'
import { ownDigests, rangesOf } from './digests.ts'

const manifest = {
  images: [
    { partition: 'main', size: 8192, sha256: 'known' },
    { partition: 'kernel', size: 4096, sha256: 'kernel' },
  ],
} as unknown as Manifest
const digest = (size: number, sha256: string, partition = 'main') => ({ partition, size, sha256 })

describe('the device’s own digests', () => {
  it.each([
    ['first', [digest(8192, 'known'), digest(4096, 'other')]],
    ['last', [digest(4096, 'other'), digest(8192, 'known')]],
  ])('are the image that is known, though it was read %s', (_, found) => {
    expect([...ownDigests(found, [{ manifest }])]).toEqual([['main', 'known']])
  })

  it('are no image where the range is another, and stay apart by partition', () => {
    const found = [digest(4096, 'known'), digest(8192, 'other'), digest(4096, 'kernel', 'kernel')]
    expect([...ownDigests(found, [{ manifest }])]).toEqual([
      ['main', 'other'],
      ['kernel', 'kernel'],
    ])
    expect([...ownDigests([], [{ manifest }])]).toEqual([])
  })
})

describe('the ranges that are asked for', () => {
  const of = (size: number) => ({
    images: [{ role: 'main', partition: 'main', size }] as Manifest['images'],
  })

  it('are those of the packages, each size once', () => {
    const ranges = rangesOf(familyNamed('tarn'), [of(51), of(52), of(51)])
    expect(ranges.map(({ size }) => size)).toEqual([51, 52])
  })

  it('are in both slots where a part has two', () => {
    expect(rangesOf(familyNamed('fen'), [of(51)])).toEqual([
      { partition: 'main_a', size: 51 },
      { partition: 'main_b', size: 51 },
    ])
  })
})
