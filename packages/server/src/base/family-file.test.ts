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
