import { afterEach, describe, expect, it, vi } from 'vitest'
import { Refused, addressOf, call, troubleOf } from './call.ts'

afterEach(() => vi.unstubAllGlobals())
const answering = (status: number, body: unknown) =>
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status })))

async function refusalOf(asked: Promise<unknown>) {
  const error: unknown = await asked.catch((one: unknown) => one)
  return error instanceof Refused ? error.trouble : undefined
}

describe('asking the server', () => {
  it('fills addresses from the contract, encoded, without what was not asked', () => {
    expect(addressOf('slip', { params: { number: '04/17' } })).toBe('/api/slips/04%2F17')
    expect(addressOf('slips', { query: { q: 'a b', state: 'open' } })).toBe(
      '/api/slips?q=a+b&state=open',
    )
  })

  it('takes only answers that the contract promises', async () => {
    answering(200, { person: null })
    expect(await call('sessionShow')).toEqual({ person: null })
    answering(200, { somebody: 1 })
    await expect(call('sessionShow')).rejects.toThrow()
  })

  it('hands on a refusal as the server worded it', async () => {
    const refusal = {
      code: 'slip.unknown',
      sentence: 'There is no slip 1.',
      kept: 'k',
      remedy: 'r',
      requestId: 'q',
    }
    answering(404, refusal)
    expect(await refusalOf(call('sessionShow'))).toEqual(refusal)
  })

  it('is offline when nothing answers, or something that is not ours', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('failed')))
    expect((await refusalOf(call('sessionShow')))?.code).toBe('offline')
    answering(502, '<html>')
    expect((await refusalOf(call('sessionShow')))?.code).toBe('offline')
    expect(troubleOf(new Error('anything')).code).toBe('offline')
  })
})
