/** Single mistakes in a profile that could be true of no device: each refused by its line, with what to write instead. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { FAMILIES_FOLDER } from '@plain-slate/demo'
import { describe, expect, it } from 'vitest'
import { readFamily } from './family-file.ts'

const files = Object.fromEntries(
  ['tarn', 'alder', 'fen'].map((id) => [
    id,
    readFileSync(join(FAMILIES_FOLDER, `${id}.yaml`), 'utf8'),
  ]),
)
const wrongIn = (text: string, strict = true) => {
  const read = readFamily(text, { strict })
  return read.ok ? [] : read.refusal
}

describe('a profile with one mistake', () => {
  it.each([
    [
      'tarn',
      'a second rest',
      'name: cache, role: cache, mib: 256',
      'name: cache, role: cache, mib: rest',
      'a second rest',
    ],
    [
      'fen',
      'a slot without its twin',
      '  - { name: kernel_b, role: kernel, slot: b, mib: 96 }\n',
      '',
      'without its twin',
    ],
    ['fen', 'one name twice', 'name: kernel_b,', 'name: kernel_a,', 'kernel_a is named twice'],
    [
      'tarn',
      'a name that no table holds',
      'name: cache, role',
      `name: ${'c'.repeat(37)}, role`,
      'no more than 36 characters',
    ],
    [
      'tarn',
      'a set that names nothing',
      'signedSet: [kernel,',
      'signedSet: [table, kernel, kernel,',
      'kernel stands there twice',
    ],
    [
      'tarn',
      'an alphabet with a letter twice',
      'alphabet: 0123456789AB',
      'alphabet: 0123456789AA',
      '“A” stands there twice',
    ],
    [
      'tarn',
      'a range turned round',
      'mibPerSecond: [9, 11]',
      'mibPerSecond: [11, 9]',
      'the lower figure first',
    ],
    [
      'tarn',
      'no size for a storage',
      'storages: [32, 64] }',
      'storages: [32, 128] }',
      'no size of',
    ],
    [
      'tarn',
      'partitions larger than the storage',
      'name: rescue, role: rescue, mib: 64',
      'name: rescue, role: rescue, mib: 64000',
      'more than 32 GB hold',
    ],
    [
      'tarn',
      'an order that names one twice',
      'restartAfter: [loader, modem]',
      'restartAfter: [loader, loader]',
      'loader stands there twice',
    ],
    ['fen', 'a way that begins in no mode', 'from: [off]', 'from: [of]', 'no mode of'],
    [
      'tarn',
      'two modes of one name',
      'id: rescue\n    kind: rescue',
      'id: loader\n    kind: rescue',
      'loader is named twice',
    ],
    [
      'tarn',
      'a driver that is older than it must be',
      'least: 2, newest: 4',
      'least: 5, newest: 4',
      'no more than the newest',
    ],
    [
      'tarn',
      'a key that no outline has',
      'keys: [trigger-left, trigger-right, scan] }',
      'keys: [trigger-left, trigger-right, scam] }',
      'no key scam',
    ],
    ['tarn', 'a line that no menu has', 'line: start\n', 'line: begin\n', 'no line begin'],
    [
      'tarn',
      'a store that is not there',
      'installs:\n  - from: card',
      'installs:\n  - from: push',
      'no store push',
    ],
    [
      'tarn',
      'a start that ends in no mode',
      'end: { kind: dead } }',
      'end: { kind: stays, mode: nowhere } }',
      'no mode nowhere',
    ],
    [
      'tarn',
      'a mode that reads back what is left alone',
      'takes:\n      { write: any,',
      'takes:\n      { read: [calib], write: any,',
      'none of them untouched',
    ],
    [
      'alder',
      'an item on no partition',
      'name: photos and files, partition: customer',
      'name: photos and files, partition: cellar',
      'no partition cellar',
    ],
    [
      'tarn',
      'a misspelt key',
      'pieceMiB: 320',
      'pieceMiB: 320\nkeptOnze: [loader]',
      'keptOnce is meant?',
    ],
  ] as const)('%s: %s is told by its line', (id, _what, from, to, says) => {
    const plain = files[id] ?? ''
    expect(plain).toContain(from)
    const text = plain.replace(from, to)
    const found = wrongIn(text)
    expect(found.map((one) => one.says).join('; ')).toContain(says)
    expect(found.every(({ line }) => line > 1)).toBe(true)
  })

  it.each([
    ['kind: writing', 'kind: writng', 'modes.4.kind', 'writing is meant?'],
    ['end: { kind: dead }', 'end: { kind: ded }', 'start.0.end.kind', 'dead is meant?'],
    ['is: torn }', 'is: tornn }', 'start.0.when.0.is', 'torn is meant?'],
    ['how: chord', 'how: cord', 'ways.0.how', 'chord is meant?'],
    ['mib: 96', 'mib: many', 'partitions.2.mib', 'a number, or a table, or rest'],
    ['opens: maker-only', 'opens: nobody', 'lock.opens', 'is none of maker-only, command'],
    ['seconds: 25', 'seconds: soon', 'ways.0.seconds', '“soon” is not a number'],
    ['maker: Brakken\n', '', 'maker', 'it is missing: write a text'],
    ['of: 74', 'of: -1', 'remedies.0.of', '“-1” is too little: at least 0'],
    ['{ set: mixed }', '{ sit: mixed }', 'start.2.when.0.sit', 'set is meant?'],
  ])('with “%s” as “%s” is told in words, at its place', (from, to, path, says) => {
    const found = wrongIn((files['tarn'] ?? '').replace(from, to))
    expect(found.map((one) => one.path)).toEqual([path])
    expect(found[0]?.says).toContain(says)
  })

  it('whose mode that writes nobody reaches, or that has none, is told', () => {
    const alder = files['alder'] ?? ''
    expect(alder).toContain('to: transfer')
    const away = alder.replaceAll('to: transfer', 'to: loader')
    expect(
      wrongIn(away)
        .map((one) => one.says)
        .join(),
    ).toContain('no way leads to transfer')
  })

  /** The phones' profile with something changed, as JSON. */
  const saysOf = (change: (family: Record<string, unknown>) => object) => {
    const read = readFamily(files['alder'] ?? '')
    if (!read.ok) throw new Error('the phones are read')
    const plain = JSON.parse(JSON.stringify(read.value)) as Record<string, unknown>
    return wrongIn(JSON.stringify(change(plain))).map((one) => one.says)
  }

  it('whose orders and sets name a role of which there is no partition is told, each place', () => {
    const without = saysOf(({ partitions, layouts: _, ...rest }) => ({
      ...rest,
      layouts: [],
      partitions: (partitions as { role: string }[]).filter(({ role }) => role !== 'rescue'),
    }))
    expect(without).toContain('no partition has the role rescue')
    expect(saysOf((family) => family)).toEqual([])
  })

  it('that takes permits and names no id that they could be bound to is told', () => {
    const facts = (family: Record<string, unknown>, ...left: readonly string[]) => ({
      ...family,
      facts: Object.fromEntries(
        Object.entries(family['facts'] as object).filter(([fact]) => !left.includes(fact)),
      ),
    })
    expect(saysOf((family) => facts(family, 'deviceId', 'serial')).join()).toContain(
      'permits without an id',
    )
    expect(saysOf((family) => facts(family, 'serial')).join()).not.toContain('permits without')
  })

  it('is no mistake where it is right, and a key of a later version is read in what was taken in before', () => {
    for (const text of Object.values(files)) expect(wrongIn(text)).toEqual([])
    const later = `${files['tarn'] ?? ''}\nsomethingNew: 4\n`
    expect(wrongIn(later).map((one) => one.says)).toEqual([
      'nothing is known by the name somethingNew',
    ])
    expect(wrongIn(later, false)).toEqual([])
  })
})
