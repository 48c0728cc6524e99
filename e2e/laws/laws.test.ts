/**
 * Walks of acts that nobody planned, with the laws asked after each. `LAW_WALKS=n` plays another number, `LAW_SEED=n` begins
 * elsewhere; two thousand long ones run in `npm run measure -- laws`.
 */
import { createHash } from 'node:crypto'
import { everyRoute } from '@plain-slate/api'
import { verify } from '@plain-slate/core'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { ROUTES } from './act.ts'
import { LawShop } from './law-shop.ts'
import { LAWS } from './laws.ts'
import { ROADS } from './roads.ts'
import { failureTold, newTally, playRoad, playWalks, tallyTold } from './walks.ts'

const WALKS = Number(process.env['LAW_WALKS'] ?? 24)
const SEED = Number(process.env['LAW_SEED'] ?? 20261202)
const ACTS = 25
/** Each walk in so many may kill something or set the clock on. */
const HARD_EVERY = 10
const COPIES = 16
const PORTS = ['P1', 'P2', 'P3', 'P4'] as const

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest()

let shop: LawShop
beforeAll(async () => {
  const { databaseUrl, superuserUrl } = await cloneTemplate('demo')
  shop = new LawShop(databaseUrl, superuserUrl, COPIES)
  await shop.open()
}, 240_000)
afterAll(() => shop.close())

const tally = newTally()

it('holds its laws in whatever order people, devices and computers act', async () => {
  const seeds = Array.from({ length: WALKS }, (_, n) => SEED + n)
  const hard = (seed: number) => seed % HARD_EVERY === 0
  const play = (of: readonly number[], port: string) =>
    playWalks(shop, of, { acts: ACTS, port, copies: COPIES, hard }, tally)
  for (const [n, road] of ROADS.entries()) await playRoad(shop, road, COPIES - 1 - n, tally)
  const soft = seeds.filter((seed) => !hard(seed))
  await Promise.all(
    PORTS.map((port, lane) =>
      play(
        soft.filter((_, n) => n % PORTS.length === lane),
        port,
      ),
    ),
  )
  /* What kills a process has the shop to itself. */
  await play(seeds.filter(hard), PORTS[0])
  if (process.env['SAY'] !== undefined) console.log(tallyTold(tally))
  expect(tally.failed.map(failureTold)).toEqual([])
  expect(shop.faults).toEqual([])
  /* A law that never had the chance to fail: the walk is too tame. */
  const untried = LAWS.filter(({ says }) => !tally.chances.has(says))
  expect(untried.map(({ says }) => says)).toEqual([])
}, 900_000)

it('knows every act of the contract: a new route has an act here, or an agent’s', () => {
  const acts = new Set(Object.values(ROUTES).flat())
  const missing = everyRoute().filter(
    ([name, { method, needs }]) => method !== 'get' && needs !== 'agent' && !acts.has(name),
  )
  expect(missing.map(([name]) => name)).toEqual([])
  const known = new Set(everyRoute().map(([name]) => String(name)))
  expect([...acts].filter((name) => !known.has(name))).toEqual([])
})

it('has every note that was acknowledged, and a book whose chain holds', async () => {
  const kept = (await shop.sql('select body from plain_slate.personal_texts')) as { body: string }[]
  const bodies = new Set(kept.map(({ body }) => body))
  expect(tally.notes.filter((note) => !bodies.has(note))).toEqual([])
  expect(tally.notes.length).toBeGreaterThan(0)
  const { body } = await shop.ask('shell', 'GET', '/api/book.jsonl')
  const entries = String(body)
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as unknown)
  expect(verify(entries, sha256)).toMatchObject({ ok: true, value: { seq: entries.length } })
})
