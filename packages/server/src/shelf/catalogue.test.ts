/**
 * A depot's catalogue as it is taken in: by its signature, its number, its day; what it lists is known, and its digests
 * vouch for what comes. The proofs that stand in the tables are those that would be made of them.
 */
import { generateKeyPairSync, sign } from 'node:crypto'
import { mkdtempSync, renameSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Archive, CatalogueRow, Shelf } from '@plain-slate/api'
import type { DepotCatalogue, UnsignedCatalogue } from '@plain-slate/core'
import { CATALOGUE_FORMAT, signedText } from '@plain-slate/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Bench, Browser } from '../testing/bench.ts'
import { openBench } from '../testing/bench.ts'
import { MAIN, image, manifest, packed, sendArchive, sha256 } from '../testing/packed.ts'
import { listPackages } from '../tables/packages.ts'
import { provenOf } from './proofs.ts'

const depot = generateKeyPairSync('ed25519')
const stranger = generateKeyPairSync('ed25519')
const trust = mkdtempSync(join(tmpdir(), 'trust-'))
writeFileSync(join(trust, 'depot.pem'), depot.publicKey.export({ format: 'pem', type: 'spki' }))
writeFileSync(join(trust, 'broken.pem'), 'no key at all')

let bench: Bench
let ilse: Browser
let juno: Browser
beforeAll(async () => {
  bench = await openBench('demo', undefined, { PLAIN_SLATE_TRUST: trust })
  ilse = await bench.at('Ilse')
  juno = await bench.at('Juno')
})
afterAll(() => bench.close())

type Listed = DepotCatalogue['packages']
const listed = (id: string, more: object = {}, bytes = packed(id)) =>
  manifest(id, {
    archives: [{ file: 'x.tar', sha256: sha256(bytes), bytes: bytes.length }],
    ...more,
  }) as unknown as Listed[number]

function signed(
  number: number,
  packages: readonly Listed[number][],
  {
    key = depot.privateKey,
    ...more
  }: Partial<UnsignedCatalogue> & { key?: typeof depot.privateKey } = {},
): string {
  const rest: UnsignedCatalogue = {
    format: CATALOGUE_FORMAT,
    from: 'Holm depot',
    number,
    issued: '2026-10-12',
    expires: '2026-11-30',
    packages: [...packages],
    ...more,
  }
  const signature = sign(null, Buffer.from(signedText(rest)), key).toString('base64')
  return JSON.stringify({ ...rest, signature })
}

async function take(text: string, by = ilse) {
  const response = await by.raw('/api/shelf/catalogues', {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: text,
  })
  return (await response.json()) as CatalogueRow & { code?: string }
}
const shelf = async (query = '') => (await ilse.get<Shelf>(`/api/shelf${query}`)).body
const state = async (id: string) => {
  const { packages } = await shelf(`?find=${id}`)
  return packages.filter((one) => one.id === id).map((one) => one.state)
}
const send = (bytes: Uint8Array) => sendArchive(bench.address, bytes)

describe('a catalogue', () => {
  it('of a trusted depot makes its packages known, and stands in the book', async () => {
    expect(await take(signed(1, [listed('known-a'), listed('known-b')]))).toMatchObject({
      number: 1,
      packages: 2,
    })
    expect([await state('known-a'), await state('known-b')]).toEqual([['known'], ['known']])
    const { body } = await ilse.get<{ entries: { facts: object }[] }>(
      '/api/book?act=catalogue.taken',
    )
    expect(body.entries[0]?.facts).toMatchObject({ from: 'Holm depot', number: 1, packages: 2 })
    expect((await shelf()).catalogues).toMatchObject([{ from: 'Holm depot', number: 1 }])
  })

  it('vouches for the archive that comes after it, and for none with other bytes', async () => {
    await send(packed('known-a'))
    expect(await state('known-a')).toEqual(['published'])
    await send(packed('known-b', {}, Buffer.alloc(3000, 9)))
    expect((await state('known-b')).sort()).toEqual(['known', 'whole'])
  })

  it('vouches for an archive that was here before it', async () => {
    await send(packed('before'))
    expect(await state('before')).toEqual(['whole'])
    await take(signed(2, [listed('known-a'), listed('known-b'), listed('before')]))
    expect(await state('before')).toEqual(['published'])
  })

  it('is refused with nothing kept: signed by a stranger, changed, old, out of its days, unreadable', async () => {
    const before = await shelf()
    const changed = JSON.parse(signed(9, [listed('never')])) as object
    const refused = [
      [signed(9, [listed('never')], { key: stranger.privateKey }), 'catalogue.unsigned'],
      [JSON.stringify({ ...changed, number: 10 }), 'catalogue.unsigned'],
      [signed(2, [listed('never')]), 'catalogue.older'],
      [signed(9, [listed('never')], { expires: '2026-10-14' }), 'catalogue.expired'],
      [signed(9, [listed('never', { build: '' })]), 'catalogue.unreadable'],
      ['moon', 'catalogue.unreadable'],
    ] as const
    for (const [text, code] of refused) expect((await take(text)).code).toBe(code)
    expect((await take(signed(9, [listed('never')]), juno)).code).toBe('act.refused')
    expect((await shelf()).states).toEqual(before.states)
  })

  it('that lists a package no more takes it off what is known, unless its archive is here', async () => {
    await take(signed(3, [listed('known-c')]))
    expect([await state('known-a'), await state('known-b'), await state('known-c')]).toEqual([
      ['published'],
      ['whole'],
      ['known'],
    ])
  })

  it('of another depot counts for itself', async () => {
    await take(signed(1, [listed('elsewhere')], { from: 'Sound depot' }))
    expect(await state('known-c')).toEqual(['known'])
    expect((await shelf()).catalogues.map(({ from }) => from)).toEqual([
      'Holm depot',
      'Sound depot',
    ])
  })
})

describe('what is known', () => {
  it('is listed a page at a time, found by words, counted by its proof', async () => {
    const many = Array.from({ length: 70 }, (_, n) => listed(`many-${String(n).padStart(2, '0')}`))
    await take(signed(4, [listed('known-c'), ...many]))
    const first = await shelf('?find=many')
    const second = await shelf('?find=many&after=60')
    expect([first.packages.length, second.packages.length, first.states.known]).toEqual([
      60, 10, 70,
    ])
    expect((await shelf('?find=many%20BRAK')).states.known).toBe(70)
    expect((await shelf('?find=many%25')).packages).toEqual([])
    expect(
      (await shelf('?state=published')).packages.every((one) => one.state === 'published'),
    ).toBe(true)
  })

  it('has the proof that its volumes give, whatever was done to them, in whatever order', async () => {
    const { db } = bench.server.workshop
    const volumes = ['one', 'two'].map((name) => packed(`vol-${name}`))
    const [, later = new Uint8Array()] = volumes
    const split = packed('split', {
      archives: [{ file: 'x.tar' }, { file: 'y.tar', sha256: sha256(later) }],
      images: [image(MAIN), image(MAIN, 'y.tar')],
    })
    const asTold = async () => {
      const { packages: kept } = await listPackages(db, { find: '', after: 0, limit: 1000 })
      const made = await provenOf(db, kept)
      expect(kept.map(({ proof, manifest: { id } }) => [id, proof.state])).toEqual(
        made.map(({ proof, manifest: { id } }) => [id, proof.state]),
      )
      for (const [at, { proof, volumes: here }] of kept.entries()) {
        expect(proof.claims).toEqual(made[at]?.proof.claims)
        expect([...proof.places]).toEqual([...(made[at]?.proof.places ?? [])])
        expect(here).toEqual(made[at]?.volumes)
      }
      return (await state('split'))[0]
    }
    const [first, second] = await Promise.all([send(split), send(later)])
    expect(await asTold()).toBe('whole')
    const act = (one: Archive, name: string) => ilse.post(`/api/shelf/archives/${one.id}/${name}`)
    await act(second, 'remove')
    expect(await asTold()).toBe('known')
    await act(first, 'remove')
    expect(await asTold()).toBe(undefined)
    await act(second, 'restore')
    await act(first, 'restore')
    expect(await asTold()).toBe('whole')
    const wrong = { sha256: '0'.repeat(64), source: 'maker', where: 'page' }
    await ilse.post(`/api/shelf/archives/${second.id}/published`, wrong)
    expect(await asTold()).toBe('refuted')
  })
})

/** 200, or the code of the refusal. */
const takes = async (text: string) => (await take(text)).code ?? 200

describe('a depot', () => {
  const from = 'Second depot'
  const other = generateKeyPairSync('ed25519')
  const pem = other.publicKey.export({ format: 'pem', type: 'spki' })

  it('is bound to the key of its first catalogue, under whatever name that lies there', async () => {
    writeFileSync(join(trust, 'other.pem'), pem)
    expect(await takes(signed(1, [listed('bound-1')], { from }))).toBe(200)
    const foreign = signed(2, [listed('bound-2')], { from, key: other.privateKey })
    expect(await takes(foreign)).toBe('catalogue.other-key')
    renameSync(join(trust, 'depot.pem'), join(trust, 'renamed.pem'))
    expect(await takes(foreign)).toBe('catalogue.other-key')
    expect(await takes(signed(2, [listed('bound-2')], { from }))).toBe(200)
  })

  it('is bound anew where its key was taken out of the trust store', async () => {
    renameSync(join(trust, 'renamed.pem'), join(trust, 'renamed.gone'))
    const next = signed(3, [listed('bound-3')], { from, key: other.privateKey })
    expect(await takes(next)).toBe(200)
    renameSync(join(trust, 'renamed.gone'), join(trust, 'depot.pem'))
  })

  it.each([
    ['a number that no table keeps', 2 ** 31, {}],
    ['a package twice', 10, { packages: [listed('twice'), listed('twice')] }],
    ['a name of odd letters', 10, { from: 'De\u202epot' }],
    ['an end before its beginning', 10, { expires: '2026-10-01' }],
  ])('that says %s is refused by its place', async (_what, number, more) => {
    expect(await takes(signed(number, [listed('odd')], { from, ...more }))).toBe(
      'catalogue.unreadable',
    )
  })

  it('whose catalogue is nested without end is refused before it is parsed', async () => {
    expect(await takes(`{"packages":${'['.repeat(20_000)}`)).toBe('catalogue.unreadable')
  })
})
