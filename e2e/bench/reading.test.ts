/** Reading a device in its loader: its table and digests settle what was only supposed before. */
import type { Bench, Judged, PlanShown } from '@plain-slate/api'
import { idOfKey } from '@plain-slate/core'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { OTHER, WholeShop, until } from './whole-shop.ts'

let shop: WholeShop
beforeAll(async () => {
  const { databaseUrl } = await cloneTemplate('demo')
  shop = new WholeShop(databaseUrl, 0)
  await shop.open()
  await shop.hands({ kind: 'keys', serial: OTHER, to: 'off' })
  await shop.hands({ kind: 'keys', serial: OTHER, to: 'loader' })
  await shop.hands({ kind: 'plug', serial: OTHER, port: 'P3' })
  await until('it is seen', async () => (await shop.port('P3')).word === 'writing')
}, 120_000)
afterAll(() => shop.close())

const asked = { port: 'P3', package: 'tarn-H2.104.r4' }
const look = async () =>
  (await shop.call<Bench>('GET', '/api/bench')).ports.find(({ name }) => name === 'P3')?.look
const plan = () => shop.call<PlanShown>('POST', '/api/plans', asked)
const left = ({ writes }: PlanShown) => writes.filter(({ write }) => !write)
async function codes(): Promise<readonly string[]> {
  const { candidates } = await shop.call<Judged>('POST', '/api/judge', { port: 'P3' })
  const found = candidates.find((one) => idOfKey(one.package) === asked.package)?.findings ?? []
  return found.map(({ code }) => code)
}

it('tells the layout from the device’s own table, and leaves alone what its digests show to be same', async () => {
  const before = await plan()
  expect(left(before)).toEqual([])
  expect(await codes()).not.toContain('fit.layout.table.equal')
  await shop.call('POST', '/api/bench/ports/P3/read', {})
  await until('it is read', async () => (await look())?.state === 'found')
  const read = (await look())?.found
  expect(read?.table).toBe(true)
  expect(read?.digests).toBeGreaterThan(4)
  expect(await codes()).toContain('fit.layout.table.equal')
  const after = await plan()
  expect(left(after).map(({ reason }) => reason)).toContain('same-digest')
  expect(left(after).every(({ reason }) => reason === 'same-digest')).toBe(true)
  expect(after.time.high).toBeLessThan(before.time.high)
  expect(after.digest).not.toBe(before.digest)
}, 60_000)
