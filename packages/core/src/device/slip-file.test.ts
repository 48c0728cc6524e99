/** A slip's file comes back as it went, says the first thing that is wrong with it, and never counts as seen here. */
import { describe, expect, it } from 'vitest'
import type { SlipFile } from './slip-file.ts'
import { SLIP_FILE_BYTES, readSlipFile, readingsFrom } from './slip-file.ts'

const AT = '2026-10-15T14:22:00.000Z'
const file = (more: Partial<SlipFile> = {}): SlipFile => ({
  format: 'plain-slate/slip@1',
  number: '0417',
  shop: 'Ninebark',
  device: 'Brakken H2K',
  model: 'BRAK-H2K',
  intent: 'update',
  promise: 'stored tickets',
  due: AT,
  customer: null,
  words: null,
  lines: [{ topic: 'owner.proof', answer: 'shown', note: null, by: 'Ilse Maro', at: AT }],
  readings: [
    { fact: 'board', value: 'r4', source: 'link', mode: 'loader', by: null, at: AT },
    { fact: 'model', value: 'BRAK-H2K', source: 'label', mode: null, by: 'Ilse Maro', at: AT },
  ],
  ...more,
})
const read = (value: unknown) => readSlipFile(JSON.stringify(value))
const deep = (levels: number): unknown => (levels === 0 ? 1 : { a: deep(levels - 1) })

describe('a slip as a file', () => {
  it('comes back as it went', () => {
    expect(read(file())).toEqual({ ok: true, value: file() })
  })

  it('is no reading of this bench: whatever its source, it is what an earlier slip told', () => {
    expect(readingsFrom(file()).map(({ fact, source }) => [fact, source])).toEqual([
      ['board', 'earlier'],
      ['model', 'earlier'],
    ])
  })

  it.each<[string, string, object]>([
    ['no JSON', '{', { why: 'json' }],
    ['nesting', JSON.stringify({ ...file(), more: deep(9) }), { why: 'deep' }],
    ['size', JSON.stringify('x'.repeat(SLIP_FILE_BYTES)), { why: 'large' }],
    [
      'another format',
      JSON.stringify({ ...file(), format: 'plain-slate/slip@2' }),
      { why: 'format', format: 'plain-slate/slip@2' },
    ],
    ['a missing head', JSON.stringify({ ...file(), device: undefined }), { path: 'device' }],
    [
      'a control character',
      JSON.stringify(file({ device: 'a\u0000b' })),
      { path: 'device', problem: 'no control characters' },
    ],
    [
      'a fact nobody knows',
      JSON.stringify({ ...file(), readings: [{ ...file().readings[0], fact: 'colour' }] }),
      { path: 'readings.0.fact' },
    ],
  ])('is refused for %s, and says where', (_, text, refusal) => {
    const answer = readSlipFile(text)
    expect(answer.ok ? undefined : answer.refusal).toMatchObject(refusal)
  })
})
