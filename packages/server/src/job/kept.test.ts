/** A job that is kept is the job as it is: whatever it rests on, changing it is seen at once. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { BENCH_SECRET, LEAD_FACTS, agentSees, answerLook } from '../testing/agent.ts'
import type { JobAt } from './job-at.ts'
import { loadJob, loadJobIn } from './load.ts'

let bench: Bench
let tavi: Browser
const NUMBER = '0417'
beforeAll(async () => {
  bench = await openBench()
  tavi = await bench.at('Tavi')
  await agentSees(bench.address, 'P2', {})
})
afterAll(() => bench.close())

/** Without what only the clock moves: when a sight was taken, how long a run has been quiet. */
const told = (job: JobAt): unknown =>
  JSON.parse(
    JSON.stringify(
      { ...job, others: [...job.others], lines: [...job.lines], shelf: job.shelf.length },
      (key, value: unknown) =>
        key === 'quiet' || (key === 'at' && typeof value === 'number') ? undefined : value,
    ),
  )
async function kept(): Promise<JobAt> {
  const job = await loadJob(bench.server.workshop, NUMBER)
  if (!job.ok) throw new Error(job.refusal.code)
  return job.value
}
async function fresh(): Promise<JobAt> {
  const job = await loadJobIn(bench.server.workshop, NUMBER, bench.server.workshop.db)
  if (!job.ok) throw new Error(job.refusal.code)
  return job.value
}
const slip = (path: string, body: object) => tavi.post(`/api/slips/${NUMBER}/${path}`, body)
const look = async () => {
  const reading = slip('read', { port: 'P2' })
  await answerLook(
    bench.address,
    {},
    { digests: [{ partition: 'main', size: 4096, sha256: 'a'.repeat(64) }] },
  )
  await reading
}

describe('a job that is kept', () => {
  it('is the very same one while nothing changes', async () => {
    expect(await kept()).toBe(await kept())
    await bench.server.workshop.db('slips').where({ number: '0402' }).update({ promise: 'other' })
    expect(await kept()).toBe(await kept())
  })

  const acts: readonly (readonly [string, () => Promise<unknown>])[] = [
    ['a line', () => slip('lines', { lines: [{ topic: 'condition.cell', answer: 'sound' }] })],
    ['a reading', () => slip('readings', { fact: 'loaderVersion', value: 6, source: 'screen' })],
    ['a look at its device', look],
    [
      'what a run that begins forgets of its device',
      () =>
        bench.tamper(`update devices set digests = '[]'; update runs set version = version + 1`),
    ],
    ['a sight at its port', () => agentSees(bench.address, 'P2', { batteryPercent: 50 })],
    ['its device gone', () => agentSees(bench.address, 'P2', null)],
    ['another device beside', () => agentSees(bench.address, 'P3', { serial: 'OTHER-1' })],
    ['its agent gone', () => bench.tamper(`update agents set until = now() - interval '1 s'`)],
    ['a cable moved', () => tavi.post('/api/bench/cables', { cable: 'A', port: 'P5' })],
    [
      'its head changed',
      () => tavi.patch(`/api/slips/${NUMBER}`, { promise: { from: '', to: 'x' } }),
    ],
    [
      'a package on the shelf',
      () =>
        bench.tamper(
          `insert into packages (id, manifest, first_archive) select 'x', manifest, first_archive from packages limit 1;
       insert into archives (id, name, sha256, bytes, state, at)
         values (gen_random_uuid(), 'x', 'x', 1, 'reading', now())`,
        ),
    ],
    [
      'its run',
      () =>
        bench.tamper(
          `update runs set version = version + 1, put_away = true where slip = '${NUMBER}'`,
        ),
    ],
    ['its state', () => slip('state', { state: 'waiting', reason: 'a part' })],
  ]
  it.each(acts)('follows %s', async (_what, act) => {
    await kept()
    await act()
    expect(told(await kept())).toEqual(told(await fresh()))
  })

  it('is moved by what it rests on, and not by what it does not', async () => {
    const before = await kept()
    await agentSees(bench.address, 'P2', { batteryPercent: 49 })
    const moved = await kept()
    expect([moved === before, moved.sight?.facts.batteryPercent]).toEqual([false, 49])
    await fetch(`${bench.address}/api/agent/ports`, {
      method: 'POST',
      headers: { ...BENCH_SECRET, 'content-type': 'application/json' },
      body: JSON.stringify({
        agent: 'agent a',
        ports: [{ name: 'P2', facts: { ...LEAD_FACTS, batteryPercent: 49 }, odd: null }],
      }),
    })
    expect(await kept()).toBe(moved)
  })
})
