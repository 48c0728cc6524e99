/** A family's file as it is read: what is wrong with it is told by its line, and nothing in it hurts the reader. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { FAMILIES_FOLDER } from '@plain-slate/demo'
import { describe, expect, it } from 'vitest'
import { FAMILY_BYTES, readFamily } from './family-file.ts'

const tarn = readFileSync(join(FAMILIES_FOLDER, 'tarn.yaml'), 'utf8')
/** The file with one text exchanged, and the line on which the new one begins. */
function changed(from: string, to: string) {
  expect(tarn).toContain(from)
  const text = tarn.replace(from, to)
  return { text, line: text.slice(0, text.indexOf(to)).split('\n').length }
}
const wrongIn = (text: string) => {
  const read = readFamily(text)
  return read.ok ? [] : read.refusal
}

describe('a family’s file', () => {
  it('is read as it is, and as JSON', () => {
    const read = readFamily(tarn)
    expect(read.ok && read.value.id).toBe('tarn')
    expect(read.ok && readFamily(JSON.stringify(read.value)).ok).toBe(true)
  })

  it('is told where it is wrong: the field, its line, and every such place', () => {
    const { text, line } = changed('cell: removable', 'cell: loose')
    expect(wrongIn(text)).toMatchObject([{ line, path: 'cell' }])
    const ref = changed('restartAfter: [loader, modem]', 'restartAfter: [loader, radio]')
    const both = ref.text.replace('cell: removable', 'cell: loose')
    expect(wrongIn(both).map(({ path }) => path)).toEqual(['cell', 'restartAfter.1'])
  })

  it('is told of a reference to nothing, in its parts’ own words', () => {
    const { text, line } = changed('    to: loader\n', '    to: lader\n')
    expect(wrongIn(text)).toContainEqual({
      line,
      path: expect.stringMatching(/^ways\.\d+\.to$/) as string,
      says: 'no mode lader',
    })
  })

  it('names the place of what is missing by what it should stand in', () => {
    const text = tarn.replace(/^maker: .*\n/m, '')
    expect(wrongIn(text)).toMatchObject([{ path: 'maker' }])
  })

  it.each([
    ['text that is no YAML', 'modes: [', 1],
    ['an alias', 'a: &a [1]\nb: *a', 1],
    ['a tag of somebody’s own', 'a: !run x', 1],
    ['nothing', '', 1],
    ['a nesting that has no end', '['.repeat(200_000), 1],
    ['more than a file may have', `# ${'x'.repeat(FAMILY_BYTES)}`, 1],
  ])('is refused, and hurts nobody: %s', (_, text, line) => {
    const [first] = wrongIn(text)
    expect(first?.line).toBe(line)
    expect(first?.says).not.toBe('')
  })
})

describe('a family’s file that is made to hurt', () => {
  const says = (text: string) => wrongIn(text).map(({ line, says: what }) => `${line}: ${what}`)
  /** What it took to refuse, beside reading a whole family: no more than that. */
  const quickly = (text: string) => {
    const plain = timed(tarn)
    return timed(text) < Math.max(plain, 5) * 10
  }
  function timed(text: string): number {
    const began = performance.now()
    readFamily(text)
    return performance.now() - began
  }

  it.each([
    ['many keys at one level', `id: x\n${'k: 1\n'.repeat(3000).replace(/k/g, () => key())}`],
    [
      'many keys in brackets',
      `a: {${Array.from({ length: 3000 }, () => `${key()}: 1`).join(',')}}`,
    ],
    ['many entries of a list', `a: [${'1,'.repeat(3000)}1]`],
    ['brackets in brackets', `a: ${'['.repeat(5000)}`],
    [
      'levels by indentation',
      Array.from({ length: 400 }, (_, at) => `${' '.repeat(at)}a:`).join('\n'),
    ],
    ['more bytes than any family', `a: "${'x'.repeat(FAMILY_BYTES)}"`],
  ])('%s is refused before it is parsed', (_what, text) => {
    expect(says(text)).toHaveLength(1)
    expect(quickly(text)).toBe(true)
  })

  it('and is not, is read: many lines of a sentence, brackets closed in a line', () => {
    expect(says(tarn)).toEqual([])
    expect(says(`${tarn}\n${'# [[[[[[[[[[[[[[[[[[[[[[[[[[[[[[\n'.repeat(3000)}`)).toEqual([])
  })
})

let keys = 0
const key = () => `k${(keys += 1)}`
