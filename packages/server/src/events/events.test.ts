import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { STREAMS_A_PERSON, makeHub } from './hub.ts'
import type { Word } from './hub.ts'

let bench: Bench
let tavi: Browser
beforeAll(async () => {
  bench = await openBench()
  tavi = await bench.at('Tavi')
})
afterAll(() => bench.close())

/** Listens on a stream; `until` waits for a text in it. */
async function listening(browser: Browser) {
  const end = new AbortController()
  const response = await browser.raw('/api/events', { signal: end.signal })
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader()
  let heard = ''
  let over = false
  const until = async (text: string | RegExp) => {
    const deadline = Date.now() + 5000
    while (heard.search(text) < 0 && !over && Date.now() < deadline) {
      const next = await reader?.read()
      heard += next?.value ?? ''
      over = next?.done ?? true
    }
    return heard
  }
  return { until, end: () => end.abort(), status: response.status }
}

describe('an event stream', () => {
  it('says what changed and never how', async () => {
    const stream = await listening(await bench.at('Juno'))
    await stream.until('hello')
    await tavi.post('/api/slips/0417/notes', { text: 'Charger swapped.' })
    const heard = await stream.until(/"topic":"slip"/)
    expect(heard).toMatch(/"topic":"slip","id":"0417","version":2/)
    expect(heard).not.toContain('Charger')
    stream.end()
  })

  it('says "fetch all" after news may have been missed', async () => {
    const stream = await listening(tavi)
    await stream.until('hello')
    await bench.tamper(`select pg_terminate_backend(pid) from pg_stat_activity
                        where application_name = 'plain-slate news'`)
    expect(await stream.until('event: reset')).toContain('event: reset')
    stream.end()
  })

  it('is refused past the number that one person may hold', async () => {
    const pell = await bench.at('Pell')
    const streams = await Promise.all(
      Array.from({ length: STREAMS_A_PERSON }, () => listening(pell)),
    )
    expect((await pell.get('/api/events')).body.code).toBe('events.full')
    streams.forEach((stream) => stream.end())
  })
})

describe('the hub', () => {
  const hears = (personId: string) => {
    const heard: Word[] = []
    return {
      heard,
      subscriber: { personId, role: 'trainee', hear: (word: Word) => heard.push(word) } as const,
    }
  }

  it('tells news of a session only to the person whose it is', () => {
    const hub = makeHub()
    const [one, other] = [hears('one'), hears('other')]
    hub.subscribe(one.subscriber)
    hub.subscribe(other.subscriber)
    hub.tell({ kind: 'news', news: { topic: 'session', id: 'one', version: 1 } })
    expect([one.heard.length, other.heard.length]).toEqual([1, 0])
  })

  it('forgets who left', () => {
    const hub = makeHub()
    const one = hears('one')
    hub.subscribe(one.subscriber)?.()
    hub.tell({ kind: 'reset' })
    expect([one.heard, hub.size()]).toEqual([[], 0])
  })
})
