/** Of which package an owner's image was made. */
import { describe, expect, it } from 'vitest'
import type { Likeness } from './carried.ts'
import { madeFrom, roleOfFile } from './carried.ts'

const like = (name: string, equal: number, build = name): Likeness => ({
  package: name,
  build,
  equal,
  blocks: 100,
})

describe('what an image was made from', () => {
  it('is the package of which most of it is, and of which enough is', () => {
    expect(madeFrom([like('this', 81), like('last', 34)], 'this')).toMatchObject({
      ok: true,
      value: { percent: 81 },
    })
    expect(madeFrom([like('this', 34), like('last', 81)], 'this')).toMatchObject({
      refusal: { why: 'other', build: 'last', percent: 81, here: 34 },
    })
    expect(madeFrom([like('this', 49)], 'this')).toMatchObject({
      refusal: { why: 'unlike', here: 49 },
    })
    expect(madeFrom([], 'this')).toMatchObject({ refusal: { why: 'unlike', here: 0 } })
    /* The same build in another archive is no other build. */
    expect(madeFrom([like('this', 81), like('again', 99, 'this')], 'this').ok).toBe(true)
  })

  it('is named after its part, and of parts that may be carried over alone', () => {
    expect(roleOfFile('kernel.img')).toBe('kernel')
    expect(roleOfFile('mine/rescue.img')).toBe('rescue')
    for (const name of ['loader.img', 'modem.img', 'calib.img', 'kernel.bin', 'kernel'])
      expect(roleOfFile(name)).toBeUndefined()
  })
})
