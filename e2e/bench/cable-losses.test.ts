/** A cable's losses are the device's that were lost on it: not stops that somebody ordered, nor runs that were taken up. */
import type { Bench } from '@plain-slate/api'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { LEAD, WholeShop, until } from './whole-shop.ts'

let shop: WholeShop
beforeAll(async () => {
  shop = new WholeShop((await cloneTemplate('demo')).databaseUrl, 100)
  await shop.open()
}, 120_000)
afterAll(() => shop.close())

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
const losses = async () =>
  (await shop.call<Bench>('GET', '/api/bench')).cables.find(({ port }) => port === 'P2')?.losses

it('are counted where the cable was pulled, and nowhere else', async () => {
  const before = (await losses()) ?? 0
  const id = await shop.start()
  const stands = (state: string) =>
    until(`it is ${state}`, async () => (await shop.run(id)).state === state)
  await stands('running')
  /* Past its loader: after that it restarts, and nobody is connected meanwhile. */
  await shop.follow(id, 'a piece is under way', ({ step, got }) => step > 14 && got > 0)
  await shop.hands({ kind: 'unplug', serial: LEAD })
  await until('it is lost', async () => ((await losses()) ?? 0) - before === 1)
  await shop.hands({ kind: 'plug', serial: LEAD, port: 'P2' })
  let stops = 0
  for (const wait of [40, 300, 150, 60, 450, 90]) {
    await pause(wait)
    const { state, asked } = await shop.run(id)
    if (state === 'ended') break
    if (asked !== null) {
      if (asked.ask === 'go-on') await shop.hands({ kind: 'confirm', serial: LEAD })
      await shop.call('POST', `/api/runs/${id}/done`, { command: asked.command })
    }
    await shop.call('POST', `/api/runs/${id}/stop`, {})
    await stands('stopped')
    stops += 1
    await shop.takeUp(id)
    await stands('running')
  }
  await pause(200)
  await shop.kill('agent a')
  await shop.begin('agent a')
  await until('it lapses', async () => (await shop.run(id)).ownerless)
  await shop.takeUp(id)
  await stands('running')
  expect([stops > 4, ((await losses()) ?? 0) - before]).toEqual([true, 1])
  const ended = await shop.follow(id, 'it ends', ({ state }) => state === 'ended')
  expect([ended.word, ((await losses()) ?? 0) - before]).toEqual(['done', 1])
}, 240_000)
