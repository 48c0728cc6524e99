import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { device0417 } from '../testing/twins.ts'
import { digestOf } from '../testing/packages.ts'
import { BLOCK_BYTES } from './blocks.ts'
import type { DeviceModel } from './state.ts'
import { cutAt } from './written.ts'

const BLOCKS = 20
const SIZE = BLOCKS * BLOCK_BYTES - 700
const image = digestOf('main H2.104.r4')

/** A device with a piece of main open, at a block of the partition. */
const opened = (block = 0): DeviceModel =>
  device0417({
    mode: 'loader',
    session: { partition: 'main', offset: block * BLOCK_BYTES, size: SIZE, image, got: 0 },
  })
const kinds = (device: DeviceModel) =>
  Object.fromEntries(
    (['image', 'torn', 'old'] as const).map((kind) => [
      kind,
      (device.parts['main']?.map ?? [])
        .filter((run) => run.kind === kind)
        .reduce((blocks, { from, to }) => blocks + to - from, 0),
    ]),
  )
const anywhere = fc.tuple(fc.integer({ min: 0, max: SIZE }), fc.integer({ min: 0, max: 40 }))
import { tarn } from '../testing/tarn.ts'

describe('a piece that is cut', () => {
  it('by its cable has every whole block new, none torn, and its session where it was', () => {
    fc.assert(
      fc.property(anywhere, ([bytes, block]) => {
        const after = cutAt(tarn, opened(block), bytes, false)
        const whole = bytes === SIZE ? BLOCKS : Math.floor(bytes / BLOCK_BYTES)
        expect(kinds(after)).toMatchObject({ image: whole, torn: 0 })
        expect(after.session?.got).toBe(bytes)
        expect(after.mode).toBe('loader')
      }),
    )
  })

  it('by its battery tears one block where it was off an edge, and none else', () => {
    fc.assert(
      fc.property(anywhere, ([bytes, block]) => {
        const after = cutAt(tarn, opened(block), bytes, true)
        const off = bytes % BLOCK_BYTES !== 0 && bytes !== SIZE
        expect(kinds(after)['torn']).toBe(off ? 1 : 0)
        expect(after.session).toBeUndefined()
        expect(after.mode).toBe('off')
      }),
    )
  })

  it('touches no other partition', () => {
    const before = opened()
    const after = cutAt(tarn, before, 5000, true)
    const others = ({ parts }: DeviceModel) =>
      Object.entries(parts).filter(([name]) => name !== 'main')
    expect(others(after)).toEqual(others(before))
  })

  it('without a piece open only loses its power', () => {
    const idle = device0417({ mode: 'loader' })
    expect(cutAt(tarn, idle, 0, false)).toBe(idle)
    expect(cutAt(tarn, idle, 0, true)).toEqual({ ...idle, mode: 'off' })
  })
})
