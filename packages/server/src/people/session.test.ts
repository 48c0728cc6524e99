import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PEOPLE, openBench } from '../testing/bench.ts'
import type { Bench } from '../testing/bench.ts'
import { waitAfter } from './pin.ts'

let bench: Bench
beforeAll(async () => {
  bench = await openBench()
})
afterAll(() => bench.close())

type Session = { person: { name: string } | null }
type Lines = { entries: { act: string; by: string | null; facts: Record<string, string> }[] }

describe('signing in', () => {
  it('takes a name and its PIN, and says who is there', async () => {
    const browser = bench.browser()
    expect((await browser.get<Session>('/api/session')).body.person).toBeNull()
    expect((await browser.signIn('Ilse')).status).toBe(200)
    expect((await browser.get<Session>('/api/session')).body.person?.name).toBe('Ilse Maro')
  })

  it('sets a cookie that scripts and other sites never see', async () => {
    const { headers } = await bench.browser().signIn('Ilse')
    const cookie = headers.get('set-cookie') ?? ''
    expect(cookie).toMatch(/HttpOnly/)
    expect(cookie).toMatch(/SameSite=Strict/)
  })

  it('gives a new session id, so that one laid before is worth nothing', async () => {
    const browser = bench.browser()
    const first = (await browser.signIn('Pell')).headers.get('set-cookie')
    const second = (await browser.signIn('Ilse')).headers.get('set-cookie')
    expect(second).not.toBe(first)
    const old = await bench.browser().raw('/api/session', { headers: { cookie: first ?? '' } })
    expect(((await old.json()) as Session).person).toBeNull()
  })

  it('answers alike for a wrong PIN and for nobody of that id', async () => {
    const wrong = await bench.browser().signIn('Pell', '0000')
    const nobody = await bench
      .browser()
      .post('/api/session', { person: crypto.randomUUID(), pin: '0000' })
    expect([wrong.status, wrong.body.code]).toEqual([401, 'session.pin'])
    expect([nobody.status, nobody.body.sentence]).toEqual([401, wrong.body.sentence])
  })

  it('slows down after three misses, and does not even look at the PIN while it waits', async () => {
    const browser = bench.browser()
    for (let miss = 0; miss < 4; miss += 1) await browser.signIn('Tavi', '0000')
    const { status, body } = await browser.signIn('Tavi')
    expect([status, body.code]).toEqual([429, 'session.slow'])
    expect(body.waitSeconds).toBeGreaterThan(0)
    await bench.tamper(`update people set wait_until = now() where id = '${PEOPLE.Tavi.id}'`)
    expect((await browser.signIn('Tavi')).status).toBe(200)
  })

  it('counts misses that come at the same time one by one', async () => {
    await Promise.all(Array.from({ length: 6 }, () => bench.browser().signIn('Juno', '0000')))
    expect((await bench.browser().signIn('Juno')).body.code).toBe('session.slow')
    await bench.tamper(`update people set wait_until = null, failures = 0`)
  })

  it('waits 2, 4, 8 … seconds, and five minutes at the most', () => {
    expect([0, 3, 4, 5, 6, 30].map(waitAfter)).toEqual([0, 0, 2, 4, 8, 300])
  })
})

describe('the bench handed over', () => {
  it('ends one session, begins another, and enters both', async () => {
    const browser = await bench.at('Ilse')
    await browser.signIn('Pell')
    const { entries } = (await browser.get<Lines>('/api/book')).body
    expect(entries.slice(0, 2)).toMatchObject([
      { act: 'session.begun', by: 'Pell Ondry' },
      { act: 'session.ended', by: 'Ilse Maro', facts: { handedTo: PEOPLE.Pell.id } },
    ])
  })

  it('signing off leaves nobody there', async () => {
    const browser = await bench.at('Ilse')
    await browser.delete('/api/session')
    expect((await browser.get('/api/slips')).body.code).toBe('session.none')
  })
})

describe('a refusal at sign-in', () => {
  it('is an entry that holds no PIN', async () => {
    await bench.browser().signIn('Pell', '9876')
    const ilse = await bench.at('Ilse')
    const refused = await ilse.get<Lines>('/api/book?act=session.refused')
    expect(refused.body.entries[0]).toMatchObject({ by: null, facts: { person: PEOPLE.Pell.id } })
    expect(await ilse.text('/api/book.jsonl')).not.toContain('"9876"')
  })
})
