/**
 * A short run of the fault suite: every kind of fault once, at moments of the seed's choosing. A thousand of
 * them run in `npm run measure`. FAULT_SEED=n tries other moments.
 */
import { createHash } from 'node:crypto'
import { verify } from '@plain-slate/core'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { FaultShop } from './fault-shop.ts'
import { KINDS } from './kinds.ts'
import { playRound } from './round.ts'

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest()
const SEED = Number(process.env['FAULT_SEED'] ?? 20261126)
/** Faults to a round. */
const AT_ONCE = 5

let shop: FaultShop
beforeAll(async () => {
  const { databaseUrl, superuserUrl } = await cloneTemplate('demo')
  shop = new FaultShop(databaseUrl, superuserUrl)
  await shop.open()
}, 120_000)
afterAll(() => shop.close())

/** Rounds at most: a run that was over before its faults had come leaves them to the next. */
const ROUNDS_MOST = 10

it('a run that is hurt in every way ends as it was promised, and nothing is lost', async () => {
  let left = [...KINDS]
  for (let seed = SEED; left.length > 0 && seed < SEED + ROUNDS_MOST; seed += 1) {
    const { lost, tried } = await playRound(shop, seed, left.slice(0, AT_ONCE))
    const told = tried.map(({ kind, during }) => `${kind} (${during})`)
    expect({ seed, told, lost }).toEqual({ seed, told, lost: [] })
    left = left.filter(({ name }) => !tried.some(({ kind }) => kind === name))
  }
  expect(left.map(({ name }) => name)).toEqual([])
}, 400_000)

it('leaves a book whose chain holds', async () => {
  const headers = { authorization: `Bearer ${shop.whole.secret}` }
  const book = await fetch(`${shop.whole.address}/api/book.jsonl`, { headers })
  const lines = (await book.text()).trim().split('\n')
  const entries = lines.map((line) => JSON.parse(line) as unknown)
  expect(verify(entries, sha256)).toMatchObject({ ok: true, value: { seq: lines.length } })
})
