import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readSums, sumLine } from './sums.ts'

describe('a sums file', () => {
  it('is read as Debian’s tools write it, odd names too', () => {
    const folder = mkdtempSync(join(tmpdir(), 'sums-'))
    const names = ['plain.img', 'with blank.img', 'back\\slash', 'new\nline']
    names.forEach((name) => writeFileSync(join(folder, name), name))
    for (const [tool, kind] of [
      ['md5sum', 'md5'],
      ['sha1sum', 'sha-1'],
      ['sha256sum', 'sha-256'],
      ['sha512sum', 'sha-512'],
    ] as const) {
      const text = execFileSync(tool, names, { cwd: folder, encoding: 'utf8' })
      const { sums, badLines } = readSums(text)
      expect(badLines).toEqual([])
      expect(sums.map(({ name }) => name)).toEqual(names)
      expect(sums.every((sum) => sum.kind === kind)).toBe(true)
      expect(sums.map(sumLine).join('')).toBe(text)
    }
  })

  it('reads back what it writes', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1 }).filter((name) => !/[\r]/.test(name)),
        (name) => {
          const sum = { kind: 'sha-256', hex: 'a'.repeat(64), name } as const
          expect(readSums(sumLine(sum)).sums).toEqual([sum])
        },
      ),
    )
  })

  it('names the lines that are none, and takes the rest', () => {
    const text = `# made today\n\n${'b'.repeat(32)}  a\nnonsense\n${'c'.repeat(33)}  b\n`
    expect(readSums(text)).toEqual({
      sums: [{ kind: 'md5', hex: 'b'.repeat(32), name: 'a' }],
      badLines: [4, 5],
    })
  })
})
