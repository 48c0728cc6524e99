/** Intake through the server: what is asked follows symptom and road, and what something lighter cures ends the job. */
import type { Job } from '@plain-slate/api'
import { FUNCTIONS, UNPREPARED, handBackTopics } from '@plain-slate/core'
import type { Bench, Browser } from '@plain-slate/server/testing'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { INTAKE } from './lines.ts'
import { Slip, is, shelvedBench } from './job-slip.ts'

let bench: Bench
let ilse: Browser
beforeAll(async () => {
  bench = await shelvedBench()
  ilse = await bench.at('Ilse')
})
afterAll(() => bench.close())

const topics = ({ topics: all }: Job, group: string) =>
  all.filter((one) => one.group === group).map(({ topic }) => topic)
async function opened(intent: string): Promise<Slip> {
  const draft = { device: 'Brakken H2K', model: 'BRAK-H2K', intent }
  const { body } = await ilse.post<{ number: string }>('/api/slips', draft)
  return new Slip(bench, ilse, body.number, 'P1')
}

describe('something lighter', () => {
  it('is offered by the symptom, counts as open until it was tried, and ends the job where it cures', async () => {
    const slip = await opened('restore')
    expect(topics(await slip.say(INTAKE), 'lighter')).toEqual([])
    expect(is(await slip.job(), 'intake')).toBe('done')
    const stops = await slip.say({ 'history.starts': 'stops' })
    expect(topics(stops, 'lighter')).toEqual(['lighter.restart'])
    expect(is(stops, 'intake')).toBe('open')
    expect(is(await slip.say({ 'lighter.restart': 'no-cure' }), 'intake')).toBe('done')
    const cured = await slip.say({ 'lighter.restart': 'cured' })
    expect([is(cured, 'readings'), is(cured, 'write'), cured.at]).toEqual([
      'done',
      'done',
      'first-start',
    ])
    const works = Object.fromEntries(FUNCTIONS.map((one) => [`after.${one}`, 'works']))
    expect((await slip.say({ ...works, 'after.data': 'as-promised' })).at).toBe('hand-back')
    const back = Object.fromEntries(
      handBackTopics(new Map(), UNPREPARED).map((topic) => [topic, 'done']),
    )
    await slip.say(back)
    await ilse.post(slip.at('state'), { state: 'closed' })
    expect(is(await slip.job(), 'hand-back')).toBe('done')
    const { body } = await ilse.get<{ paper: { done: object } }>(slip.at('proof'))
    expect(body.paper.done).toEqual({ kind: 'cured', by: 'restart' })
  })

  it('that leaves something worse keeps First start open', async () => {
    const slip = await opened('restore')
    await slip.say({ ...INTAKE, 'history.starts': 'stops', 'lighter.restart': 'cured' })
    const works = Object.fromEntries(FUNCTIONS.map((one) => [`after.${one}`, 'works']))
    const job = await slip.say({ ...works, 'after.data': 'as-promised', 'after.touch': 'fails' })
    expect([is(job, 'first-start'), job.worse.map(({ what }) => what)]).toEqual([
      'open',
      ['function.touch'],
    ])
  })
})

describe('consents', () => {
  it('are asked where the intent means them, where they were answered, and else not', async () => {
    expect(topics(await (await opened('update')).job(), 'consent')).toEqual([
      'consent.no-guarantee',
    ])
    expect(topics(await (await opened('preview')).job(), 'consent')).toContain('consent.preview')
    expect(topics(await (await opened('service')).job(), 'consent')).toContain('consent.mark')
    const slip = await opened('update')
    const said = await slip.say({ 'consent.preview': 'no' })
    expect(topics(said, 'consent')).toContain('consent.preview')
  })
})

describe('each thing', () => {
  it('has what becomes of it beside it: no place, no promise, and then the plan’s word', async () => {
    const slip = await Slip.open(bench, ilse, 'P2')
    await slip.say({ ...INTAKE, 'survive.photos': 'must' })
    const fate = ({ topics: all }: Job, thing: string) =>
      all.find(({ topic }) => topic === `survive.${thing}`)?.fate
    const before = await slip.job()
    expect([fate(before, 'tickets'), fate(before, 'photos'), fate(before, 'esim')]).toEqual([
      null,
      'unpromised',
      null,
    ])
    await slip.say({ 'survive.photos': 'not-there' })
    await slip.planned()
    const planned = await slip.job()
    expect([fate(planned, 'tickets'), fate(planned, 'photos')]).toEqual(['kept', null])
  })

  it('is used in a region of its family, or here', async () => {
    const { topics: all } = await (await opened('update')).job()
    expect(all.find(({ topic }) => topic === 'use.region')?.answers).toEqual([
      ...['here', 'HI', 'ML', 'EX'],
    ])
  })

  it('is to be a variant and a build that are named, of those that there are', async () => {
    const slip = await opened('variant-change')
    const asked = async (topic: string) =>
      (await slip.job()).topics.find((one) => one.topic === topic)
    expect(await asked('want.row')).toMatchObject({
      needed: true,
      answers: ['HI/O', 'ML/O', 'EX/O'],
    })
    /* Before it is read nobody can say which of the shelf are for it: a build is typed then. */
    expect((await asked('want.build'))?.answers).toEqual(['any'])
    expect(await slip.say({ 'want.row': 'QQ/X' })).toMatchObject({ code: 'slip.line' })
    expect(await slip.say({ 'use.region': 'QQ' })).toMatchObject({ code: 'slip.line' })
    /* One that is not here is named all the same; what no build is called is told what was perhaps meant. */
    expect(await slip.say({ 'want.build': 'H2.1O4.r4' })).toMatchObject({
      code: 'slip.reading',
      remedy: expect.stringContaining('H2.104.r4') as string,
    })
    expect((await slip.job()).lines.map(({ topic }) => topic)).toEqual([])
    const job = await slip.say({ ...INTAKE, 'want.build': 'H2.0ZS.r4' })
    expect(is(job, 'intake')).toBe('open')
    expect((await asked('want.build'))?.answers).toEqual(['any', 'H2.0ZS.r4'])
    expect(is(await slip.say({ 'want.row': 'HI/O' }), 'intake')).toBe('done')
    await slip.read()
    expect((await asked('want.build'))?.answers).toEqual(
      expect.arrayContaining(['any', 'H2.104.r4']),
    )
    /* Where none is to change nobody is asked for one. */
    const update = await opened('update')
    expect((await update.job()).topics.some(({ topic }) => topic === 'want.row')).toBe(false)
  })
})
