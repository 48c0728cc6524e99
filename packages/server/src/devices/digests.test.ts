/** Of several ranges of a partition the one counts whose digest is an image's. */
import type { Manifest } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { ownDigests, rangesFor } from './digests.ts'

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
  const of = (model: string, size: number) => ({
    targets: [{ model, boards: ['b'], chipset: 'c', storage: [1] }],
    images: [{ ...manifest.images[0], size }] as Manifest['images'],
  })
  const sizes = (model: string) =>
    rangesFor([of('4N', 43), of('5N', 51), of('5N', 52), of('5N', 51)], model).map(
      ({ size }) => size,
    )

  it('are those of the packages that name the model, each size once, and all where none does', () => {
    expect(sizes('5N')).toEqual([51, 52])
    expect(sizes('4N')).toEqual([43])
    expect(sizes('4M')).toEqual([43, 51, 52])
  })
})
