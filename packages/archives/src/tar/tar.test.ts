import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LIMITS } from '../limits.ts'
import { tarDecoder } from './decode.ts'
import { tarEnd, tarHeader, tarOf, tarPadding } from './write.ts'

import { bytesOf, decode, file, listed, read, sha256, told, withPax } from '../testing/tars.ts'

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
      listing: { sha256: sha256(tar), bytes: tar.length, endMark: true, behind: undefined },
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
      expect(listed.map(({ name }) => name).sort()).toEqual(['main.img', long, 'sub/ü.img'].sort())
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

describe('an archive that is no tar', () => {
  const rule = (bytes: Uint8Array) => {
    const { last } = told(decode(bytes))
    return last?.kind === 'refused' ? last.refusal : last
  }

  it('is called by what it is, and no entry is blamed', () => {
    const starting = (...magic: readonly number[]) =>
      Uint8Array.from([...magic, ...bytesOf(2000, 99)])
    expect(rule(starting(0x50, 0x4b, 3, 4))).toEqual({ rule: 'zip', entry: '', offset: 0 })
    expect(rule(starting(0x1f, 0x8b, 8))).toEqual({ rule: 'gzip', entry: '', offset: 0 })
    expect(rule(starting(9, 8, 7))).toEqual({ rule: 'not-tar', entry: '', offset: 0 })
    expect(rule(starting(0x1f, 0x8b, 8).subarray(0, 40))).toMatchObject({ rule: 'gzip' })
  })

  it.each([0, 512, 1024, 10_240])('is empty where it is %i zeros', (length) => {
    expect(rule(new Uint8Array(length))).toEqual({ rule: 'empty', entry: '', offset: 0 })
  })

  it('blames no entry that was whole for what was cut behind it', () => {
    const tar = Buffer.concat([file('whole.img'), file('next.img', 900)])
    expect(rule(tar.subarray(0, 1024 + 100))).toMatchObject({ rule: 'truncated', entry: '' })
    expect(rule(tar.subarray(0, 1536 + 100))).toMatchObject({
      rule: 'truncated',
      entry: 'next.img',
    })
  })
})

describe('what stands behind the end mark', () => {
  const behind = (bytes: Uint8Array) => {
    const { last } = told(decode(Buffer.concat([tarOf([{ name: 'a', bytes: bytesOf(3) }]), bytes])))
    return last?.kind === 'end' ? last.behind : last
  }

  it('is told with its place: bytes, or a second tar', () => {
    expect(behind(new Uint8Array(5000))).toBe(undefined)
    expect(behind(Uint8Array.from([...new Uint8Array(700), 1]))).toEqual({
      what: 'bytes',
      offset: 2048 + 512,
    })
    expect(behind(tarOf([{ name: 'b', bytes: bytesOf(3) }]))).toEqual({
      what: 'second-archive',
      offset: 2048,
    })
  })

  it('is not used', async () => {
    const tar = Buffer.concat([tarOf([{ name: 'a', bytes: bytesOf(3) }]), file('b')])
    expect(await listed(tar)).toEqual(['a: good'])
  })
})

describe('a header of a type that nobody here knows', () => {
  it('has its bytes skipped, so that nothing in them is an entry', async () => {
    const smuggled = Buffer.concat([tarHeader('evil.img', 0), Buffer.alloc(512)])
    for (const type of ['Z', 'X', 'N', 'D'])
      expect(
        await listed(tarHeader('odd', smuggled.length, type), smuggled, file('good.img')),
      ).toEqual(['odd: unknown-type', 'good.img: good'])
  })

  it('is refused with the whole where readers would differ on what follows', async () => {
    for (const type of ['2', '3', '5', '6'])
      expect(await listed(tarHeader('odd', 512, type), file('evil.img'))).toBe(
        'refused: size-of-no-file',
      )
    expect(await listed(tarHeader('hard', 512, '1'), file('good.img'))).toEqual([
      'hard: link',
      'good.img: good',
    ])
  })

  it('is nothing where it names the whole archive', async () => {
    expect(await listed(tarHeader('label', 0, 'V'), file('good.img'))).toEqual(['good.img: good'])
  })
})

describe('a pax header', () => {
  it('for all that follow says their name or size too, until it is taken back', async () => {
    const two = [file('one.img'), file('two.img')]
    expect(await listed(withPax(['path=said.img'], 'g'), file('one.img'))).toEqual([
      'said.img: good',
    ])
    expect(await listed(withPax(['size=3'], 'g'), file('one.img', 3), file('b', 3))).toEqual([
      'one.img: good',
      'b: good',
    ])
    expect(await listed(withPax(['path=said.img'], 'g'), withPax(['path='], 'g'), ...two)).toEqual([
      'one.img: good',
      'two.img: good',
    ])
  })

  it('with an empty value takes a global one back for its own entry alone', async () => {
    expect(
      await listed(withPax(['path=all.img'], 'g'), withPax(['path=']), file('a'), file('b')),
    ).toEqual(['a: good', 'all.img: good'])
  })

  it('that names with a NUL has its entry refused', async () => {
    expect(await listed(withPax(['path=a\0b']), file('x'), file('y'))).toEqual([
      'a\0b: nul-in-name',
      'y: good',
    ])
  })
})
