import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { lastCheck } from '../tables/checks.ts'
import { openBench } from '../testing/bench.ts'
import type { Bench } from '../testing/bench.ts'
import { JOBS, logged, startJobs } from './queue.ts'
import type { Job } from './queue.ts'

let bench: Bench
beforeAll(async () => {
  bench = await openBench()
})
afterAll(() => bench.close())

const job = (name: string): Job => {
  const found = JOBS.find((one) => one.name === name)
  if (found === undefined) throw new Error(`no job ${name}`)
  return found
}

describe('work that runs by itself', () => {
  it('walks the book at night and keeps what it found', async () => {
    expect(await lastCheck(bench.server.workshop.db)).toBeNull()
    await job('book-check').run(bench.server.workshop)
    expect(await lastCheck(bench.server.workshop.db)).toMatchObject({ holds: true })
  })

  it('purges sessions that are over and leaves the others', async () => {
    const gone = await bench.at('Tavi')
    await bench.tamper("update sessions set expire = now() - interval '1 minute'")
    const stays = await bench.at('Ilse')
    expect(await job('session-purge').run(bench.server.workshop)).toEqual({ purged: 1 })
    expect((await gone.get('/api/slips')).status).toBe(401)
    expect((await stays.get('/api/slips')).status).toBe(200)
  })

  it('is logged with what came of it, and where it failed with its reason', async () => {
    const { workshop } = bench.server
    const [info, error] = [vi.spyOn(workshop.log, 'info'), vi.spyOn(workshop.log, 'error')]
    await logged(workshop, 'x', () => Promise.resolve({ n: 1 }))
    expect(info).toHaveBeenCalledWith({ job: 'x', result: { n: 1 } }, 'job done')
    const err = new Error('no room')
    await expect(logged(workshop, 'x', () => Promise.reject(err))).rejects.toThrow('no room')
    expect(error.mock.calls).toEqual([[{ job: 'x', err }, 'job failed']])
    vi.restoreAllMocks()
  })

  it('is queued in the database under the application’s own role', async () => {
    const stop = await startJobs(bench.server.workshop)
    const { db } = bench.server.workshop
    const queued = (await db
      .withSchema('pgboss')
      .from('schedule')
      .orderBy('name')
      .pluck('name')) as string[]
    await stop.stop()
    expect(queued).toEqual(['book-check', 'refusals-tell', 'session-purge', 'shelf-purge'])
  })
})
