/** Acts of the shell are somebody's: by a PIN, by a token of House; their role holds; a device is read for its slip. */
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { EventLine, Job } from '@plain-slate/api'
import { TOPICS } from '@plain-slate/core'
import { DEMO_PEOPLE, idOf, permitFile } from '@plain-slate/demo'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { toolHere } from './tool.ts'
import { LEAD, WholeShop } from './whole-shop.ts'

let shop: WholeShop
beforeAll(async () => {
  shop = new WholeShop((await cloneTemplate('demo')).databaseUrl, 0)
  await shop.open()
}, 120_000)
afterAll(() => shop.close())

const tool = (env: Readonly<Record<string, string | undefined>>, ...args: readonly string[]) =>
  toolHere([...args, '--data', shop.folder], env)
const pinOf = (name: string) => DEMO_PEOPLE.find((one) => one.name.startsWith(name))?.pin
const as = (name: string, ...args: readonly string[]) =>
  tool({ PLAIN_SLATE_PIN: pinOf(name) }, ...args, '--as', name)
const entries = async () => (await shop.call<{ entries: EventLine[] }>('GET', '/api/book')).entries
const opened = async (device = 'Brakken H2K') => {
  const draft = { device, model: 'BRAK-H2K', intent: 'update' }
  return (await shop.call<{ number: string }>('POST', '/api/slips', draft)).number
}

describe('whoever acts at the shell', () => {
  it('has a name, which the book has too', async () => {
    const slip = ['say', '--slip', await opened(), 'owner.proof=shown']
    const nobody = await tool({}, ...slip)
    expect([nobody.code, nobody.err]).toEqual([2, expect.stringContaining('--as NAME')])
    expect((await as('Tavi', ...slip)).code).toBe(0)
    const said = (await entries()).find(({ act }) => act === 'slip.line')
    expect(said?.by).toBe('Tavi Renn')
  })

  it('has a PIN, and the role of that person', async () => {
    const number = await opened()
    const wrong = await tool(
      { PLAIN_SLATE_PIN: '0000' },
      ...['say', '--slip', number, 'condition.wet=dry', '--as', 'Pell'],
    )
    expect([wrong.code, wrong.err]).toEqual([2, expect.stringContaining('PIN')])
    const mute = await tool({}, 'say', '--slip', number, 'condition.wet=dry', '--as', 'Pell')
    expect(mute.err).toContain('PLAIN_SLATE_PIN')
    const stranger = await as('Nim', 'say', '--slip', number, 'condition.wet=dry')
    expect(stranger.err).toContain('Tavi Renn')
    const trainee = await as('Juno', 'cable', 'add', 'C9')
    expect([trainee.code, trainee.err]).toEqual([2, expect.stringContaining('trainee')])
    expect((await as('Pell', 'cable', 'add', 'C9')).code).toBe(0)
  })

  it('puts its maker’s permit down by its file, and nothing of one that was changed', async () => {
    const number = await opened()
    const file = join(shop.folder, 'permit.json')
    const granted = {
      id: 'PM-9',
      device: '7A31-C0',
      scope: 'service',
      until: '2026-11-30',
    } as const
    writeFileSync(file, permitFile(granted))
    const put = await as('Juno', 'permit', '--slip', number, file)
    expect([put.code, put.out]).toEqual([0, expect.stringContaining('PM-9, for 7A31-C0')])
    writeFileSync(file, permitFile(granted).replace('2026-11-30', '2027-11-30'))
    const changed = await as('Juno', 'permit', '--slip', number, file)
    expect([changed.code, changed.err]).toEqual([2, expect.stringContaining('trust store')])
  })

  it('may have a token that they made on House, which ends with their PIN', async () => {
    const browser = await cookieOf('Pell')
    const post = async <Body>(path: string, body: object) =>
      (await (
        await fetch(shop.address + path, {
          method: 'POST',
          headers: { ...browser, 'content-type': 'application/json' },
          body: JSON.stringify(body),
        })
      ).json()) as Body
    type Made = { token: string; made: { id: string } }
    const make = () => post<Made>('/api/people/tokens', { name: 'bench two', pin: pinOf('Pell') })
    const { token, made } = await make()
    const number = await opened()
    const say = (held: string, ...more: readonly string[]) =>
      tool({ PLAIN_SLATE_TOKEN: held }, 'say', '--slip', number, 'condition.cell=sound', ...more)
    expect((await say(token)).code).toBe(0)
    expect((await say(token, '--as', 'Ilse')).err).toContain('Pell Ondry’s')
    await post(`/api/people/tokens/${made.id}/strike`, {})
    expect((await say(token)).err).toContain('holds no more')
    const other = await make()
    const change = { method: 'PATCH', headers: { ...shop.by, 'content-type': 'application/json' } }
    const at = `${shop.address}/api/people/${idOf('Pell')}`
    await fetch(at, { ...change, body: JSON.stringify({ pin: '6093' }) })
    expect((await say(other.token)).err).toContain('holds no more')
    const acts = (await entries()).map(({ act }) => act)
    expect(acts.filter((act) => act.startsWith('token.'))).toHaveLength(3)
  })
})

describe('a device at a port', () => {
  it('is read for a slip that is opened for it, and goes on at that slip', async () => {
    const read = await as('Tavi', 'read', '--open', '--port', 'P2', '--json')
    const { slip } = JSON.parse(read.out) as { slip: string }
    const job = await shop.call<Job>('GET', `/api/slips/${slip}/job`)
    expect(job.device?.serial).toBe(LEAD)
    const count = async () => (await shop.call<{ total: number }>('GET', '/api/slips')).total
    const before = await count()
    const again = await as(
      'Tavi',
      'run',
      '--open',
      '--port',
      'P2',
      '--package',
      'x',
      '--serial',
      '7F31',
    )
    expect([again.code, again.err]).toEqual([2, expect.stringContaining(`slip ${slip}`)])
    expect(await count()).toBe(before)
    expect((await as('Tavi', 'read', '--port', 'P2')).out).toContain(`slip ${slip}`)
    const number = await opened()
    const other = await as('Tavi', 'read', '--slip', number, '--port', 'P2')
    expect(other.err).toContain(`slip ${slip}`)
  })

  it('is read deep where what its mode shows alone was done', async () => {
    const deep = () => as('Tavi', 'read', '--port', 'P2', '--deep', '--json')
    const first = await deep()
    const { slip } = JSON.parse((await as('Tavi', 'read', '--port', 'P2', '--json')).out) as {
      slip: string
    }
    const job = await shop.call<Job>('GET', `/api/slips/${slip}/job`)
    const open = job.leave?.items.filter(({ holds }) => !holds) ?? []
    expect(first.code).toBe(open.length > 0 ? 2 : 0)
  })
})

describe('what may be said', () => {
  it('is listed with its choices and what stands, of a stage or of all', async () => {
    const number = await opened()
    await as('Tavi', 'say', '--slip', number, 'owner.proof=shown')
    const all = await tool({}, 'say', '--slip', number, '--list', '--json')
    const { topics } = JSON.parse(all.out) as {
      topics: { topic: string; answers: string[]; stands: { answer: string } | null }[]
    }
    const missing = TOPICS.filter(({ topic }) => !topics.some((one) => one.topic === topic))
    expect(missing).toEqual([])
    const proof = topics.find(({ topic }) => topic === 'owner.proof')
    expect([proof?.answers, proof?.stands?.answer]).toEqual([['shown', 'not-shown'], 'shown'])
    const ready = await tool({}, 'say', '--slip', number, '--list', 'ready')
    expect(ready.out).toContain('ready.cable')
    expect(ready.out).not.toContain('owner.proof')
    /* Of a device that was read, in its family's words. */
    const read = await tool(
      {},
      'say',
      '--slip',
      (await shop.port('P2')).slip?.number ?? '',
      '--list',
      'ready',
    )
    expect(read.out).toContain('Its link permission is on: one switch in the settings')
    expect((await tool({}, 'say', '--slip', number, '--list', 'nowhere')).err).toContain('intake')
  })
})

async function cookieOf(name: string): Promise<Readonly<Record<string, string>>> {
  const person = DEMO_PEOPLE.find((one) => one.name.startsWith(name))
  const headers = { 'sec-fetch-site': 'same-origin', 'content-type': 'application/json' }
  const body = JSON.stringify({ person: person?.id, pin: person?.pin })
  const response = await fetch(`${shop.address}/api/session`, { method: 'POST', headers, body })
  return { ...headers, cookie: response.headers.get('set-cookie')?.split(';')[0] ?? '' }
}
