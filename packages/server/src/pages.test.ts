import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { serve } from './serve.ts'
import type { Running } from './serve.ts'
import { lockHead } from './tables/book.ts'
import { cloneTemplate, configFor, openBench } from './testing/bench.ts'

let server: Running
let address: string
beforeAll(async () => {
  const dist = mkdtempSync(join(tmpdir(), 'dist-'))
  mkdirSync(join(dist, 'assets'))
  writeFileSync(join(dist, 'index.html'), '<script nonce="%NONCE%"></script>')
  writeFileSync(join(dist, 'assets', 'a-1234.js'), 'let slate')
  const { databaseUrl } = await cloneTemplate('empty')
  server = await serve(configFor(databaseUrl), dist, { version: 'test', jobs: false })
  address = `http://127.0.0.1:${server.port}`
})
afterAll(() => server.stop())

const get = async (path: string) => {
  const response = await fetch(address + path)
  return { response, text: await response.text() }
}

describe('the built interface', () => {
  it('is one page at every address, with the nonce of its own policy each time', async () => {
    const [first, second] = [await get('/'), await get('/slips/0417/plan')]
    for (const { response, text } of [first, second]) {
      const nonce = /nonce="([^"]+)"/.exec(text)?.[1] ?? 'none'
      expect(response.headers.get('content-security-policy')).toContain(`'nonce-${nonce}'`)
    }
    expect(first.text).not.toBe(second.text)
  })

  it('has assets that may be kept for ever, and no others', async () => {
    const { response, text } = await get('/assets/a-1234.js')
    expect(text).toBe('let slate')
    expect(response.headers.get('cache-control')).toContain('immutable')
    expect((await get('/assets/gone.js')).response.status).toBe(404)
    expect((await get('/assets/..%2findex.html')).response.status).toBeGreaterThanOrEqual(400)
  })

  it('gives an unknown address of the contract no page but a refusal', async () => {
    const { response, text } = await get('/api/slips/0417/moon')
    expect(response.status).toBe(404)
    expect(JSON.parse(text)).toMatchObject({ code: 'route.unknown' })
  })

  it('that is not built says so', async () => {
    const bench = await openBench('empty')
    const response = await fetch(`${bench.address}/`)
    expect([response.status, await response.text()]).toEqual([
      503,
      expect.stringContaining('npm start'),
    ])
    await bench.close()
  })
})

describe('a server told to stop', () => {
  it('lets open requests end and streams go, and then is gone', async () => {
    const bench = await openBench()
    const tavi = await bench.at('Tavi')
    const stream = await tavi.raw('/api/events', {})
    const reader = stream.body?.getReader()
    await reader?.read()
    const held = await bench.server.workshop.db.transaction()
    await lockHead(held)
    const slow = tavi.post('/api/slips/0417/notes', { text: 'On its way.' })
    await new Promise((received) => setTimeout(received, 300))
    const closed = bench.close()
    await held.commit()
    expect((await slow).status).toBe(200)
    await closed
    for (let part = await reader?.read(); part?.done === false; part = await reader?.read());
    await expect(fetch(`${bench.address}/api/health`)).rejects.toThrow()
  })
})
