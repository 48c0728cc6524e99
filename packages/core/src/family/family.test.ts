import { describe, expect, it } from 'vitest'
import { decodeBytes } from '../layout/decode.ts'
import { encodeTable } from '../layout/encode.ts'
import { endOf } from '../layout/table.ts'
import { compareLayout } from '../layout/wanted.ts'
import { tarn } from '../testing/tarn.ts'
import { familyTable, layoutOf, mibOf } from './layout.ts'
import { familySchema } from './file.ts'
import { trustOf } from './profile.ts'

const MIB = 1024 * 1024

describe('the tarn family', () => {
  it('has its figures as the maker’s devices have them', () => {
    expect(mibOf(tarn, 'main', { storageGb: 32 })).toBe(3584)
    expect(mibOf(tarn, 'main', { storageGb: 64 })).toBe(4096)
    expect(mibOf(tarn, 'customer', { storageGb: 32 })).toBeUndefined()
    expect(tarn.drainPerMinute.writing).toBe(0.35)
  })

  it('has a layout that is well made, and differs between 32 and 64 GB', () => {
    const table = familyTable(tarn, { storageGb: 32 }, 256, 128 * MIB)
    const last = table.partitions.at(-1)
    expect(last && endOf(last)).toBe(table.lastUsable)
    const disk = new Uint8Array(128 * MIB)
    for (const { at, bytes } of encodeTable(table)) disk.set(bytes, at)
    expect(decodeBytes(disk, 512)).toMatchObject({ ok: true, value: { table, problems: [] } })
    const other = layoutOf(tarn, { storageGb: 64 }, 256)
    expect(other && compareLayout(table, other).map(({ name }) => name)).toContain('main')
    const own = layoutOf(tarn, { storageGb: 32 }, 256)
    expect(own && compareLayout(table, own)).toEqual([])
  })

  it('trusts fused ids over the link most, and a word least', () => {
    expect(trustOf(tarn, 'model', 'link')).toBe(12)
    expect(trustOf(tarn, 'build', 'link')).toBe(8)
    expect(trustOf(tarn, 'model', 'person')).toBe(1)
  })

  it('is refused when it says something no family can say', () => {
    expect(familySchema.safeParse({ ...tarn, sectorBytes: 1000 }).success).toBe(false)
    expect(familySchema.safeParse({ ...tarn, build: { ...tarn.build, order: [] } }).success).toBe(
      false,
    )
  })
})
