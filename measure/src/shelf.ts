/** The shelf with four archives of 50,000 entries, asked against the same shelf before they came, in one run. */
import { performance } from 'node:perf_hooks'
import { tarOf } from '@plain-slate/archives'
import setup from '../../e2e/setup.ts'
import { cloneTemplate } from '../../e2e/bench.ts'
import { WholeShop, until } from '../../e2e/bench/whole-shop.ts'
import type { Row } from './row.ts'
import { spread, timed } from './timed.ts'

const ARCHIVES = 4
const ENTRIES = 50_000

export async function shelf(): Promise<readonly Row[]> {
  const tars = Array.from({ length: ARCHIVES }, (_, at) => tarAt(at))
  const stop = await setup()
  const shop = new WholeShop(await cloneTemplate('demo'), 0)
  await shop.open(['tarn-loader-7-r4', 'tarn-H2.0ZP.r4', 'tarn-H2.104.r4', 'tarn-H2.104.r5'])
  const bare = await timed(() => shop.shelf())
  const began = performance.now()
  for (const [at, tar] of tars.entries()) await send(shop, `many-${at}.tar`, tar)
  await until('every archive is read', async () =>
    (await shop.shelf()).archives.every(({ state }) => state === 'whole'),
  )
  const seconds = (performance.now() - began) / 1000
  const full = await timed(() => shop.shelf())
  const kib = JSON.stringify(await shop.shelf()).length / 1024
  await shop.close()
  await stop()
  const many = `${ARCHIVES} archives of ${ENTRIES.toLocaleString('en')} entries`
  return [
    {
      what: `GET /api/shelf with ${many} more, against the same shelf without them`,
      measured: `${(full.median / bare.median).toFixed(2)} times (${spread(full)}), ${kib.toFixed(0)} KiB`,
      limit: 'aim at most 3 times',
    },
    {
      what: `taking them in and reading them`,
      measured: `${seconds.toFixed(0)} s`,
      limit: 'no aim',
    },
  ]
}

const tarAt = (which: number) =>
  Buffer.from(
    tarOf(
      Array.from({ length: ENTRIES }, (_, at) => ({
        name: `${which}/${at}`,
        bytes: Buffer.from(String(at)),
      })),
    ),
  )

async function send(
  { address, by }: WholeShop,
  name: string,
  tar: ReturnType<typeof tarAt>,
): Promise<void> {
  const response = await fetch(`${address}/api/shelf/archives?name=${name}`, {
    method: 'POST',
    headers: { ...by, 'content-type': 'application/octet-stream' },
    body: tar,
  })
  if (!response.ok) throw new Error(await response.text())
}
