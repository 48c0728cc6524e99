/** How far a device starts, as the next reading goes by it: what its system shows, what its loader shows, what was told. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { DeviceFacts } from '@plain-slate/core'
import { demoFamilies } from '@plain-slate/demo'
import { agentSees } from '../testing/agent.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { openBench } from '../testing/bench.ts'
import { loadJob } from './load.ts'
import { whereOf } from './next.ts'

const NUMBER = '0417'
let bench: Bench
let tavi: Browser
beforeAll(async () => {
  bench = await openBench()
  tavi = await bench.at('Tavi')
})
afterAll(() => bench.close())

const said = (topic: string, answer: string) =>
  tavi.post(`/api/slips/${NUMBER}/lines`, { lines: [{ topic, answer }] })
async function starts(seen: Partial<DeviceFacts>) {
  await agentSees(bench.address, 'P2', seen)
  const job = await loadJob(bench.server.workshop, NUMBER)
  if (!job.ok) throw new Error(job.refusal.code)
  return whereOf({ families: demoFamilies() }, job.value).starts
}

describe('how far it starts', () => {
  it('goes by what was told while its system is not seen, and by its system once that is', async () => {
    expect(await starts({ mode: 'loader' })).toBe('system')
    await said('history.starts', 'stops')
    expect(await starts({ mode: 'loader' })).toBe('not')
    expect(await starts({ mode: 'loader', batteryPercent: 40 })).toBe('not')
    expect(await starts({ mode: 'normal' })).toBe('system')
    await said('history.starts', 'runs')
    expect(await starts({ mode: 'loader' })).toBe('system')
  })

  it('goes by what its loader knows of a failed start, whatever was told', async () => {
    await said('history.starts', 'runs')
    expect(await starts({ mode: 'loader', outcome: 'loop' })).toBe('not')
    expect(await starts({ mode: 'loader', outcome: 'dead' })).toBe('dead')
  })
})
