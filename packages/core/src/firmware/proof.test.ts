import { describe, expect, it } from 'vitest'
import { digestOf, newest } from '../testing/packages.ts'
import type { ReadArchive } from './proof.ts'
import { prove } from './proof.ts'

const SUM = digestOf('the archive')
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
  ...more,
})
const published = (digest: string) => ({
  ...newest,
  published: { ...newest.published, digests: { 'H2.104.r4.tar': digest } },
})
const gravest = (proof: ReturnType<typeof prove>) =>
  proof.claims.filter(({ held }) => held !== 'holds').map(({ claim, held }) => `${claim} ${held}`)

describe('a package', () => {
  it('is proven when its archive is here and every image is the one it lists', () => {
    const proof = prove(newest, SUM, [archive()])
    expect([proof.state, gravest(proof)]).toEqual(['proven', []])
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
    expect(prove(newest, SUM, [archive({ name: 'renamed' })]).state).toBe('proven')
  })

  it('is held against the digest that was published, where one was', () => {
    expect(prove(published(SUM), SUM, [archive()]).state).toBe('proven')
    const other = prove(published(digestOf('other')), SUM, [archive()])
    expect([other.state, gravest(other)]).toEqual(['refuted', ['published contradicted']])
  })

  it('is never proven with a refused entry in it', () => {
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
    const main = archive({ sha256: second, name: 'a label' })
    expect(prove(manifest, SUM, [archive(), main]).state).toBe('proven')
  })
})
