/** House rules: who decides them, what each moves in a job, and what was decided before. */
import type { ApiError, HouseShown, PlanPage } from '@plain-slate/api'
import type { HouseRules } from '@plain-slate/core'
import { USUAL_HOUSE } from '@plain-slate/core'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Slip } from './job-slip.ts'
import { NEWEST, sharedSlip } from './job-slip.ts'

let bench: Bench
let ilse: Browser
let tavi: Browser
let slip: Slip
beforeAll(async () => {
  ;({ bench, ilse, tavi, slip } = await sharedSlip())
  await slip.say({ 'route.package': NEWEST })
})
afterAll(() => bench.close())

const house = async () => (await ilse.get<HouseShown>('/api/house')).body
async function decide(more: Partial<HouseRules>, by = ilse, version?: number) {
  const now = await house()
  const rules = { ...now.rules, ...more }
  const body = { version: version ?? now.version, rules, reason: 'as we agreed on Monday' }
  return (await by.post<HouseShown & ApiError>('/api/house', body)).body
}
const planned = async () => (await ilse.get<PlanPage>(slip.at('plan'))).body.now
const found = async (rule: string) => {
  const { findings } = await slip.why(NEWEST)
  return findings.find((each) => each.rule === rule)
}

describe('house rules', () => {
  it('are the usual ones until a lead decides, and nobody else does', async () => {
    expect(await house()).toEqual({ version: 0, rules: USUAL_HOUSE, history: [] })
    expect((await decide({ writes: 'all' }, tavi)).code).toBe('act.refused')
    expect((await decide({ batteryMargin: 90 })).code).toBe('input.invalid')
    expect((await house()).version).toBe(0)
  })

  it('of charge move what a job needs, at once, and a plan that was made', async () => {
    const before = await planned()
    await decide({ batteryMargin: 40 })
    expect((await found('state.battery'))?.facts).toMatchObject({ margin: 40 })
    expect((await planned())?.needs).toBe((before?.needs ?? 0) + 20)
    await decide({ batteryFloor: 95 })
    expect((await planned())?.needs).toBe(95)
    expect((await found('state.battery'))?.verdict).toBe('fits-if')
    await decide({ batteryMargin: 20, batteryFloor: null })
    expect((await planned())?.needs).toBe(before?.needs)
  })

  it('of radio rule a package out, and let it in again', async () => {
    await decide({ lawfulRegions: ['EX'] })
    expect(await found('promise.radio-law')).toMatchObject({ verdict: 'does-not-fit' })
    await decide({ lawfulRegions: ['HI', 'EX'] })
    expect(await found('promise.radio-law')).toMatchObject({ verdict: 'fits' })
  })

  it('of which parts are written move the plan, and so do the seconds of hands', async () => {
    const before = await planned()
    await decide({ writes: 'all' })
    const all = await planned()
    const written = (of: typeof all) => of?.writes.filter(({ write }) => write).length ?? 0
    expect(written(all)).toBe(all?.writes.length)
    expect(all?.writes.map(({ reason }) => reason)).toContain('house')
    expect(all?.digest).not.toBe(before?.digest)
    await decide({ writes: 'least' })
    expect((await planned())?.digest).toBe(before?.digest)
    const { handSeconds } = USUAL_HOUSE
    await decide({ handSeconds: { ...handSeconds, backup: handSeconds.backup + 600 } })
    expect((await planned())?.hands.low).toBe((before?.hands.low ?? 0) + 600)
    await decide({ handSeconds })
  })

  it('are departed from on one slip, with a reason, and the plan follows; the house stays as it is', async () => {
    const before = await planned()
    const depart = (answer: string, note: string, by = tavi) =>
      by.post<ApiError>(slip.at('lines'), { lines: [{ topic: 'depart.writes', answer, note }] })
    expect((await depart('all', '')).body.code).toBe('slip.reason')
    expect((await depart('some', 'odd')).body.code).toBe('slip.line')
    await depart('all', 'it was tried elsewhere')
    expect((await planned())?.writes.every(({ write }) => write)).toBe(true)
    expect((await house()).rules.writes).toBe('least')
    await depart('least', 'as the house again')
    expect((await planned())?.digest).toBe(before?.digest)
    /* Whom a house believes is a lead's word, on one slip too. */
    const lines = [{ topic: 'depart.source', answer: 'maker', note: 'asked for' }]
    expect((await tavi.post<ApiError>(slip.at('lines'), { lines })).body.code).toBe('act.refused')
  })

  it('keep how they came about, the newest first, and tell who decides on what is gone', async () => {
    const { history, version } = await house()
    expect(history[0]).toMatchObject({
      version,
      by: 'Ilse Maro',
      reason: 'as we agreed on Monday',
      changed: ['handSeconds'],
    })
    expect((await decide({ writes: 'all' }, ilse, version - 1)).code).toBe('house.moved')
    expect((await house()).version).toBe(version)
    const { body } = await ilse.get<{ entries: { act: string; facts: object }[] }>(
      '/api/book?act=house.changed',
    )
    expect(body.entries.at(-1)?.facts).toMatchObject({
      from: { batteryMargin: 20 },
      to: { batteryMargin: 40 },
    })
  })

  it('that are decided as they stand change nothing', async () => {
    const { version } = await house()
    await decide({})
    expect((await house()).version).toBe(version)
  })
})
