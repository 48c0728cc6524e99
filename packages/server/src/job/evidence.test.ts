/** What a device gave on an earlier visit is no evidence of what stands on it now. */
import type { Job } from '@plain-slate/api'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { agentSees, answerLook } from '../testing/agent.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { openBench } from '../testing/bench.ts'

const FAMILIES = new URL('../../../../demo/families', import.meta.url).pathname
const DEVICE = { serial: 'TRN9990000001', mode: 'loader' } as const
const MAIN = { partition: 'main', size: 4096, sha256: 'a'.repeat(64) }

let bench: Bench
let tavi: Browser
beforeAll(async () => {
  bench = await openBench('demo', undefined, { PLAIN_SLATE_FAMILIES: FAMILIES })
  tavi = await bench.at('Tavi')
  await agentSees(bench.address, 'P1', DEVICE)
})
afterAll(() => bench.close())

async function opened(): Promise<string> {
  const draft = { device: 'Brakken H2K', model: 'BRAK-H2K', intent: 'update' }
  return (await tavi.post<{ number: string }>('/api/slips', draft)).body.number
}
/** Reads the device for a slip; answers how many of its own digests count there. */
async function read(slip: string, digests: readonly object[]): Promise<number | undefined> {
  await tavi.post(`/api/slips/${slip}/read`, { port: 'P1' })
  await answerLook(bench.address, DEVICE, { digests: [...digests] })
  return (await tavi.get<Job>(`/api/slips/${slip}/job`)).body.device?.digests
}

it('counts for the visit in which it was read, until the device is read deeply again', async () => {
  const first = await opened()
  expect(await read(first, [MAIN])).toBe(1)
  expect(await read(first, [])).toBe(1)
  await tavi.post(`/api/slips/${first}/state`, { state: 'stopped', reason: 'taken home' })
  const second = await opened()
  expect(await read(second, [])).toBe(0)
  expect(await read(second, [MAIN])).toBe(1)
})
