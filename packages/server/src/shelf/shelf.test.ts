/**
 * The shelf as it is asked and answered: every archive ends in a state whatever its bytes, bytes count their
 * owners, nothing vouches for itself, the same id with other bytes is another package.
 */
import type { Archive, EntryShown, Shelf } from '@plain-slate/api'
import { demoPersonAt } from '@plain-slate/demo'
import { tarEnd, tarHeader, tarOf, tarPadding } from '@plain-slate/archives'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { NotStored } from '@plain-slate/vault'
import { PUT_BACK_MS, purgeShelf } from './acts.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { openBench } from '../testing/bench.ts'
import { MAIN, image, json, manifest, packed, sendArchive, sha256 } from '../testing/packed.ts'

const BODY_TIME = { small: 250, still: 1500 }
let bench: Bench
let ilse: Browser
let juno: Browser
beforeAll(async () => {
  bench = await openBench('demo', undefined, {}, { bodyTime: BODY_TIME })
  ilse = await bench.at('Ilse')
  juno = await bench.at('Juno')
})
afterAll(() => bench.close())

const send = (bytes: Uint8Array, query: Readonly<Record<string, string>> = {}) =>
  sendArchive(bench.address, bytes, query)
const shelf = async () => (await ilse.get<Shelf>('/api/shelf')).body
const row = async (id: string) => (await shelf()).archives.find((one) => one.id === id)
const packages = async (id: string) => (await shelf()).packages.filter((one) => one.id === id)
const state = async (id: string) => (await packages(id)).map((one) => one.state)
const entries = async (id: string, query = '') =>
  (
    await ilse.get<{ entries: EntryShown[]; more: boolean }>(
      `/api/shelf/archives/${id}/entries${query}`,
    )
  ).body
const has = (digest: string) => bench.server.workshop.vault.has(digest)

describe('an archive', () => {
  it.each<[string, Uint8Array, string | null, string | null]>([
    [
      'an empty manifest',
      tarOf([{ name: 'manifest.json', bytes: Buffer.alloc(0) }]),
      null,
      'it is empty',
    ],
    [
      'a manifest with a NUL',
      tarOf([{ name: 'manifest.json', bytes: json(manifest('a', { moon: 'a\0b' })) }]),
      null,
      'a text with a NUL',
    ],
    [
      'a manifest with half a character',
      tarOf([{ name: 'manifest.json', bytes: Buffer.from('{"moon":"\\ud800"}') }]),
      null,
      'half a character',
    ],
    ['no manifest', tarOf([{ name: 'main.img', bytes: MAIN }]), null, null],
    ['nothing', new Uint8Array(10_240), 'empty', null],
    ['a zip', Buffer.concat([Buffer.from('PK\x03\x04'), Buffer.alloc(2000, 5)]), 'zip', null],
  ])('of %s ends in a state, with its reason', async (_, bytes, rule, trouble) => {
    const { id } = await send(bytes)
    const ended = await row(id)
    expect(ended?.state).toBe(rule === null ? 'whole' : 'refused')
    expect(ended?.refusal?.rule ?? null).toBe(rule)
    if (trouble === null) expect(ended?.trouble).toBe(null)
    else expect(ended?.trouble).toContain(trouble)
  })

  it('stands in the book under whoever sent it, at a browser or at the shell', async () => {
    type Entry = { by: string | null; facts: { via?: string; name: string } }
    const newest = async () =>
      (await ilse.get<{ entries: Entry[] }>('/api/book?act=archive.shelved')).body.entries[0]
    await ilse.raw('/api/shelf/archives?name=hers.tar', {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: Buffer.from(packed('sent-by-ilse')),
    })
    expect(await newest()).toMatchObject({ by: 'Ilse Maro', facts: { name: 'hers.tar' } })
    const before = (await newest())?.facts.name
    const tavi = await demoPersonAt(bench.address, 'bench-secret', 'Tavi')
    const nobody = { authorization: 'Bearer bench-secret' }
    for (const by of [nobody, tavi])
      await fetch(`${bench.address}/api/shelf/archives?name=his.tar`, {
        method: 'POST',
        headers: { ...by, 'content-type': 'application/octet-stream' },
        body: Buffer.from(packed('sent-at-the-shell')),
      })
    const after = await newest()
    expect([before, after?.by, after?.facts.name]).toEqual(['hers.tar', 'Tavi Renn', 'his.tar'])
  })

  it('that was made of a whole folder holds its manifest and images under their paths', async () => {
    const folder = tarHeader('./', 0, '5')
    const files = tarOf([
      { name: './manifest.json', bytes: json(manifest('of-a-folder')) },
      { name: './main.img', bytes: MAIN },
    ])
    await send(Buffer.concat([folder, files]))
    expect(await state('of-a-folder')).toEqual(['whole'])
  })

  it('with a NUL in a name ends too, the entry named with place and rule', async () => {
    const record = '15 path=a\0b.im\n'
    const odd = [
      tarHeader('pax', record.length, 'x'),
      Buffer.from(record),
      tarPadding(record.length),
      tarHeader('plain', 3),
      Buffer.from('abc'),
      tarPadding(3),
      tarHeader('\u001b[2Jup/../../out', 0),
      tarHeader('good', 0),
      tarEnd(),
    ]
    const { id } = await send(Buffer.concat(odd))
    expect(await row(id)).toMatchObject({ state: 'whole', entries: 3, refusedEntries: 2 })
    const refused = await entries(id, '?only=refused')
    expect(refused.entries).toMatchObject([
      { name: 'a\\u0000b.im', offset: 1536, refused: 'nul-in-name' },
      { name: '\\u001b[2Jup/../../out', refused: 'climbs-out' },
    ])
    expect((await entries(id)).entries.map(({ name }) => name)).toContain('good')
  })

  it('with a NUL in its own name is kept under an escaped one, and leaves nothing behind', async () => {
    const { id, name, sha256: digest } = await send(packed('nul-label'), { name: 'a\0b\n.tar' })
    expect(name).toBe('a\\u0000b\\u000a.tar')
    expect([(await row(id))?.state, await has(digest)]).toEqual(['whole', true])
  })

  it('says a missing end mark, and what stands behind it', async () => {
    const whole = packed('conditions')
    const cut = await send(whole.subarray(0, whole.length - 1024))
    expect(await row(cut.id)).toMatchObject({ state: 'whole', endMark: false, behind: null })
    const second = await send(Buffer.concat([whole, packed('hidden')]))
    expect(await row(second.id)).toMatchObject({
      endMark: true,
      behind: { what: 'second-archive', offset: whole.length },
    })
    expect(await packages('hidden')).toEqual([])
  })

  it('damaged and sent three times at once ends three times, and its bytes are gone after the last', async () => {
    const damaged = packed('damaged').subarray(0, 3000)
    const sent = await Promise.all([1, 2, 3].map(() => send(damaged)))
    const rows = await Promise.all(sent.map(({ id }) => row(id)))
    expect(rows.map((one) => one?.state)).toEqual(['refused', 'refused', 'refused'])
    expect(await has(sha256(damaged))).toBe(false)
  })

  it('whose bytes another row owns keeps them when one is refused or removed', async () => {
    const bytes = packed('two-owners')
    const [one, other] = [await send(bytes), await send(bytes)]
    await ilse.post(`/api/shelf/archives/${one.id}/remove`)
    later(PUT_BACK_MS * 2)
    await purgeShelf(bench.server.workshop)
    expect([await row(one.id), await has(sha256(bytes))]).toEqual([undefined, true])
    await ilse.post(`/api/shelf/archives/${other.id}/remove`)
    later(PUT_BACK_MS * 4)
    await purgeShelf(bench.server.workshop)
    expect(await has(sha256(bytes))).toBe(false)
    expect(await packages('two-owners')).toEqual([])
  })

  it('that could not be read fails with its reason, keeps its bytes, and is read again', async () => {
    const { vault } = bench.server.workshop
    const reading = vault.read
    Object.assign(vault, { read: () => Promise.reject(new NotStored('the disk is away')) })
    const bytes = packed('failed')
    const { id } = await send(bytes)
    Object.assign(vault, { read: reading })
    expect(await row(id)).toMatchObject({ state: 'failed', trouble: 'the disk is away' })
    expect(await has(sha256(bytes))).toBe(true)
    const { body } = await ilse.get<{ entries: { act: string }[] }>('/api/book?act=archive.failed')
    expect(body.entries).toHaveLength(1)
    await ilse.post(`/api/shelf/archives/${id}/read`)
    expect(await row(id)).toMatchObject({ state: 'whole', trouble: null })
    const again = await ilse.post(`/api/shelf/archives/${id}/read`)
    expect(again.body.code).toBe('archive.state')
  })

  it('is told by its counts; its entries come by the page', async () => {
    const many = tarOf(
      Array.from({ length: 450 }, (_, at) => ({ name: `part-${at}`, bytes: Buffer.of(at & 255) })),
    )
    const { id } = await send(many)
    expect(JSON.stringify(await shelf())).not.toContain('part-449')
    const first = await entries(id)
    expect([first.entries.length, first.more]).toEqual([200, true])
    const last = await entries(id, `?after=${first.entries.at(-1)?.n ?? 0}`)
    const rest = await entries(id, `?after=${last.entries.at(-1)?.n ?? 0}`)
    expect([last.entries.length, rest.entries.length, rest.more]).toEqual([200, 50, false])
    expect(rest.entries.at(-1)?.name).toBe('part-449')
  })
})

/** The shop's clock so much later; it stays there for what follows. */
const began = Date.now()
const later = (byMs: number) =>
  Object.assign(bench.server.workshop.clock, { now: () => Promise.resolve(began + byMs) })

describe('removing', () => {
  it('takes a package off the shelf, and putting back brings it whole', async () => {
    const { id } = await send(packed('removed'))
    const removed = await ilse.post<Archive>(`/api/shelf/archives/${id}/remove`)
    expect(removed.body.removedAt).not.toBe(null)
    expect(await packages('removed')).toEqual([])
    await ilse.post(`/api/shelf/archives/${id}/restore`)
    expect([await state('removed'), (await row(id))?.removedAt]).toEqual([['whole'], null])
    const { body } = await ilse.get<{ entries: { facts: object }[] }>(
      '/api/book?act=archive.restored',
    )
    expect(body.entries).toHaveLength(1)
  })

  it('is for a technician, and of something that is there', async () => {
    const { id } = await send(packed('barred'))
    expect((await juno.post(`/api/shelf/archives/${id}/remove`)).status).toBe(403)
    const none = '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9dffff'
    expect((await ilse.post(`/api/shelf/archives/${none}/remove`)).body.code).toBe(
      'archive.unknown',
    )
    expect((await ilse.post(`/api/shelf/archives/${id}/restore`)).body.code).toBe('archive.state')
  })
})

describe('a package', () => {
  it('vouches for nothing: its own word makes it whole, whoever it names as its source', async () => {
    const bytes = packed('self')
    await send(bytes)
    expect(await state('self')).toEqual(['whole'])
    const told = { published: { source: 'Brakken', sourceKind: 'maker', date: '2026-10-01' } }
    const digests = { 'x.tar': sha256(bytes) }
    await send(packed('boasting', { published: { ...told.published, digests } }))
    /* It cannot name its own digest, so what it names is another's: contradicted. */
    expect(await state('boasting')).toEqual(['refuted'])
  })

  it('is published by a digest from outside, with who says so and where', async () => {
    const bytes = packed('outside')
    const { id } = await send(bytes)
    const told = { sha256: sha256(bytes), source: 'maker', where: 'page of releases' }
    await ilse.post(`/api/shelf/archives/${id}/published`, told)
    const [one] = await packages('outside')
    expect(one?.state).toBe('published')
    const { body } = await ilse.get<{ claims: { claim: string }[] }>(
      `/api/shelf/packages/${one?.key ?? ''}`,
    )
    expect(body.claims.find(({ claim }) => claim === 'published')).toMatchObject({
      held: 'holds',
      source: 'maker',
      where: 'page of releases',
    })
  })

  it('is refuted by another digest from outside, until its source puts that right', async () => {
    const bytes = packed('mistyped')
    const { id } = await send(bytes)
    const tell = (digest: string) =>
      ilse.post(`/api/shelf/archives/${id}/published`, {
        sha256: digest,
        source: 'maker',
        where: 'page',
      })
    await tell('0'.repeat(64))
    expect(await state('mistyped')).toEqual(['refuted'])
    await tell(sha256(bytes))
    expect(await state('mistyped')).toEqual(['published'])
  })

  it('of the same id with other bytes stands beside the first, and neither replaces the other', async () => {
    const good = packed('twins')
    await send(good, { sha256: sha256(good), source: 'maker', where: 'page' })
    const other = packed('twins', { images: [image(Buffer.alloc(3000, 9))] })
    await send(other)
    expect((await state('twins')).sort()).toEqual(['published', 'refuted'])
    await send(packed('twins', {}, Buffer.alloc(3000, 8)))
    expect((await state('twins')).sort()).toEqual(['published', 'refuted', 'whole'])
    await send(good)
    expect((await state('twins')).sort()).toEqual(['published', 'refuted', 'whole'])
    const keys = (await packages('twins')).map(({ key }) => key)
    expect(new Set(keys).size).toBe(3)
    const several = await ilse.get('/api/shelf/packages/twins')
    expect([several.status, several.body.code]).toEqual([409, 'package.several'])
    const named = await ilse.get<{ key: string }>(`/api/shelf/packages/${keys[0] ?? ''}`)
    expect(named.body.key).toBe(keys[0])
  })

  it('with a refused entry in its archive is never whole', async () => {
    const bytes = Buffer.concat([
      tarHeader('../out', 0),
      packed('refused-entry') as Uint8Array<ArrayBuffer>,
    ])
    await send(bytes)
    expect(await state('refused-entry')).toEqual(['refuted'])
  })
})
