/** Uploads under way: the room they were promised, and the time they are given. */
import { request } from 'node:http'
import type { Shelf } from '@plain-slate/api'
import { tarOf } from '@plain-slate/archives'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { atShell } from '../testing/agent.ts'
import type { Bench, Browser } from '../testing/bench.ts'
import { openBench } from '../testing/bench.ts'
import { packed, sendArchive } from '../testing/packed.ts'

const BODY_TIME = { small: 250, still: 1500 }
let bench: Bench
let ilse: Browser
beforeAll(async () => {
  bench = await openBench('demo', undefined, {}, { bodyTime: BODY_TIME })
  ilse = await bench.at('Ilse')
})
afterAll(() => bench.close())
const shelf = async () => (await ilse.get<Shelf>('/api/shelf')).body
const send = (bytes: Uint8Array) => sendArchive(bench.address, bytes)

describe('room', () => {
  it('that one upload was promised is not promised to another', async () => {
    const { workshop } = bench.server
    const free = workshop.room
    Object.assign(workshop, { room: () => Promise.resolve(512 * 1024 ** 2 + 8000) })
    const slow = await dribble(5000, 400)
    await slow.begun
    const refused = await send(packed('no-room'))
    expect(refused.code).toBe('archive.room')
    await slow.over
    expect((await send(packed('no-room'))).code).toBe(undefined)
    Object.assign(workshop, { room: free })
  })
})

/** An upload that brings half of its bytes, and the other half `pause` ms later. */
async function dribble(bytes: number, pause: number, path = '/api/shelf/archives?name=slow.tar') {
  const type = path.includes('archives') ? 'application/octet-stream' : 'application/json'
  const by = await atShell(bench.address)
  const headers = { ...by, 'content-type': type, 'content-length': String(bytes) }
  const req = request(bench.address + path, { method: 'POST', headers })
  const over = new Promise<number | string>((resolve) => {
    req.on('response', (res) => resolve(res.resume().statusCode ?? 0))
    req.on('error', (error) => resolve((error as NodeJS.ErrnoException).code ?? ''))
  })
  const tar = tarOf([{ name: 'a', bytes: Buffer.alloc(bytes) }]).subarray(0, bytes)
  const begun = new Promise<void>((resolve) =>
    req.write(Buffer.from(tar.subarray(0, bytes / 2)), () => setTimeout(resolve, 50)),
  )
  setTimeout(() => req.end(Buffer.from(tar.subarray(bytes / 2))), pause)
  return { begun, over }
}

describe('time', () => {
  it('is given to an archive as long as bytes come, and not to anything small', async () => {
    const archive = await dribble(4000, BODY_TIME.small * 2)
    expect(await archive.over).toBe(200)
    const line = await dribble(60, BODY_TIME.small * 2, '/api/slips')
    expect(await line.over).toBe('ECONNRESET')
  })

  it('is not given to an upload that stands still, and nothing of that is kept', async () => {
    const before = (await shelf()).archives.length
    const still = await dribble(4000, BODY_TIME.still * 2)
    expect(await still.over).toBe('ECONNRESET')
    expect((await shelf()).archives.length).toBe(before)
  })
})
