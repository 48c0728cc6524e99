import { mkdtempSync, readFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { openFlash, withExtent } from './flash.ts'

const SIZE = 4096
const path = () => join(mkdtempSync(join(tmpdir(), 'flash-')), 'flash')
const writes = fc.array(
  fc
    .tuple(fc.nat(SIZE - 1), fc.uint8Array({ minLength: 1, maxLength: 300 }))
    .map(([at, bytes]) => ({ at, bytes: bytes.subarray(0, SIZE - at) })),
  { maxLength: 20 },
)

describe('a flash', () => {
  it('holds what was written, zeros elsewhere, and its digest is of both', () => {
    fc.assert(
      fc.property(writes, (list) => {
        const flash = openFlash(path(), SIZE)
        const model = new Uint8Array(SIZE)
        for (const { at, bytes } of list) {
          flash.write(at, bytes)
          model.set(bytes, at)
        }
        expect(Buffer.from(flash.read(0, SIZE)).equals(model)).toBe(true)
        expect(flash.digest(0, SIZE)).toBe(createHash('sha256').update(model).digest('hex'))
        flash.close()
      }),
      { numRuns: 40 },
    )
  })

  it('remembers its written ranges over a restart', () => {
    const file = path()
    const first = openFlash(file, SIZE)
    first.write(100, Buffer.from('ticket'))
    const extents = first.extents()
    first.close()
    const again = openFlash(file, SIZE, extents)
    expect(Buffer.from(again.read(100, 6)).toString()).toBe('ticket')
    expect(readFileSync(file).length).toBe(SIZE)
    again.close()
  })

  it('takes nothing past its end', () => {
    const flash = openFlash(path(), SIZE)
    expect(() => flash.write(SIZE - 1, new Uint8Array(2))).toThrow(/of 4096/)
    flash.close()
  })
})

describe('the extent map', () => {
  it('joins ranges that touch and keeps others apart, in order', () => {
    const map = [
      { from: 0, to: 10 },
      { from: 20, to: 30 },
    ]
    expect(withExtent(map, { from: 10, to: 20 })).toEqual([{ from: 0, to: 30 }])
    expect(withExtent(map, { from: 40, to: 50 })).toHaveLength(3)
    expect(withExtent(map, { from: 5, to: 5 })).toBe(map)
  })
})
