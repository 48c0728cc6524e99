/** A depot's catalogue: read by its text, said where it is wrong; what is signed is everything but the signature. */
import { describe, expect, it } from 'vitest'
import { newest } from '../testing/packages.ts'
import type { DepotCatalogue } from './depot-catalogue.ts'
import { CATALOGUE_FORMAT, readCatalogue, signedText } from './depot-catalogue.ts'

const pack = {
  ...newest,
  archives: [{ file: 'a.tar', sha256: 'a'.repeat(64), bytes: 12 }],
}
const catalogue: DepotCatalogue = {
  format: CATALOGUE_FORMAT,
  from: 'Holm depot',
  number: 41,
  issued: '2026-10-12',
  expires: '2026-11-30',
  packages: [pack],
  signature: `${'A'.repeat(86)}==`,
}
const read = (value: unknown) => readCatalogue(JSON.stringify(value))
const where = (value: unknown) => {
  const answer = read(value)
  return answer.ok ? 'read' : answer.refusal.path
}

describe('a catalogue', () => {
  it('is read whole', () => {
    const answer = read(catalogue)
    expect(answer.ok && answer.value.packages[0]?.id).toBe(pack.id)
  })

  it.each<[string, unknown, string]>([
    ['of a newer format', { ...catalogue, format: 'plain-slate/catalogue@2' }, 'format'],
    ['without a number', { ...catalogue, number: 0 }, 'number'],
    ['with a field nobody signed for', { ...catalogue, moon: 1 }, ''],
    ['with no package', { ...catalogue, packages: [] }, 'packages'],
    [
      'with a package of no build',
      { ...catalogue, packages: [{ ...pack, build: '' }] },
      'packages.0.build',
    ],
    [
      'with a volume that has no digest',
      { ...catalogue, packages: [pack, { ...pack, archives: [{ file: 'b.tar' }] }] },
      'packages.1.archives',
    ],
    ['with half a character', { ...catalogue, from: '\ud800' }, ''],
    ['with a signature of another length', { ...catalogue, signature: 'QUJD' }, 'signature'],
  ])('%s is refused with its place', (_, value, path) => {
    expect(where(value)).toBe(path)
  })

  it('that is no JSON says so', () => {
    const answer = readCatalogue('moon')
    expect(answer.ok ? '' : answer.refusal.problem).toBe('it is no JSON')
  })

  it('signs everything of it, in one order, and not its signature', () => {
    const { signature: _, ...rest } = catalogue
    const text = signedText(catalogue)
    expect(signedText(rest)).toBe(text)
    expect(signedText(Object.fromEntries(Object.entries(rest).reverse()) as typeof rest)).toBe(text)
    for (const change of [
      { number: 42 },
      { expires: '2026-12-01' },
      { packages: [{ ...pack, release: 9 }] },
    ])
      expect(signedText({ ...catalogue, ...change })).not.toBe(text)
  })
})
