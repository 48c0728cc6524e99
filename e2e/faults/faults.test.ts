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

const rounds = Array.from({ length: Math.ceil(KINDS.length / AT_ONCE) }, (_, index) => ({
  seed: SEED + index,
  kinds: KINDS.slice(index * AT_ONCE, (index + 1) * AT_ONCE),
}))

it.each(rounds)(
  'a run that is hurt five times ends as it was promised, and nothing is lost (seed $seed)',
  async ({ seed, kinds }) => {
    const { lost, tried } = await playRound(shop, seed, kinds)
    expect({ seed, tried: tried.map(({ kind, during }) => `${kind} (${during})`), lost }).toEqual({
      seed,
      tried: kinds.map(({ name }) => expect.stringContaining(name) as string),
      lost: [],
    })
  },
  240_000,
)

it('leaves a book whose chain holds', async () => {
  const headers = { authorization: `Bearer ${shop.whole.secret}` }
  const book = await fetch(`${shop.whole.address}/api/book.jsonl`, { headers })
  const lines = (await book.text()).trim().split('\n')
  const entries = lines.map((line) => JSON.parse(line) as unknown)
  expect(verify(entries, sha256)).toMatchObject({ ok: true, value: { seq: lines.length } })
})
