/** A word that comes while a run is being made ready is met by the run, once it can be. */
import { createHash } from 'node:crypto'
import { mkdirSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import type { BodyOf, Contract } from '@plain-slate/api'
import type { Vault } from '@plain-slate/vault'
import { afterEach, expect, it } from 'vitest'
import type { KeepPlan } from './keep-run.ts'
import { keepRun } from './keep-run.ts'
import type { FarEnd } from './testing/far-end.ts'
import { farEnd, saysFacts } from './testing/far-end.ts'
import { SERIAL, until } from './testing/played-server.ts'

const bytes = Buffer.from('nine more')
const image = createHash('sha256').update(bytes).digest('hex')
const ends: FarEnd[] = []
afterEach(() => {
  for (const end of ends.splice(0)) end.close()
})

it('a stop that is heard while the bytes are looked at again is met before anything is written', async () => {
  const device = await farEnd(saysFacts())
  ends.push(device)
  let looked = () => undefined as void
  const looking = new Promise<void>((resolve) => (looked = resolve))
  let read = false
  const vault = {
    size: () => Promise.resolve(bytes.length),
    read: () => {
      read = true
      return looking.then(() => Readable.from([bytes]))
    },
  } as unknown as Vault
  const reports: BodyOf<Contract['agentReport']>[] = []
  const server = {
    call: (_name: string, body: unknown) => {
      reports.push(body as BodyOf<Contract['agentReport']>)
      return Promise.resolve({ kind: 'answered', answer: { journal: 0 } })
    },
  } as unknown as KeepPlan['server']
  const folder = mkdtempSync(join(tmpdir(), 'agent-'))
  mkdirSync(join(folder, 'runs'))
  const work = { id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0019', serial: SERIAL, port: 'P2' } as const
  const wanted = { ...work, wanted: false, stop: 0, answers: {} }
  const put = { kind: 'put', mode: 'loader', partition: 'main', offset: 0 } as const
  const keeper = keepRun({
    agent: 'agent a',
    folder,
    linkSecret: 's',
    address: device.address,
    server,
    vault,
    work: wanted,
    claim: {
      stop: { asked: 0, met: 0 },
      epoch: 2,
      commands: [{ ...put, size: bytes.length, image }],
      journal: [],
      places: [{ image, archive: 'a'.repeat(64), offset: 0, size: bytes.length }],
      leads: [],
      shown: null,
    },
    met: () => undefined,
  })
  await until('its bytes are looked at', () => read)
  keeper.wanted({ ...wanted, stop: 1 })
  looked()
  await keeper.over
  expect(reports.at(-1)).toMatchObject({
    heard: 1,
    shown: { phase: { kind: 'stopped', why: { kind: 'asked' } } },
  })
  expect(device.heard.some(({ verb }) => verb === 'begin')).toBe(false)
})
