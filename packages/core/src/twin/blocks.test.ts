import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Content, Run } from './blocks.ts'
import { holds, isUntouched, lay, untouched } from './blocks.ts'

const BLOCKS = 40
const content = fc.oneof(
  fc.constant<Content>({ kind: 'erased' }),
  fc.constant<Content>({ kind: 'torn' }),
  fc.record({
    kind: fc.constant('image' as const),
    image: fc.constantFrom('a', 'b'),
    at: fc.nat(20),
  }),
)
const run = fc
  .tuple(fc.nat(BLOCKS), fc.nat(BLOCKS), content)
  .map(([a, b, what]): Run => ({ from: Math.min(a, b), to: Math.max(a, b), ...what }))

/** The same thing block by block, without being clever. */
function plain(runs: readonly Run[]): string[] {
  const blocks = Array<string>(BLOCKS).fill('old')
  for (const one of runs)
    for (let block = one.from; block < one.to; block += 1)
      blocks[block] = one.kind === 'image' ? `${one.image}${one.at + block - one.from}` : one.kind
  return blocks
}

describe('a block map', () => {
  it('says of every block what was laid there last', () => {
    fc.assert(
      fc.property(fc.array(run, { maxLength: 12 }), (runs) => {
        const map = runs.reduce(lay, untouched(BLOCKS))
        expect(plain(map)).toEqual(plain(runs))
      }),
    )
  })

  it('is the same however it came to be: runs are whole, in order, and joined', () => {
    fc.assert(
      fc.property(fc.array(run, { maxLength: 12 }), (runs) => {
        const map = runs.reduce(lay, untouched(BLOCKS))
        const blockwise = plain(map).reduce((built, text, block) => {
          const image = /^([ab])(\d+)$/.exec(text)
          const what: Content =
            image === null
              ? ({ kind: text } as Content)
              : { kind: 'image', image: image[1] ?? '', at: Number(image[2]) }
          return lay(built, { from: block, to: block + 1, ...what })
        }, untouched(BLOCKS))
        expect(map).toEqual(blockwise)
      }),
    )
  })

  it('holds what it was where nothing was written over it', () => {
    const mixed = lay(untouched(6), { from: 0, to: 2, kind: 'image', image: 'a', at: 0 })
    expect([holds(mixed, 'a', 0, 6, 'a'), holds(mixed, 'a', 0, 6, 'b')]).toEqual([true, false])
  })

  it('holds an image when its first blocks are all there', () => {
    const half = lay(untouched(10), { from: 0, to: 4, kind: 'image', image: 'a', at: 0 })
    expect([
      holds(half, 'a', 0, 4, undefined),
      holds(half, 'a', 0, 5, undefined),
      holds(half, 'b', 0, 4, undefined),
    ]).toEqual([true, false, false])
    expect([isUntouched(untouched(10)), isUntouched(half)]).toEqual([true, false])
  })

  it('takes no run outside of it', () => {
    expect(() => lay(untouched(4), { from: 0, to: 5, kind: 'torn' })).toThrow(RangeError)
  })
})
