import type { ApiError } from '@plain-slate/api'
import { everyRoute } from '@plain-slate/api'
import { NEEDS } from '@plain-slate/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { tellRefusals } from './people/refusals.ts'
import { rightsTable } from './shop/handlers.ts'
import { openBench } from './testing/bench.ts'
import type { Bench, Browser, Name } from './testing/bench.ts'

/** One person of each rank; undefined: nobody signed in. */
const WHO: Readonly<Record<(typeof NEEDS)[number], Name | undefined>> = {
  nobody: undefined,
  trainee: 'Juno',
  technician: 'Tavi',
  lead: 'Ilse',
  agent: undefined,
}

/** The agent's place is nobody's: no person reaches it. */
const PEOPLE_RANKS = NEEDS.filter((need) => need !== 'agent').map(
  (need) => [NEEDS.indexOf(need), WHO[need]] as const,
)

let bench: Bench
const held = new Map<string, Browser>()
beforeAll(async () => {
  bench = await openBench()
})
afterAll(() => bench.close())

async function knock(browser: Browser, method: string, path: string): Promise<string> {
  const filled = path.replace('{number}', '0417').replace('{id}', crypto.randomUUID())
  const gone = new AbortController()
  const response = await browser.raw(filled, {
    method: method.toUpperCase(),
    signal: gone.signal,
    ...(method === 'get'
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: '{"nonsense":1}' }),
  })
  const stream = response.headers.get('content-type')?.startsWith('text/event-stream') === true
  if (stream) {
    gone.abort()
    return 'let in'
  }
  const text = await response.text()
  if (response.ok || !text.startsWith('{')) return 'let in'
  const { code } = JSON.parse(text) as ApiError
  return code === 'session.none' || code === 'act.refused' ? code : 'let in'
}

/** Signs in once a person, since sign-ins a minute are limited; again where the route signed off. */
async function browserOf(who: Name | undefined): Promise<Browser> {
  if (who === undefined) return bench.browser()
  const before = held.get(who)
  const session = await before?.get<{ person: object | null }>('/api/session')
  if (before !== undefined && session?.body.person !== null) return before
  const browser = await bench.at(who)
  held.set(who, browser)
  return browser
}

describe('every route', () => {
  it.each(everyRoute().map(([name, route]) => [name, route] as const))(
    '%s lets in exactly those whom its declaration names',
    async (_name, { method, path, needs }) => {
      for (const [rank, who] of PEOPLE_RANKS) {
        const browser = await browserOf(who)
        const expected =
          rank >= NEEDS.indexOf(needs)
            ? 'let in'
            : who === undefined
              ? 'session.none'
              : 'act.refused'
        expect(await knock(browser, method, path), `as ${who ?? 'nobody'}`).toBe(expected)
      }
    },
  )

  it('stands in the table that the Workshop shows', async () => {
    const juno = await browserOf('Juno')
    const { body } = await juno.get<unknown>('/api/rights')
    expect(body).toEqual(rightsTable())
    expect(rightsTable()).toHaveLength(everyRoute().length)
  })

  it('that was refused to somebody is an entry of the book', async () => {
    const juno = await browserOf('Juno')
    await bench.tamper('delete from refusals')
    await juno.post('/api/people', { name: 'A Friend', role: 'lead', pin: '1234' })
    const { body } = await juno.get<{ entries: { act: string; by: string; facts: object }[] }>(
      '/api/book',
    )
    expect(body.entries[0]).toMatchObject({
      act: 'act.refused',
      by: 'Juno Aske',
      facts: { route: 'POST /api/people' },
    })
  })

  it('that is tried again and again is counted, and its number entered when the hour is over', async () => {
    const juno = await browserOf('Juno')
    const entries = async () =>
      (await juno.get<{ entries: { act: string; facts: Record<string, unknown> }[] }>('/api/book'))
        .body.entries
    await bench.tamper('delete from refusals')
    const total = async () => (await juno.get<{ total: number }>('/api/book')).body.total
    const before = await total()
    for (let tried = 0; tried < 30; tried += 1) await juno.post('/api/book/check')
    expect(await total()).toBe(before + 1)
    expect(await tellRefusals(bench.server.workshop)).toEqual({ entered: 0 })
    await bench.tamper(`update refusals set hour = hour - interval '1 hour'`)
    expect((await tellRefusals(bench.server.workshop)).entered).toBeGreaterThan(0)
    const told = (await entries()).filter(({ facts }) => facts['route'] === 'POST /api/book/check')
    expect(told.slice(0, 2).map(({ facts }) => facts['times'])).toEqual([29, undefined])
    expect(await tellRefusals(bench.server.workshop)).toEqual({ entered: 0 })
  })
})
