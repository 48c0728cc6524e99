import { mkdtempSync } from 'node:fs'
import { request } from 'node:http'
import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openBench } from './bench.ts'
import type { Bench } from './bench.ts'
import { controlServer } from './control.ts'

let bench: Bench
let server: Server
let address: string
beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'control-'))
  bench = await openBench({
    folder,
    secret: 'link',
    pace: 0,
    ports: { P1: 0 },
    families: [],
    images: [],
  })
  server = controlServer(bench, 'a control secret')
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(async () => {
  server.close()
  await bench.stop()
})

const ask = (path: string, init: RequestInit = {}, secret = 'a control secret') =>
  fetch(address + path, { ...init, headers: { authorization: `Bearer ${secret}` } })
const act = (body: string) => ask('/act', { method: 'POST', body })

describe('the control side of the simulated bench', () => {
  it('answers to nobody without its secret', async () => {
    expect((await ask('/devices', {}, 'another')).status).toBe(401)
    expect((await fetch(`${address}/act`, { method: 'POST', body: '{}' })).status).toBe(401)
    expect((await ask('/devices')).status).toBe(200)
  })

  it('answers only under its own names', async () => {
    const asked = (host: string) =>
      new Promise<number>((resolve, reject) => {
        const headers = { host, authorization: 'Bearer a control secret' }
        request(`${address}/devices`, { headers }, (res) => {
          res.resume()
          resolve(res.statusCode ?? 0)
        })
          .on('error', reject)
          .end()
      })
    const { port } = new URL(address)
    expect(await asked('evil.example')).toBe(421)
    expect(await asked(`127.0.0.1.evil.example:${port}`)).toBe(421)
    expect(await asked(`localhost:${port}`)).toBe(200)
  })

  it('takes acts of hands and nothing else', async () => {
    expect((await act('{"kind":"hammer"}')).status).toBe(400)
    expect((await act('not json')).status).toBe(400)
    expect((await act(`"${'x'.repeat(9000)}"`)).status).toBe(400)
    expect((await ask('/shelf')).status).toBe(404)
  })

  it('says in a sentence why an act could not be done', async () => {
    const response = await act('{"kind":"unplug","serial":"TRN0000000000"}')
    expect(await response.json()).toEqual({
      done: false,
      sentence: 'There is no simulated device TRN0000000000.',
    })
  })
})
