/** A charge that falls below what the rest of a run may draw stands on it, stops it where that is safe, and holds it. */
import type { ApiError, EventLine, RunShown } from '@plain-slate/api'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { LEAD, WholeShop, newestPackage, until } from './whole-shop.ts'

let shop: WholeShop
beforeAll(async () => {
  shop = new WholeShop((await cloneTemplate('demo')).databaseUrl, 100)
  await shop.open()
}, 120_000)
afterAll(() => shop.close())

const charge = (percent: number) => shop.hands({ kind: 'charge', serial: LEAD, percent })

it('holds a run until its device is charged, and none that has enough', async () => {
  const customer = shop.flash(LEAD).marks
  const id = await shop.start()
  const writes = await shop.follow(id, 'it writes', ({ got, step }) => step > 10 && got > 0)
  expect(writes.short).toBe(null)
  await charge(2)
  const told = await shop.follow(id, 'it is told', ({ short }) => short !== null)
  expect(told.short?.charge).toBeLessThanOrEqual(2)
  expect(told.short?.needs).toBeGreaterThan(2)
  const held = await shop.follow(id, 'it stands', ({ state }) => state === 'stopped')
  expect([held.why?.code, held.hold]).toEqual(['asked', null])
  const refused = (await shop.takeUp(id)) as RunShown | ApiError
  expect(refused).toMatchObject({ code: 'run.charge' })
  const { entries } = await shop.call<{ entries: EventLine[] }>('GET', '/api/book')
  const stop = entries.find(({ act }) => act === 'run.stop-asked')
  expect(stop?.facts).toMatchObject({ charge: told.short?.charge })
  expect(entries.find(({ act }) => act === 'run.stopped')?.facts).toMatchObject({ why: 'charge' })
  /* Switched off it charges; then it is taken up, and needs no more than it has. */
  for (const to of ['off', 'loader']) {
    await shop.hands({ kind: 'keys', serial: LEAD, to })
    if (to === 'off') await charge(90)
  }
  await until('it is seen charged', async () => ((await shop.port('P2')).seen?.battery ?? 0) > 80)
  /* Why it was stopped is told until it is taken up, though it is charged. */
  const charged = await shop.run(id)
  expect([charged.short, charged.low?.charge, charged.stopBy]).toEqual([
    null,
    told.short?.charge,
    null,
  ])
  expect(await shop.takeUp(id)).toMatchObject({ state: 'wanted', low: null })
  const ended = await shop.follow(id, 'it ends', ({ state }) => state === 'ended')
  expect([ended.word, ended.short]).toEqual(['done', null])
  const flash = shop.flash(LEAD)
  expect([flash.wrong(newestPackage()), flash.marks]).toEqual([[], customer])
}, 180_000)
