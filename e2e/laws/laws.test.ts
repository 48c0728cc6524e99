/**
 * Walks of acts that nobody planned, with the laws asked after each. `LAW_WALKS=n` plays another number, `LAW_SEED=n` begins
 * elsewhere; two thousand long ones run in `npm run measure -- laws`.
 */
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { LawShop } from './law-shop.ts'
import { LAWS } from './laws.ts'
import { newTally, playWalks, told } from './walks.ts'

const WALKS = Number(process.env['LAW_WALKS'] ?? 200)
const SEED = Number(process.env['LAW_SEED'] ?? 20261202)
const ACTS = 25
/** Each walk in so many may kill something or set the clock on. */
const HARD_EVERY = 10
const COPIES = 16
const PORTS = ['P1', 'P2', 'P3', 'P4'] as const

let shop: LawShop
beforeAll(async () => {
  const { databaseUrl, superuserUrl } = await cloneTemplate('demo')
  shop = new LawShop(databaseUrl, superuserUrl, COPIES)
  await shop.open()
}, 240_000)
afterAll(() => shop.close())

it('holds its laws in whatever order people, devices and computers act', async () => {
  const tally = newTally()
  const seeds = Array.from({ length: WALKS }, (_, n) => SEED + n)
  const hard = (seed: number) => seed % HARD_EVERY === 0
  const play = (of: readonly number[], port: string) =>
    playWalks(shop, of, { acts: ACTS, port, copies: COPIES, hard }, tally)
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
  if (process.env['SAY'] !== undefined)
    console.log(
      JSON.stringify(
        Object.fromEntries(
          Object.entries(tally).map(([k, v]) => [k, v instanceof Map ? Object.fromEntries(v) : v]),
        ),
        null,
        1,
      ),
    )
  const broken = tally.failed.map(({ seed, acts, broken: { law, says } }) =>
    [`law ${law.number} (${law.says}), seed ${seed}: ${says}`, told(acts)].join('\n'),
  )
  expect(broken).toEqual([])
  expect(shop.faults).toEqual([])
  const untried = LAWS.filter(({ says }) => !tally.chances.has(says))
  expect(untried.map(({ says }) => says)).toEqual([])
}, 900_000)
