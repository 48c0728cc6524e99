import { describe, expect, it } from 'vitest'
import { digestOf, newest } from '../testing/packages.ts'
import type { ReadArchive } from './proof.ts'
import { prove } from './proof.ts'

const SUM = digestOf('the archive')
const MAKER = { source: 'maker', where: 'their page', at: '2026-10-02' } as const
const archive = (more: Partial<ReadArchive> = {}): ReadArchive => ({
  name: 'whatever.tar',
  sha256: SUM,
  entries: newest.images.map(({ file, storedSize: size, sha256 }, index) => ({
    name: file,
    offset: 512 + index * 1_000_000,
    size,
    sha256,
  })),
  refusedEntries: 0,
  outside: [{ sha256: SUM, ...MAKER }],
  ...more,
})
const gravest = (proof: ReturnType<typeof prove>) =>
  proof.claims.filter(({ held }) => held !== 'holds').map(({ claim, held }) => `${claim} ${held}`)

describe('a package', () => {
  it('is published when its archive is here and every image is the one it lists', () => {
    const proof = prove(newest, SUM, [archive()])
    expect([proof.state, gravest(proof)]).toEqual(['published', []])
    expect(proof.places.get(newest.images[1]?.sha256 ?? '')).toEqual({
      archive: SUM,
      offset: 1_000_512,
      size: newest.images[1]?.size,
    })
  })

  it('is refuted by one byte of one image, whatever the archive is called', () => {
    const entries = archive().entries.map((entry, index) =>
      index === 2 ? { ...entry, sha256: digestOf('another byte') } : entry,
    )
    const proof = prove(newest, SUM, [archive({ entries })])
    expect([proof.state, gravest(proof)]).toEqual(['refuted', ['image contradicted']])
    expect(prove(newest, SUM, [archive({ name: 'renamed' })]).state).toBe('published')
  })

  it('vouches for nothing: its own word makes it whole, a digest from outside published', () => {
    const own = (digest: string) => ({
      ...newest,
      published: { ...newest.published, digests: { 'H2.104.r4.tar': digest } },
    })
    const alone = archive({ outside: [] })
    expect(prove(own(SUM), SUM, [alone]).state).toBe('whole')
    expect(prove(newest, SUM, [alone]).state).toBe('whole')
    expect(prove(newest, SUM, [archive()]).state).toBe('published')
    const lying = prove(own(digestOf('other')), SUM, [alone])
    expect([lying.state, gravest(lying)]).toEqual([
      'refuted',
      ['own contradicted', 'published missing'],
    ])
  })

  it('is refuted by a digest from outside that is another, until its source is put right', () => {
    const other = { sha256: digestOf('other'), ...MAKER }
    const right = { sha256: SUM, ...MAKER }
    const state = (outside: ReadArchive['outside']) =>
      prove(newest, SUM, [archive({ outside })]).state
    expect(state([other])).toBe('refuted')
    expect(state([other, right])).toBe('published')
    expect(state([right, { ...other, source: 'person' }])).toBe('refuted')
  })

  it('whose archive lacks an image is refuted, and that image is called missing', () => {
    const proof = prove(newest, SUM, [archive({ entries: archive().entries.slice(1) })])
    expect([proof.state, gravest(proof)]).toEqual(['refuted', ['image missing']])
  })

  it('is never whole with a refused entry in it', () => {
    expect(prove(newest, SUM, [archive({ refusedEntries: 1 })]).state).toBe('refuted')
  })

  it('in two volumes is known until both are here, each by its digest', () => {
    const second = digestOf('volume 2')
    const images = newest.images.map((image) =>
      image.role === 'main' ? { ...image, archive: 'two.tar' } : image,
    )
    const archives = [{ file: 'H2.104.r4.tar' }, { file: 'two.tar', sha256: second }]
    const manifest = { ...newest, images, archives }
    const half = prove(manifest, SUM, [archive()])
    expect([half.state, gravest(half)]).toEqual(['known', ['volume missing', 'image missing']])
    const main = archive({ sha256: second, name: 'a label', outside: [] })
    expect(prove(manifest, SUM, [archive(), main]).state).toBe('whole')
    const vouched = { ...main, outside: [{ sha256: second, ...MAKER }] }
    expect(prove(manifest, SUM, [archive(), vouched]).state).toBe('published')
  })
})
