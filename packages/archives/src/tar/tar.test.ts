import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LIMITS } from '../limits.ts'
import { readTar } from '../prove.ts'
import { tarDecoder } from './decode.ts'
import type { TarOutput } from './decode.ts'
import { tarEnd, tarHeader, tarOf, tarPadding } from './write.ts'

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
const bytesOf = (length: number, seed = 7) =>
  Uint8Array.from({ length }, (_, index) => (index * 31 + seed) & 0xff)

/** Decodes bytes cut into pieces of these lengths, over and over. */
function decode(tar: Uint8Array, cuts: readonly number[] = [1 << 20]): readonly TarOutput[] {
  const decoder = tarDecoder()
  const out: TarOutput[] = []
  for (let at = 0, cut = 0; at < tar.length; cut += 1) {
    const next = at + (cuts[cut % cuts.length] ?? 1)
    out.push(...decoder.push(tar.subarray(at, next)))
    at = next
  }
  return [...out, ...decoder.end()]
}
/** What came out, with bytes of an entry put together. */
function told(outputs: readonly TarOutput[]) {
  const entries: { name: string; refused: unknown; offset: number; bytes: number[] }[] = []
  for (const output of outputs) {
    if (output.kind === 'entry') {
      const { name, refused, offset } = output.entry
      entries.push({ name, refused, offset, bytes: [] })
    }
    if (output.kind === 'bytes') entries.at(-1)?.bytes.push(...output.bytes)
  }
  return { entries, last: outputs.at(-1) }
}
async function read(tar: Uint8Array) {
  return readTar(
    (async function* () {
      await Promise.resolve()
      yield tar
    })(),
  )
}

describe('a tar', () => {
  const names = fc.uniqueArray(fc.stringMatching(/^[a-z]{1,20}$/), { minLength: 1, maxLength: 5 })
  const sizes = fc.array(fc.nat(1500), { minLength: 5, maxLength: 5 })

  it('gives the same whatever the cutting of its bytes', () => {
    fc.assert(
      fc.property(
        names,
        sizes,
        fc.array(fc.integer({ min: 1, max: 700 }), { minLength: 1 }),
        (files, lengths, cuts) => {
          const tar = tarOf(
            files.map((name, index) => ({ name, bytes: bytesOf(lengths[index] ?? 0) })),
          )
          expect(told(decode(tar, cuts))).toEqual(told(decode(tar)))
        },
      ),
      { numRuns: 60 },
    )
  })

  it('says where in the archive each entry’s bytes lie, and their digests', async () => {
    const files = [
      { name: 'a.img', bytes: bytesOf(700) },
      { name: 'empty', bytes: bytesOf(0) },
      { name: 'b.img', bytes: bytesOf(1024, 3) },
    ]
    const tar = tarOf(files)
    const reading = await read(tar)
    expect(reading).toMatchObject({
      ok: true,
      listing: { sha256: sha256(tar), bytes: tar.length, endMark: true },
    })
    const entries = reading.ok ? reading.listing.entries : []
    for (const [index, { name, bytes }] of files.entries()) {
      const entry = entries[index]
      expect(entry).toMatchObject({ name, size: bytes.length, sha256: sha256(bytes) })
      const from = entry?.offset ?? 0
      expect(Buffer.from(tar.subarray(from, from + bytes.length)).equals(Buffer.from(bytes))).toBe(
        true,
      )
    }
  })

  it.each(['ustar', 'pax', 'gnu'])(
    'as Debian’s tar writes it in %s is read the same',
    async (format) => {
      const folder = mkdtempSync(join(tmpdir(), 'tar-'))
      const long = `${'deep/'.repeat(18)}image-with-a-name.img`
      for (const name of ['main.img', long, 'sub/ü.img']) {
        mkdirSync(dirname(join(folder, name)), { recursive: true })
        writeFileSync(join(folder, name), bytesOf(5000, name.length))
      }
      execFileSync('tar', ['-C', folder, `--format=${format}`, '-cf', `${folder}.tar`, '.'])
      const reading = await read(readFileSync(`${folder}.tar`))
      const listed = reading.ok ? reading.listing.entries : []
      expect(listed.map(({ name }) => name.replace(/^\.\//, '')).sort()).toEqual(
        ['main.img', long, 'sub/ü.img'].sort(),
      )
      for (const { name, sha256: digest } of listed)
        expect(digest).toBe(sha256(readFileSync(join(folder, name))))
    },
  )
})

describe('an archive refused', () => {
  const one = [{ name: 'main.img', bytes: bytesOf(2000) }]

  it('for being cut anywhere but in its last padding, or after it', () => {
    const tar = tarOf(one)
    const refusedAt = (length: number) => told(decode(tar.subarray(0, length))).last?.kind
    for (const length of [1, 511, 513, 1500, 2511])
      expect(refusedAt(length), `at ${length}`).toBe('refused')
    for (const length of [2512, 2560, 2700, 3072, 3500])
      expect(told(decode(tar.subarray(0, length))).last).toEqual({ kind: 'end', endMark: false })
  })

  it('names the entry, the byte and the rule', () => {
    const tar = tarOf(one)
    tar[10] = 0x41
    expect(told(decode(tar)).last).toMatchObject({ refusal: { rule: 'checksum', offset: 0 } })
    const second = tarOf([...one, { name: 'b', bytes: bytesOf(10) }])
    second[512 + 2048 + 3] = 0x41
    expect(told(decode(second)).last).toMatchObject({ refusal: { rule: 'checksum', offset: 2560 } })
  })

  it('for any one byte of a header that was changed', () => {
    const tar = tarOf(one)
    fc.assert(
      fc.property(fc.nat(511), fc.integer({ min: 1, max: 255 }), (at, by) => {
        const changed = Uint8Array.from(tar)
        changed[at] = (changed[at] ?? 0) ^ by
        const checksumField = at >= 148 && at < 156
        const { last, entries } = told(decode(changed))
        if (!checksumField) expect(last?.kind).toBe('refused')
        else expect(last?.kind === 'refused' || entries[0]?.name === 'main.img').toBe(true)
      }),
      { numRuns: 100 },
    )
  })

  it('for lying lengths, before anything is kept for them', () => {
    const longPax = [tarHeader('x', LIMITS.headerBytes + 1, 'x')]
    expect(told(decode(Buffer.concat(longPax))).last).toMatchObject({
      refusal: { rule: 'header-too-long' },
    })
    const pax = new TextEncoder().encode('99 path=x\n')
    const lying = Buffer.concat([
      tarHeader('x', pax.length, 'x'),
      pax,
      tarPadding(pax.length),
      tarEnd(),
    ])
    expect(told(decode(lying)).last).toMatchObject({ refusal: { rule: 'pax' } })
  })

  it('for holes: a sparse file is not what it says', () => {
    const sparse = Buffer.concat([tarHeader('s', 0, 'S'), tarEnd()])
    expect(told(decode(sparse)).last).toMatchObject({ refusal: { rule: 'sparse', entry: 's' } })
  })

  it('never makes the decoder throw, whatever comes', () => {
    fc.assert(
      fc.property(fc.array(fc.uint8Array({ maxLength: 900 }), { maxLength: 6 }), (parts) => {
        const decoder = tarDecoder()
        parts.forEach((part) => decoder.push(part))
        decoder.end()
      }),
    )
  })
})

describe('an entry refused', () => {
  const refusals = (headers: readonly Uint8Array[]) =>
    told(decode(Buffer.concat([...headers, tarEnd()]))).entries.map(
      ({ name, refused }) => `${name}: ${String(refused)}`,
    )

  it('is listed with its rule, and the others stay', () => {
    expect(
      refusals([
        tarHeader('../out', 0),
        tarHeader('a/../../out', 0),
        tarHeader('/etc/x', 0),
        tarHeader('link', 0, '2'),
        tarHeader('hard', 0, '1'),
        tarHeader('null', 0, '3'),
        tarHeader('good', 0),
        tarHeader('good', 0),
        tarHeader('GOOD', 0),
        tarHeader('folder/', 0, '5'),
      ]),
    ).toEqual([
      '../out: climbs-out',
      'a/../../out: climbs-out',
      '/etc/x: absolute-path',
      'link: link',
      'hard: link',
      'null: device',
      'good: undefined',
      'good: duplicate',
      'GOOD: case-twin',
    ])
  })
})
