/**
 * Two servers on one database and one vault: what is told to one is known at the other, and whatever one of them had
 * under way when it was killed belongs to nobody: the other goes on with it.
 */
import { request } from 'node:http'
import type { Job } from '@plain-slate/api'
import { buildPackage } from '@plain-slate/demo'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { LEAD, OTHER, WholeShop, newestPackage, until } from './whole-shop.ts'
import { draftNamed } from './world.ts'

/** A run of the lead plan lasts about 12 model minutes: some seconds. */
const PACE = 150

let shop: WholeShop
beforeAll(async () => {
  const { databaseUrl } = await cloneTemplate('demo')
  shop = new WholeShop(databaseUrl, PACE)
  await shop.open()
  await shop.begin('server b')
}, 120_000)
afterAll(() => shop.close())

const at = <Body>(name: 'server' | 'server b', path: string) => shop.callAt<Body>(name, 'GET', path)
type Shelf = Awaited<ReturnType<WholeShop['shelf']>>

describe('two servers', () => {
  it('know at once what was told to the other: a slip, a line on it', async () => {
    const draft = { device: 'Brakken H2', model: 'BRAK-H2', intent: 'update' }
    const { number } = await shop.callAt<{ number: string }>(
      'server b',
      'POST',
      '/api/slips',
      draft,
    )
    expect(await at<Job>('server', `/api/slips/${number}/job`)).toMatchObject({ intent: 'update' })
    const lines = { lines: [{ topic: 'condition.cell', answer: 'sound' }] }
    await shop.callAt('server', 'POST', `/api/slips/${number}/lines`, lines)
    const told = await at<Job>('server b', `/api/slips/${number}/job`)
    expect(told.lines.map(({ topic }) => topic)).toContain('condition.cell')
  })

  it('read each other’s uploads, and one that broke off as its server was killed stands in nobody’s way', async () => {
    const { volumes } = buildPackage(draftNamed('tarn-H2.0ZP.r4'))
    const [volume] = volumes
    if (volume === undefined) throw new Error('no volume')
    const [first] = volume.chunks()
    const url = new URL(`/api/shelf/archives?name=${volume.file}`, shop.addressOf('server b'))
    const headers = {
      ...shop.by,
      'content-type': 'application/octet-stream',
      'content-length': String(volume.bytes),
    }
    const half = request(url, { method: 'POST', headers })
    half.on('error', () => undefined)
    half.write(first)
    await new Promise((resolve) => setTimeout(resolve, 300))
    await shop.kill('server b')
    half.destroy()
    /* Sent again, to the one that is left: nothing stands in its way. */
    await shop.shelve('tarn-H2.0ZP.r4')
    const shelf = await at<Shelf>('server', '/api/shelf')
    expect(shelf.archives.filter(({ name }) => name === volume.file)).toMatchObject([
      { state: 'whole' },
    ])
    await shop.begin('server b')
    const other = await at<Shelf>('server b', '/api/shelf')
    expect(other.packages.map(({ id }) => id)).toContain('tarn-H2.0ZP.r4')
  }, 60_000)

  it('leave a run to its agent: begun at one that dies, it is shown, answered and ended at the other', async () => {
    const marks = shop.flash(LEAD).marks
    const { number, digest } = await shop.ready()
    const run = await shop.callAt<{ id: string }>(
      'server b',
      'POST',
      `/api/slips/${number}/start`,
      { digest },
    )
    await shop.follow(run.id, 'it writes', ({ step }) => step >= 20)
    await shop.kill('server b')
    const ended = await shop.follow(run.id, 'it ends', ({ state }) => state === 'ended')
    expect([ended.word, ended.losses]).toEqual(['done', 0])
    expect(shop.flash(LEAD).wrong(newestPackage())).toEqual([])
    expect(shop.flash(LEAD).marks).toEqual(marks)
    expect((await shop.port('P2')).seen?.serial).toBe(LEAD)
    await until('the other is seen at its port', async () => {
      await shop.hands({ kind: 'plug', serial: OTHER, port: 'P1' })
      return (await shop.port('P1')).seen?.serial === OTHER
    })
  }, 120_000)
})
