/**
 * Two benches at one server: each agent holds its own ports. One of them down leaves the other's runs alone, and a run of
 * the one that is down goes on at the other's port, from the journal that the server holds.
 */
import type { Bench } from '@plain-slate/api'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { Refused, Technician } from '../jobs/technician.ts'
import { writeParts } from './bench-files.ts'
import { deviceOf } from './world.ts'
import { LEAD, WholeShop, newestPackage, until } from './whole-shop.ts'

/** A run of the lead plan lasts about 12 model minutes: some seconds. */
const PACE = 100

const OTHER = 'TRN4490099B2B2'
const BESIDE = { ...deviceOf('TRN449000426A6'), serial: OTHER, name: 'in the back room' }

let shop: WholeShop
beforeAll(async () => {
  const { databaseUrl } = await cloneTemplate('demo')
  shop = new WholeShop(databaseUrl, PACE)
  await shop.open(undefined, [LEAD], { devices: [BESIDE] })
  await shop.kill('agent a')
  writeParts(shop.folder, { 'agent a': ['P1', 'P2', 'P3'], 'agent b': ['P4', 'P5', 'P6'] })
  await shop.begin('agent a')
  await shop.begin('agent b')
}, 120_000)
afterAll(() => shop.close())

const seenAt = (serial: string, port: string) =>
  until(`${serial} is seen at ${port}`, async () => (await shop.port(port)).seen?.serial === serial)
const move = async (id: string, port: string): Promise<void> => {
  const said = await shop.call<{ code?: string; sentence?: string }>(
    'POST',
    `/api/runs/${id}/move`,
    { port },
  )
  if (said.code !== undefined && said.sentence !== undefined)
    throw new Refused({ code: said.code as 'port.busy', sentence: said.sentence })
}

it('are each their own: a bench that dies takes no run of the other’s with it, and hands over its own', async () => {
  const marks = [shop.flash(LEAD).marks, shop.flash(OTHER).marks]
  await shop.hands({ kind: 'plug', serial: OTHER, port: 'P4' })
  await seenAt(LEAD, 'P2')
  await seenAt(OTHER, 'P4')
  const customer = { device: 'Brakken H2', model: 'BRAK-H2', intent: 'update' } as const
  const answers = { 'survive.tickets': 'must' }
  const job = await Technician.takesIn(shop, { ...customer, answers }, OTHER, 'P4')
  await job.read()
  await job.leaves()
  const road = (await job.routes()).routes.find(({ title }) => title === 'H2.104.r4')
  await job.takes(road?.route ?? '')
  await job.signs()
  const first = await shop.start()
  const second = await job.starts()
  await shop.follow(first, 'the first writes', ({ step }) => step >= 16)
  await shop.kill('agent a')
  const left = await shop.follow(first, 'nobody drives the first', ({ ownerless }) => ownerless)
  expect(left.elsewhere).toBeNull()
  /* The other bench goes on to its end meanwhile. */
  const whole = await shop.follow(second, 'the second ends', ({ state }) => state === 'ended')
  expect([whole.word, whole.losses]).toEqual(['done', 0])
  expect(shop.flash(OTHER).wrong(newestPackage())).toEqual([])

  /* Carried to the back room: where a run was not put away it cannot go on, at a free port it does. */
  await expect(move(first, 'P5')).rejects.toMatchObject({ code: 'run.not-there' })
  await shop.hands({ kind: 'plug', serial: LEAD, port: 'P5' })
  await seenAt(LEAD, 'P5')
  await shop.follow(first, 'it is seen elsewhere', ({ elsewhere }) => elsewhere === 'P5')
  await move(first, 'P5')
  const ended = await shop.follow(first, 'the first ends', ({ state }) => state === 'ended')
  expect([ended.word, ended.port]).toEqual(['done', 'P5'])
  expect(shop.flash(LEAD).wrong(newestPackage())).toEqual([])
  expect([shop.flash(LEAD).marks, shop.flash(OTHER).marks]).toEqual(marks)

  /* Its own bench lives again, and has nothing of it to do. */
  await shop.begin('agent a')
  await until('it lives', async () =>
    (await shop.call<Bench>('GET', '/api/bench')).computers.some(({ ports }) =>
      ports.includes('P2'),
    ),
  )
  expect((await shop.run(first)).state).toBe('ended')
}, 180_000)
