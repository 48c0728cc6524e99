/** Overruling a rule of fit: whose word it takes, for which package, what it changes and what it leaves. */
import type { ApiError, EventLine, Job } from '@plain-slate/api'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { PEOPLE } from '@plain-slate/server/testing'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Slip } from './job-slip.ts'
import { NEWEST, keyOf, sharedSlip } from './job-slip.ts'

const LOADER = keyOf('tarn-loader-7-r4')

let bench: Bench
let ilse: Browser
let tavi: Browser
let slip: Slip
beforeAll(async () => {
  /* Sold abroad. */
  ;({ bench, ilse, tavi, slip } = await sharedSlip({ region: 'EX' }))
})
afterAll(() => bench.close())

type Told = Job & ApiError
const overrule = async (by: Browser, body: object): Promise<Told> => {
  const asked = {
    rule: 'identity.region',
    package: NEWEST,
    reason: 'its owner moved here',
    ...body,
  }
  return (await by.post<Told>(slip.at('overrule'), asked)).body
}
/** What is found of the newest package: its verdict on a rule, and what can be done about that. */
async function found(rule = 'identity.region') {
  const { findings } = await slip.why(NEWEST)
  const finding = findings.find((one) => one.rule === rule)
  return finding && [finding.verdict, finding.remedy?.kind ?? null]
}

describe('overruling a rule', () => {
  it('is refused to who may not, without a reason, of a rule that is nobody’s, and leaves it', async () => {
    expect((await overrule(tavi, {})).code).toBe('act.refused')
    expect((await overrule(ilse, { reason: '' })).code).toBe('slip.reason')
    for (const rule of ['identity.board', 'state.floor', 'no.rule'])
      expect((await overrule(ilse, { rule })).code).toBe('rule.final')
    const topic = 'overrule.identity.region'
    const lines = [{ topic, answer: NEWEST, note: 'by the back door' }]
    const back = await ilse.post<ApiError>(slip.at('lines'), { lines })
    expect(back.body.code).toBe('slip.line')
    expect(await found()).toEqual(['does-not-fit', null])
  })

  it('of one that two people must, takes two, one of them a lead', async () => {
    const rule = { rule: 'identity.model' }
    const second = (name: keyof typeof PEOPLE) => ({
      second: { person: PEOPLE[name].id, pin: PEOPLE[name].pin },
    })
    const alone = await overrule(tavi, rule)
    expect([alone.code, alone.role]).toEqual(['act.needs-second', 'lead'])
    expect((await overrule(tavi, { ...rule, ...second('Tavi') })).code).toBe('act.second-is-same')
    expect((await overrule(tavi, { ...rule, ...second('Pell') })).code).toBe('act.needs-second')
    expect((await overrule(tavi, { ...rule, ...second('Ilse') })).code).toBe(undefined)
  })

  it('makes it a condition for that package, with its reason, and the book has it', async () => {
    const job = await overrule(ilse, {})
    const line = job.lines.find(({ topic }) => topic === 'overrule.identity.region')
    expect(line).toMatchObject({ answer: NEWEST, by: 'Ilse Maro', note: 'its owner moved here' })
    expect(await found()).toEqual(['fits-if', 'overruled'])
    /* It touches no other package: the part that must come first is refused its region still. */
    const shut = await slip.routes()
    expect(shut.routes).toEqual([])
    const [blocked] = shut.blocked
    expect(blocked?.obstacles.map(({ package: key, finding }) => [key, finding.rule])).toEqual([
      [LOADER, 'identity.region'],
    ])
    await overrule(ilse, { package: LOADER })
    const { routes, left } = await slip.routes()
    expect(routes.map((one) => one.package)).toEqual([NEWEST])
    const ifs = left.filter(({ verdict }) => verdict === 'fits-if')
    expect(ifs.map((one) => one.package)).toEqual([LOADER])
    const { body } = await ilse.get<EventLine[]>(slip.at('history'))
    const mine = body.filter(({ act }) => act === 'rule.overruled')
    expect(mine.find(({ facts }) => facts['package'] === NEWEST)).toMatchObject({
      by: 'Ilse Maro',
      facts: { rule: 'identity.region', package: NEWEST, stands: 1 },
      texts: { note: 'its owner moved here' },
    })
  })

  it('is taken back, and the rule stands again', async () => {
    expect((await overrule(ilse, { stands: false, reason: '' })).code).toBe(undefined)
    expect(await found()).toEqual(['does-not-fit', null])
  })
})
