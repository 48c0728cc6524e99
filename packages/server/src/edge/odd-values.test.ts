/** Whatever text is sent, where and how: a refusal with a sentence, and never a fault. */
import type { ApiError, Route } from '@plain-slate/api'
import { errorSchema, everyRoute } from '@plain-slate/api'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { harmlessLines } from './csv.ts'

let bench: Bench
let ilse: Browser
beforeAll(async () => {
  bench = await openBench()
  ilse = await bench.at('Ilse')
})
afterAll(() => bench.close())

const NUL = '\u0000'
const ODD = [`x${NUL}y`, '\ud800', 'a\udc00b', '\u0007', '{', '%', '-1', '9'.repeat(400)]

/** The names a schema asks for at its top, or of the schemas it chooses between. */
function namesOf(schema: unknown): readonly string[] {
  const { shape, options } = schema as { shape?: object; options?: readonly unknown[] }
  return shape === undefined ? (options ?? []).flatMap(namesOf) : Object.keys(shape)
}

/** Every way of putting one odd text into a call of a route. */
function calls(route: Route, odd: string): { path: string; body?: string }[] {
  const filled = (value: string) => route.path.replace(/\{\w+\}/g, () => encodeURIComponent(value))
  const plain = filled('0417')
  const query = namesOf(route.query).map((name) => {
    const search = new URLSearchParams({ [name]: odd })
    return { path: `${plain}?${search.toString()}` }
  })
  const whole = JSON.stringify(Object.fromEntries(namesOf(route.body).map((name) => [name, odd])))
  const body = namesOf(route.body).map((name) => ({
    path: plain,
    body: JSON.stringify({ [name]: odd }),
  }))
  const address = route.path.includes('{') && odd.isWellFormed() ? [{ path: filled(odd) }] : []
  return [
    ...query,
    ...(route.method === 'get' ? [] : [...body, { path: plain, body: whole }]),
    ...address,
  ]
}

/** Routes that end the session these calls need, or answer without an end. */
const LEFT_OUT = ['sessionEnd', 'sessionBegin', 'events', 'agentEvents', 'firstLead']

describe('an odd text', () => {
  it.each(everyRoute().filter(([name]) => !LEFT_OUT.includes(name)))(
    'sent to %s is refused in words, or harmless',
    async (_name, route) => {
      for (const odd of ODD)
        for (const { path, body } of calls(route, odd)) {
          const headers = {
            'content-type': 'application/json',
            ...(route.needs === 'agent' ? { authorization: 'Bearer bench-secret' } : {}),
          }
          const method = route.method.toUpperCase()
          const init = method === 'GET' ? { headers } : { method, headers, body: body ?? '{}' }
          const response = await ilse.raw(path, init)
          const text = await response.text()
          expect(response.status, `${method} ${path} ${body ?? ''}: ${text}`).not.toBe(500)
          if (!response.ok) expect(errorSchema.safeParse(JSON.parse(text)).success).toBe(true)
        }
    },
  )

  it('is named by where it stands', async () => {
    const { status, body } = await ilse.post('/api/slips/0417/notes', { text: `x${NUL}` })
    expect([status, body.where]).toEqual([
      422,
      [{ path: 'body.text', problem: expect.stringContaining('no text') }],
    ])
  })

  it.each([
    ['gzip', Buffer.from('no gzip')],
    ['br', Buffer.from('{}')],
    ['compress', Buffer.from('{}')],
  ])('in a body that says it is %s and is not, is no fault', async (encoding, bytes) => {
    const response = await ilse.raw('/api/slips/0417/notes', {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'content-encoding': encoding },
      body: bytes,
    })
    expect(response.status).toBe(422)
    expect(((await response.json()) as ApiError).code).toBe('input.invalid')
  })
})

describe('a line break in a field of one line', () => {
  it('is a space, and begins no formula in a spreadsheet', async () => {
    const device = 'Brakken\n=1+1'
    const draft = { device, model: '', intent: 'update' }
    const opened = await ilse.post<{ number: string; device: string }>('/api/slips', draft)
    expect(opened.body.device).toBe('Brakken =1+1')
    const csv = await ilse.text('/api/slips.csv')
    for (const line of csv.split(/[\r\n]+/)) expect(line).not.toMatch(/^"?[=+@-]/)
  })

  it('in a text of several lines is kept, with what would begin a formula made plain', () => {
    expect(harmlessLines('a\n=1+1\r\n-2\nb')).toBe("a\n'=1+1\r\n'-2\nb")
    expect(harmlessLines(7)).toBe(7)
  })
})
