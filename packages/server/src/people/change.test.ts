import type { Person } from '@plain-slate/api'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PEOPLE, openBench } from '../testing/bench.ts'
import type { Bench } from '../testing/bench.ts'

let bench: Bench
beforeAll(async () => {
  bench = await openBench()
})
afterAll(() => bench.close())

describe('people', () => {
  it('are added by a lead and can then sign in', async () => {
    const ilse = await bench.at('Ilse')
    const draft = { name: 'Nell Varga', role: 'trainee', pin: '5151' }
    const added = await ilse.post<Person>('/api/people', draft)
    expect(added.body).toMatchObject({ name: 'Nell Varga', initials: 'NV', active: true })
    const nell = bench.browser()
    const signedIn = await nell.post('/api/session', { person: added.body.id, pin: '5151' })
    expect(signedIn.status).toBe(200)
    expect((await ilse.post('/api/people', draft)).body.code).toBe('person.name-taken')
  })

  it('who leave are signed out at once and cannot come back by themselves', async () => {
    const ilse = await bench.at('Ilse')
    const pell = await bench.at('Pell')
    await ilse.patch(`/api/people/${PEOPLE.Pell.id}`, { active: false })
    expect((await pell.get('/api/slips')).body.code).toBe('session.none')
    expect((await bench.browser().signIn('Pell')).body.code).toBe('session.pin')
    await ilse.patch(`/api/people/${PEOPLE.Pell.id}`, { active: true })
    expect((await bench.browser().signIn('Pell')).status).toBe(200)
  })

  it('get a new PIN, and the old one opens nothing', async () => {
    const ilse = await bench.at('Ilse')
    await ilse.patch(`/api/people/${PEOPLE.Juno.id}`, { pin: '11112222' })
    expect((await bench.browser().signIn('Juno')).status).toBe(401)
    expect((await bench.browser().signIn('Juno', '11112222')).status).toBe(200)
  })

  it('never lose their last lead', async () => {
    const ilse = await bench.at('Ilse')
    for (const change of [{ role: 'trainee' }, { active: false }]) {
      const refused = await ilse.patch(`/api/people/${PEOPLE.Ilse.id}`, change)
      expect(refused.body.code).toBe('person.last-lead')
    }
    await ilse.patch(`/api/people/${PEOPLE.Tavi.id}`, { role: 'lead' })
    expect((await ilse.patch(`/api/people/${PEOPLE.Ilse.id}`, { role: 'technician' })).status).toBe(
      200,
    )
  })

  it('unknown are said to be unknown', async () => {
    const tavi = await bench.at('Tavi')
    const { status, body } = await tavi.patch(`/api/people/${crypto.randomUUID()}`, {})
    expect([status, body.code]).toEqual([404, 'person.unknown'])
  })
})

describe('an empty shop', () => {
  it('is founded by whoever comes first, once', async () => {
    const empty = await openBench('empty')
    const draft = { name: 'Ada Quist', pin: '9090', shop: 'Gull Repairs', place: 'North Pier' }
    const browser = empty.browser()
    expect((await browser.get<{ empty: boolean }>('/api/shop')).body.empty).toBe(true)
    const both = await Promise.all([
      browser.post('/api/first-lead', draft),
      empty.browser().post('/api/first-lead', { ...draft, name: 'Bo Quist' }),
    ])
    expect(both.map((one) => one.status).sort()).toEqual([200, 409])
    const { body } = await browser.get<{ name: string; empty: boolean }>('/api/shop')
    expect(body).toMatchObject({ name: 'Gull Repairs', empty: false })
    await empty.close()
  })
})
