/**
 * Before a device leaves its running system, through the server: a look that would lead it out is refused while
 * something is open that can be done there alone, and what is open follows what was read and said.
 */
import type { ApiError, Job, WayShown } from '@plain-slate/api'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { agentSees, answerLook } from '@plain-slate/server/testing/agent'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Slip, shelvedBench } from './job-slip.ts'

let bench: Bench
let ilse: Browser
let juno: Browser
beforeAll(async () => {
  bench = await shelvedBench()
  ilse = await bench.at('Ilse')
  juno = await bench.at('Juno')
})
afterAll(() => bench.close())

const open = ({ leave }: Job) =>
  leave === null ? null : leave.items.filter(({ holds }) => !holds).map(({ item }) => item)
/** Asks for a look that leads out of the system; one that is let is answered by a device that would not go. */
async function deep(slip: Slip): Promise<Job & ApiError> {
  const asked = { port: slip.port, deep: true }
  const { body } = await ilse.post<Job & ApiError>(slip.at('read'), asked)
  if ('sentence' in body) return body
  await answerLook(bench.address, { serial: slip.serial, mode: 'normal', batteryPercent: 71 })
  return (await slip.job()) as Job & ApiError
}

describe('a device that runs', () => {
  it('is led out of its system over the link only when nothing is open there', async () => {
    const slip = await Slip.open(bench, ilse, 'P1')
    await slip.takeIn()
    await slip.sees({ batteryPercent: 71 })
    const refused = await deep(slip)
    expect(refused.code).toBe('slip.leaves')
    expect(refused.sentence).toContain(': a copy of the customer’s data, its link permission.')
    expect(open(await slip.read({ batteryPercent: 71 }))).toEqual(['backup', 'permission'])
    expect(open(await slip.say({ 'ready.backup': 'not-wanted' }))).toEqual(['permission'])
    expect(open(await slip.say({ 'ready.permission': 'done' }))).toEqual([])
    await slip.sees({ batteryPercent: 12 })
    expect((await slip.job()).leave?.items.at(-1)?.facts).toEqual({ here: 12, needed: 20 })
    expect(open(await slip.job())).toEqual(['charge'])
    await slip.sees({ batteryPercent: 71 })
    const stayed = await deep(slip)
    expect([stayed.look?.deep, open(stayed)]).toEqual([true, ['permission']])
    await agentSees(bench.address, slip.port, null)
  })

  it('is not counted by a look elsewhere, nor by one of an earlier visit', async () => {
    const before = await Slip.open(bench, ilse, 'P5')
    await before.takeIn()
    await before.read()
    await ilse.post(before.at('state'), { state: 'stopped', reason: 'another visit' })
    const slip = await Slip.open(bench, ilse, 'P5')
    await slip.takeIn()
    const serial = before.serial
    await slip.read({ serial, mode: 'loader' })
    await slip.sees({ serial })
    expect(open(await slip.job())).toContain('tally')
    expect(open(await slip.read({ serial }))).not.toContain('tally')
    await agentSees(bench.address, slip.port, null)
  })

  it('leaves without that for a reason, which a trainee does not give', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.takeIn()
    await slip.read()
    const waive = (by: Browser, note: string) =>
      by.post<Job & ApiError>(slip.at('lines'), {
        lines: [{ topic: 'ready.leave', answer: 'waived', note }],
      })
    expect((await waive(ilse, '')).body.code).toBe('slip.reason')
    expect((await waive(juno, 'it is late')).body.code).toBe('act.refused')
    const { leave } = (await waive(ilse, 'its screen is dark')).body
    expect(leave).toMatchObject({ open: 0, waived: { note: 'its screen is dark' } })
    expect(await deep(slip)).toMatchObject({ look: { deep: true } })
    await agentSees(bench.address, slip.port, null)
  })

  it('says so on the way too, and nothing of it where the way begins elsewhere', async () => {
    const slip = await Slip.open(bench, ilse, 'P3')
    await slip.takeIn()
    const way = async (from: string) =>
      (await ilse.get<WayShown>(`${slip.at('way')}?to=loader&from=${from}`)).body.first
    expect((await way('normal'))?.mode).toBe('normal mode')
    expect(await way('off')).toBe(null)
  })
})

describe('a device that does not start', () => {
  it('is asked for nothing that it cannot do', async () => {
    const slip = await Slip.open(bench, ilse, 'P4')
    await slip.takeIn()
    expect((await slip.say({ 'history.starts': 'runs' })).leave).not.toBe(null)
    expect((await slip.say({ 'history.starts': 'stops' })).leave).toBe(null)
    const copy = async () =>
      (await slip.ready()).signed.find(({ topic }) => topic === 'ready.backup')?.answers
    expect(await copy()).toEqual(['impossible', 'not-wanted'])
    await slip.say({ 'history.starts': 'runs' })
    expect(await copy()).toEqual(['opens', 'not-wanted'])
  })
})
