import type { EventLine, Slip } from '@plain-slate/api'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { checkBook } from '../book/check.ts'
import { PEOPLE, openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'

let bench: Bench
let tavi: Browser
beforeAll(async () => {
  bench = await openBench()
  tavi = await bench.at('Tavi')
})
afterAll(() => bench.close())

const beside = (name: keyof typeof PEOPLE) => ({
  second: { person: PEOPLE[name].id, pin: PEOPLE[name].pin },
})

describe('withdrawing personal text', () => {
  it('asks for a second person and erases nothing without one', async () => {
    const { status, body } = await tavi.post('/api/slips/0417/withdraw')
    expect([status, body.code, body.role]).toEqual([403, 'act.needs-second', 'lead'])
    expect((await tavi.get<Slip>('/api/slips/0417')).body.customer).not.toBeNull()
  })

  it('takes neither oneself, nor one who may not, nor a wrong PIN', async () => {
    const codes = []
    for (const body of [
      beside('Tavi'),
      beside('Juno'),
      { second: { person: PEOPLE.Ilse.id, pin: '0000' } },
    ])
      codes.push((await tavi.post('/api/slips/0417/withdraw', body)).body.code)
    expect(codes).toEqual(['act.second-is-same', 'act.needs-second', 'act.second-pin'])
    expect((await tavi.get<Slip>('/api/slips/0417')).body.withdrawn).toBe(false)
  })

  it('enters every wrong PIN of a second person, with whose it was and who gave it', async () => {
    const second = { person: PEOPLE.Pell.id, pin: '0000' }
    for (let tried = 0; tried < 3; tried += 1)
      await tavi.post('/api/slips/0401/withdraw', { second })
    const { body } = await tavi.get<{ entries: EventLine[] }>('/api/book?act=session.refused')
    expect(body.entries.slice(0, 3)).toEqual(
      Array.from({ length: 3 }, () =>
        expect.objectContaining({
          by: 'Tavi Renn',
          slip: '0401',
          facts: { person: PEOPLE.Pell.id, why: 'second-pin' },
        }),
      ),
    )
  })

  it('erases every text of that slip for good, and of no other', async () => {
    const done = await tavi.post<{ withdrawn: number; slip: Slip }>(
      '/api/slips/0417/withdraw',
      beside('Ilse'),
    )
    expect(done.body).toMatchObject({ withdrawn: 4, slip: { customer: null, withdrawn: true } })
    const history = (await tavi.get<EventLine[]>('/api/slips/0417/history')).body
    const texts = history.flatMap((line) => Object.values(line.texts))
    expect(texts).toEqual([null, null, null, null])
    expect((await tavi.get<Slip>('/api/slips/0401')).body.customer).toBe('Mara T.')
  })

  it('leaves the book whole: withdrawn is not broken', async () => {
    const check = await checkBook(bench.server.workshop)
    expect(check).toMatchObject({ holds: true, broken: null })
  })

  it('names both people in the book', async () => {
    const [line] = (await tavi.get<EventLine[]>('/api/slips/0417/history')).body
    expect(line).toMatchObject({
      act: 'text.withdrawn',
      by: 'Tavi Renn',
      facts: { second: PEOPLE.Ilse.id, texts: 4 },
    })
  })
})
