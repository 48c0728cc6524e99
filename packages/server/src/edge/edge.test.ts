import { request } from 'node:http'
import { ERROR_CODES, errorSchema } from '@plain-slate/api'
import { isCode } from '@plain-slate/texts'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { readConfig } from '../base/config.ts'
import { configFor, openBench } from '../testing/bench.ts'
import type { Bench, Browser } from '../testing/bench.ts'

let bench: Bench
let tavi: Browser
beforeAll(async () => {
  bench = await openBench()
  tavi = await bench.at('Tavi')
})
afterAll(() => bench.close())

/** A request under a Host of one's own, which fetch does not allow. */
function asHost(host: string, path: string): Promise<number> {
  return new Promise((resolve, reject) => {
    const sent = request(`${bench.address}${path}`, { headers: { host } }, (res) => {
      res.resume()
      resolve(res.statusCode ?? 0)
    })
    sent.on('error', reject).end()
  })
}
const json = { 'content-type': 'application/json' }
const note = (headers: Record<string, string>, body = '{"text":"x"}') =>
  tavi.raw('/api/slips/0417/notes', { method: 'POST', headers, body })

describe('the edge', () => {
  it('answers only to its own names, on reads and event streams too', async () => {
    expect(await asHost(`127.0.0.1:${bench.server.port}`, '/api/health')).toBe(200)
    for (const path of ['/api/health', '/api/events', '/'])
      expect(await asHost('evil.example', path)).toBe(421)
  })

  it('takes a change only from its own pages, and only as JSON', async () => {
    const codes = [
      await note({ ...json, 'sec-fetch-site': 'cross-site' }),
      await note({ ...json, 'sec-fetch-site': 'same-site' }),
      await note({ 'content-type': 'text/plain' }),
      await note(json),
    ].map((response) => response.status)
    expect(codes).toEqual([403, 403, 415, 200])
  })

  it('refuses a body that is nested without end, on every route that takes one', async () => {
    const deep = `{"text":${'['.repeat(10_000)}${']'.repeat(10_000)}}`
    for (const path of [
      '/api/slips/0417/notes',
      '/api/slips',
      '/api/families',
      '/api/agent/ports',
    ]) {
      const response = await tavi.raw(path, { method: 'POST', headers: json, body: deep })
      const { code, where } = errorSchema.parse(await response.json())
      expect([path, response.status, code]).toEqual([path, 422, 'input.invalid'])
      expect(where?.[0]?.problem).toContain('nested deeper')
    }
  })

  it('judges by Origin where a browser sends no Sec-Fetch-Site', async () => {
    const post = (origin: string) =>
      fetch(`${bench.address}/api/session`, {
        method: 'POST',
        headers: { ...json, origin },
        body: '{}',
      })
    expect((await post('http://evil.example')).status).toBe(403)
    expect((await post(bench.address)).status).toBe(422)
  })

  it.each([
    ['broken JSON', '{"text":', 422, 'input.invalid'],
    ['a body past the limit', JSON.stringify({ text: 'x'.repeat(70_000) }), 413, 'input.too-large'],
    ['a number where text is asked', '{"text":7}', 422, 'input.invalid'],
    ['an array for an object', '[]', 422, 'input.invalid'],
  ])('answers %s in the one error shape', async (_what, body, status, code) => {
    const response = await note(json, body)
    expect(response.status).toBe(status)
    expect(errorSchema.parse(await response.json()).code).toBe(code)
  })

  it('answers an unknown address, and one that cannot be decoded, in the same shape', async () => {
    for (const path of ['/api/nothing', '/api/slips/%E0%A4%A'])
      expect(errorSchema.safeParse((await tavi.get(path)).body).success).toBe(true)
  })

  it('sends a policy that allows no foreign source, with a fresh nonce each time', async () => {
    const policy = async () =>
      (await tavi.raw('/api/health', {})).headers.get('content-security-policy') ?? ''
    const [first, second] = [await policy(), await policy()]
    expect(first).toContain("default-src 'self'")
    expect(first).toContain("frame-ancestors 'none'")
    expect(first).not.toMatch(/'unsafe-inline'|'unsafe-eval'|https?:/)
    expect(/nonce-[^']+/.exec(first)?.[0]).not.toBe(/nonce-[^']+/.exec(second)?.[0])
  })

  it('refuses to listen beyond loopback without TLS in front', () => {
    const given = {
      DATABASE_URL: 'postgres://x',
      PLAIN_SLATE_SECRETS: '/nowhere',
      PLAIN_SLATE_ADDRESS: '0.0.0.0',
    }
    expect(readConfig(given)).toMatchObject({ ok: false })
    const behind = configFor('postgres://x', {
      PLAIN_SLATE_ADDRESS: '0.0.0.0',
      PLAIN_SLATE_PROXY: 'tls',
    })
    expect(behind.behindTls).toBe(true)
  })
})

describe('every refusal', () => {
  it('has a sentence, what was kept and what to try', () => {
    const codes = ERROR_CODES.flatMap((code) =>
      ['', '.kept', '.remedy'].map((part) => `error.${code}${part}`),
    )
    expect(codes.filter((code) => !isCode(code))).toEqual([])
  })
})

describe('the contract as OpenAPI', () => {
  it('describes each route with the role it needs, and fetches nothing', async () => {
    type Document = { paths: Record<string, Record<string, { description: string }>> }
    const { body } = await tavi.get<Document>('/api/openapi.json')
    expect(body.paths['/api/slips/{number}']?.['patch']?.description).toContain('technician')
    const page = await tavi.text('/api/docs')
    expect(page).not.toMatch(/https?:/)
    for (const [, file] of page.matchAll(/(?:src|href)="([^"]+)"/g))
      expect((await tavi.raw(file ?? '', {})).status).toBe(200)
  })
})
