/** A family that is taken in at one server is known at the other at once; what is no newer, or another’s, is refused. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { ApiError, FamilyRow, FamilyTaken } from '@plain-slate/api'
import { FAMILIES_FOLDER } from '@plain-slate/demo'
import type { Bench } from '@plain-slate/server/testing'
import { openBench } from '@plain-slate/server/testing'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { stringify } from 'yaml'
import { TINY } from '../agrees/tiny.ts'
import { Slip, is, shelvedBench } from './job-slip.ts'
import { until } from './whole-shop.ts'

let first: Bench
let second: Bench
beforeAll(async () => {
  first = await shelvedBench()
  const same = () => Promise.resolve(first.databaseUrl)
  second = await openBench('demo', same, { PLAIN_SLATE_FAMILIES: FAMILIES_FOLDER })
})
afterAll(async () => {
  await second.close()
  await first.close()
})

const tarn = readFileSync(join(FAMILIES_FOLDER, 'tarn.yaml'), 'utf8')
const versionOf = async (bench: Bench, id: string) => {
  const { body } = await (await bench.at('Ilse')).get<FamilyRow[]>('/api/families')
  return body.find((one) => one.id === id)?.version
}
const take = async (text: string, really: boolean, who: 'Ilse' | 'Tavi' = 'Ilse') => {
  const browser = await first.at(who)
  const body = { text, take: really }
  return (await browser.post<FamilyTaken & ApiError>('/api/families', body)).body
}

describe('a family taken in', () => {
  it('is read first and changes nothing, then is known wherever a server stands', async () => {
    const text = stringify(TINY)
    expect(await take(text, false)).toMatchObject({
      wrong: [],
      taken: false,
      family: { id: 'tallow', known: null, clashes: [] },
    })
    expect(await versionOf(first, 'tallow')).toBeUndefined()
    expect((await take(text, true)).taken).toBe(true)
    expect(await versionOf(first, 'tallow')).toBe(1)
    await until('the other server knows it', async () => (await versionOf(second, 'tallow')) === 1)
    const { body } = await (await second.at('Tavi')).get<object>('/api/book')
    expect(JSON.stringify(body)).toContain('family.taken')
  })

  it('is refused where it is no newer, or names a model of another family, or is wrong', async () => {
    expect((await take(tarn, true)).code).toBe('family.older')
    const [model] = TINY.models
    const clash = { ...TINY, id: 'tallow-2', models: [{ ...model, code: 'BRAK-H2K' }] }
    expect((await take(stringify(clash), false)).family?.clashes).toEqual([
      { model: 'BRAK-H2K', family: 'tarn' },
    ])
    expect((await take(stringify(clash), true)).code).toBe('family.clash')
    const wrong = await take(tarn.replace('cell: removable', 'cell: loose'), true)
    expect([wrong.wrong.length, wrong.taken]).toEqual([1, false])
    expect(await versionOf(first, 'tarn')).toBe(1)
  })

  it('is a lead’s act', async () => {
    expect((await take(stringify({ ...TINY, version: 2 }), true, 'Tavi')).code).toBe('act.refused')
  })

  it('says beforehand which plans it would change, and afterwards they are judged by it', async () => {
    const slip = await Slip.open(first, await first.at('Ilse'), 'P1')
    await slip.planned()
    const newer = tarn
      .replace('version: 1', 'version: 2')
      .replace('restartAfter: [loader, modem]', 'restartAfter: [loader]')
    const own = ({ number }: { readonly number: string }) => number === slip.number
    const shown = await take(newer, false)
    expect(shown.family?.decided.find(own)?.changes?.map(({ what }) => what)).toEqual(['family'])
    expect(is(await slip.job(), 'plan')).toBe('done')
    const looks = tarn.replace('version: 1', 'version: 2').replace('four lines', '4 lines')
    expect((await take(looks, false)).family?.decided.find(own)?.changes).toBeNull()
    expect((await take(newer, true)).taken).toBe(true)
    expect((await slip.plan()).taken?.changes?.map(({ what }) => what)).toEqual(['family'])
    await until('the other server knows it', async () => (await versionOf(second, 'tarn')) === 2)
    const beside = new Slip(second, await second.at('Ilse'), slip.number, 'P1')
    expect((await beside.plan()).taken?.changes?.map(({ what }) => what)).toEqual(['family'])
  })

  it('that this program can no longer read is left out, and what stood before it stands', async () => {
    await first.tamper(
      `insert into families (id, version, body, at) values ('tallow', 9, 'format: older', now())`,
    )
    await first.server.workshop.reloadFamilies()
    expect(await versionOf(first, 'tallow')).toBe(1)
    expect(await versionOf(first, 'alder')).toBe(1)
  })
})
