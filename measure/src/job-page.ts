/** A slip's page under load: thirty sessions at once, against the same slip's head, in one run. */
import { performance } from 'node:perf_hooks'
import setup from '../../e2e/setup.ts'
import { cloneTemplate } from '../../e2e/bench.ts'
import { DEMO_PEOPLE } from '@plain-slate/demo'
import { WholeShop } from '../../e2e/bench/whole-shop.ts'
import type { Row } from './row.ts'

const SESSIONS = 30
const ROUNDS = 20

/** A browser at which the lead is signed in. */
type Desk = { readonly address: string; readonly cookie: string }

async function signedIn({ address }: WholeShop): Promise<Desk> {
  const [lead] = DEMO_PEOPLE
  const response = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin' },
    body: JSON.stringify({ person: lead?.id, pin: lead?.pin }),
  })
  return { address, cookie: response.headers.get('set-cookie')?.split(';')[0] ?? '' }
}

/** Middle milliseconds of an answer while thirty ask for it again and again. */
async function middle(at: Desk, path: string): Promise<number> {
  const times: number[] = []
  const session = async () => {
    for (let round = 0; round < ROUNDS; round += 1) {
      const began = performance.now()
      const response = await fetch(at.address + path, { headers: { cookie: at.cookie } })
      if (!response.ok) throw new Error(await response.text())
      await response.arrayBuffer()
      times.push(performance.now() - began)
    }
  }
  await Promise.all(Array.from({ length: SESSIONS }, session))
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0
}

export async function jobPage(): Promise<readonly Row[]> {
  const stop = await setup()
  const shop = new WholeShop(await cloneTemplate('demo'), 0)
  await shop.open(['tarn-loader-7-r4', 'tarn-H2.0ZP.r4', 'tarn-H2.104.r4', 'tarn-H2.104.r5'])
  const { number } = await shop.ready()
  const [page, head] = [`/api/slips/${number}/job`, `/api/slips/${number}`]
  const desk = await signedIn(shop)
  await middle(desk, page)
  const [job, bare] = [await middle(desk, page), await middle(desk, head)]
  await shop.close()
  await stop()
  return [
    {
      what: `GET ${page.replace(number, 'N')} with ${SESSIONS} sessions, against the slip's head`,
      measured: `${(job / bare).toFixed(1)} times (${job.toFixed(0)} against ${bare.toFixed(0)} ms in the middle)`,
      limit: 'aim at most 2 times',
    },
  ]
}
