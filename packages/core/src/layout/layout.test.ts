import { crc32 as zlibCrc } from 'node:zlib'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { crc32 } from './crc32.ts'
import { decodeBytes, decodeTable } from './decode.ts'
import { arraySectors, encodeTable } from './encode.ts'
import type { Partition, Table } from './table.ts'

const TYPE = 'a1b2c3d4e5f60718293a4b5c6d7e8f90'
const part = (name: string, start: number, sectors: number, more: Partial<Partition> = {}) => ({
  name,
  start,
  sectors,
  type: TYPE,
  id: `${name.length.toString(16).padStart(2, '0')}${'7'.repeat(30)}`,
  attributes: 0n,
  ...more,
})

/** A small device: three partitions, the last one to the end. */
function device(sectorBytes = 512, diskSectors = 4096, more: Partial<Table> = {}): Table {
  const firstUsable = 2 + arraySectors(sectorBytes)
  const lastUsable = diskSectors - 2 - arraySectors(sectorBytes)
  const start = Math.ceil(firstUsable / 8) * 8
  return {
    sectorBytes,
    diskId: '0'.repeat(31) + '1',
    diskSectors,
    firstUsable,
    lastUsable,
    partitions: [
      part('loader', start, 64),
      part('main', start + 64, 256),
      part('customer', start + 320, lastUsable - start - 319),
    ],
    ...more,
  }
}

function disk(table: Table): Uint8Array {
  const bytes = new Uint8Array(table.diskSectors * table.sectorBytes)
  for (const piece of encodeTable(table)) bytes.set(piece.bytes, piece.at)
  return bytes
}

describe('a partition table', () => {
  it.each([512, 4096])('reads back as it was written, with sectors of %i bytes', (size) => {
    const table = device(size, 2048)
    expect(decodeBytes(disk(table))).toEqual({ ok: true, value: { table, problems: [] } })
  })

  it('reads the same from a Node buffer that shares its memory, and leaves that as it was', () => {
    const table = device()
    const shared = Buffer.concat([Buffer.alloc(64), disk(table)])
    const before = Buffer.from(shared)
    expect(decodeBytes(shared.subarray(64), 512)).toMatchObject({ ok: true, value: { table } })
    expect(shared.equals(before)).toBe(true)
  })

  it('reads back whatever it holds', () => {
    const name = fc.string({ minLength: 1, maxLength: 36 }).filter((text) => !text.includes('\0'))
    const sizes = fc.array(fc.tuple(name, fc.integer({ min: 8, max: 64 })), { maxLength: 20 })
    fc.assert(
      fc.property(sizes, fc.constantFrom(512, 4096), (parts, size) => {
        const plain = device(size, 4096)
        let next = plain.partitions[0]?.start ?? 0
        const partitions = parts.map(([label, eighths]) => {
          const made = part(label, next, eighths * 8)
          next += eighths * 8
          return made
        })
        const decoded = decodeBytes(disk({ ...plain, partitions }), size)
        expect(decoded.ok && decoded.value.table.partitions).toEqual(partitions)
      }),
      { numRuns: 60 },
    )
  })

  it('is read from its backup when the primary is broken, and says so', () => {
    const table = device()
    const bytes = disk(table)
    bytes[512 + 40] = 0xff
    expect(decodeBytes(bytes)).toEqual({
      ok: true,
      value: { table, problems: [{ kind: 'primary-broken' }] },
    })
  })

  it('of which any one byte of both copies is wrong is no table', () => {
    const table = device()
    const place = fc.tuple(
      fc.nat(HEADER_LAST),
      fc.nat(HEADER_LAST),
      fc.integer({ min: 1, max: 255 }),
    )
    fc.assert(
      fc.property(place, ([one, other, by]) => {
        const bytes = disk(table)
        const [first, last] = [512 + one, (table.diskSectors - 1) * 512 + other]
        bytes[first] = (bytes[first] ?? 0) ^ by
        bytes[last] = (bytes[last] ?? 0) ^ by
        expect(decodeBytes(bytes, 512)).toMatchObject({ ok: false })
      }),
      { numRuns: 60 },
    )
  })

  it('whose copies differ is taken from the primary, and that is said', () => {
    const table = device()
    const other = { ...table, partitions: table.partitions.slice(0, 2) }
    const bytes = disk(table)
    const [, , , array, header] = encodeTable(other)
    for (const piece of [array, header]) if (piece !== undefined) bytes.set(piece.bytes, piece.at)
    expect(decodeBytes(bytes)).toMatchObject({
      value: { table, problems: [{ kind: 'copies-differ', what: 'entries' }] },
    })
  })

  it('names what is odd and lists all the same', () => {
    const table = device(512, 4096, {
      partitions: [part('a', 40, 64), part('b', 100, 60), part('c', 4095, 20), part('d', 201, 8)],
    })
    const decoded = decodeBytes(disk(table))
    expect(decoded).toMatchObject({ ok: true })
    expect(decoded.ok && decoded.value.problems).toEqual([
      { kind: 'overlap', names: ['a', 'b'] },
      { kind: 'outside', name: 'c' },
      { kind: 'over-table', name: 'c' },
      { kind: 'past-disk', name: 'c' },
      { kind: 'unaligned', name: 'b' },
      { kind: 'unaligned', name: 'd' },
      { kind: 'unaligned', name: 'c' },
    ])
  })

  it('with a header that lies about its size is refused before anything is read for it', () => {
    const table = device()
    const bytes = disk(table)
    for (const at of [512, 4095 * 512]) {
      new DataView(bytes.buffer).setUint32(at + 80, 1_000_000, true)
      mendHeader(bytes, at)
    }
    const asked: number[] = []
    const decoder = decodeTable(bytes.length, 512)
    let step = decoder.next()
    while (step.done !== true) {
      asked.push(step.value.to - step.value.from)
      step = decoder.next(bytes.subarray(step.value.from, step.value.to))
    }
    expect(step.value).toMatchObject({ refusal: { kind: 'too-large', entries: 1_000_000 } })
    expect(Math.max(...asked)).toBe(512)
  })

  /** Problems of the three-partition device with these partitions, or a head that says otherwise. */
  const problemsIn = (
    more: Partial<Table>,
    change: (bytes: Uint8Array) => void = () => undefined,
  ) => {
    const bytes = disk(device(512, 4096, more))
    change(bytes)
    const decoded = decodeBytes(bytes, 512)
    if (!decoded.ok) return [decoded.refusal.kind]
    return decoded.value.problems.map((one) =>
      [one.kind, ...('names' in one ? one.names : 'name' in one ? [one.name] : [])].join(' '),
    )
  }

  it('tells the overlap of any two, not of neighbours alone', () => {
    const wide = part('wide', 40, 400)
    const inside = [part('a', 48, 8), part('b', 64, 8), part('c', 80, 8)]
    expect(problemsIn({ partitions: [wide, ...inside] })).toEqual([
      'overlap wide a',
      'overlap wide b',
      'overlap wide c',
    ])
    expect(problemsIn({ partitions: [part('a', 40, 8), part('b', 48, 8)] })).toEqual([])
  })

  it('tells one that ends before it begins, and lists it with no sectors', () => {
    const decoded = decodeBytes(
      disk(device(512, 4096, { partitions: [part('a', 400, -299)] })),
      512,
    )
    expect(decoded).toMatchObject({
      ok: true,
      value: {
        table: { partitions: [{ name: 'a', start: 400, sectors: 0 }] },
        problems: [{ kind: 'ends-before-start', name: 'a' }],
      },
    })
  })

  it('names one that lies past 2^53, instead of leaving it out in silence', () => {
    const far = problemsIn({ partitions: [part('far', 40, 8)] }, (bytes) => {
      for (const entries of [1024, (4095 - 32) * 512]) bytes[entries + 32 + 7] = 0x40
      mend(bytes)
    })
    expect(far).toEqual(['too-far far'])
  })

  it('tells what lies over the table or past the disk, whatever it calls usable', () => {
    const lying = { firstUsable: 1, lastUsable: 9000 }
    const partitions = [part('over', 8, 8), part('tail', 4080, 8), part('past', 5000, 8)]
    expect(problemsIn({ ...lying, partitions })).toEqual([
      'usable-range',
      'over-table over',
      'over-table tail',
      'past-disk past',
    ])
    expect(problemsIn({ partitions: [part('fine', 40, 8)] })).toEqual([])
  })

  it('tells a name that comes twice', () => {
    expect(problemsIn({ partitions: [part('a', 40, 8), part('a', 48, 8)] })).toEqual([
      'twin-names a a',
    ])
  })

  it('says which copy is damaged, and what a backup lies about refuses no primary', () => {
    const last = 4095 * 512
    expect(problemsIn({}, (bytes) => (bytes[512 + 40] = 0xff))).toEqual(['primary-broken'])
    expect(problemsIn({}, (bytes) => (bytes[last + 40] = 0xff))).toEqual(['backup-broken'])
    const many = (bytes: Uint8Array, at: number) =>
      new DataView(bytes.buffer, at).setUint32(80, 2000, true)
    const lying = problemsIn({}, (bytes) => {
      many(bytes, last)
      mendHeader(bytes, last)
    })
    expect(lying).toEqual(['backup-broken'])
    const both = problemsIn({}, (bytes) => {
      for (const at of [512, last]) {
        many(bytes, at)
        mendHeader(bytes, at)
      }
    })
    expect(both).toEqual(['too-large'])
  })

  it('whose copies have another disk id or range says so', () => {
    const last = 4095 * 512
    const with_ = (at: number) =>
      problemsIn({}, (bytes) => {
        bytes[last + at] = (bytes[last + at] ?? 0) ^ 1
        mendHeader(bytes, last)
      })
    expect(with_(56)).toEqual(['copies-differ'])
    expect(with_(48)).toEqual(['copies-differ'])
  })

  it('cut short anywhere is refused, never misread', () => {
    const table = device()
    const bytes = disk(table)
    for (const length of [0, 100, 511, 512, 700, 1024, 2000, 17_000])
      expect(decodeBytes(bytes.subarray(0, length)).ok).toBe(false)
  })
})
/** Makes a header's checksum right again after a change. */
function mendHeader(bytes: Uint8Array, at: number): void {
  const view = new DataView(bytes.buffer, at)
  view.setUint32(16, 0, true)
  view.setUint32(16, crc32(bytes.subarray(at, at + 92)), true)
}
/** The same for both copies of a disk of 4,096 sectors whose entries were changed. */
function mend(bytes: Uint8Array): void {
  for (const [header, entries] of [
    [512, 1024],
    [4095 * 512, (4095 - 32) * 512],
  ] as const) {
    new DataView(bytes.buffer, header).setUint32(
      88,
      crc32(bytes.subarray(entries, entries + 128 * 128)),
      true,
    )
    mendHeader(bytes, header)
  }
}
/** The last byte of a header that its checksum covers. */
const HEADER_LAST = 91

describe('the checksum', () => {
  it('is the one of zip and GPT', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
        expect(crc32(bytes)).toBe(zlibCrc(bytes))
      }),
    )
  })
})
