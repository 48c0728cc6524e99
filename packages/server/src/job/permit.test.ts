/** A maker's permit as it is taken in: by its signature alone, and believed as long as its key is trusted. */
import { createHash } from 'node:crypto'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Job } from '@plain-slate/api'
import { PERMIT_TOPIC } from '@plain-slate/core'
import { depotPem, makerPem, permitFile } from '@plain-slate/demo'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Bench, Browser } from '../testing/bench.ts'
import { openBench } from '../testing/bench.ts'

const trust = mkdtempSync(join(tmpdir(), 'trust-'))
writeFileSync(join(trust, 'depot.pem'), depotPem())
writeFileSync(join(trust, 'corvane.pem'), makerPem())
const permit = { id: 'PM-1', device: '7A31-C0', scope: 'service', until: '2026-11-30' } as const

let bench: Bench
let juno: Browser
beforeAll(async () => {
  bench = await openBench('demo', undefined, { PLAIN_SLATE_TRUST: trust })
  juno = await bench.at('Juno')
})
afterAll(() => bench.close())

const puts = async (text: string) =>
  (await juno.post<Job & { code?: string }>('/api/slips/0413/permit', { text })).body

describe('a permit’s file', () => {
  it('is put down by whoever works here, and nothing of one that cannot be read or is not signed', async () => {
    const file = permitFile(permit)
    expect((await puts('moon')).code).toBe('permit.unreadable')
    expect((await puts(file.replace('PM-1', 'PM-2'))).code).toBe('permit.unsigned')
    expect((await puts(permitFile(permit, { maker: 'Ostrel' }))).permit).toMatchObject({
      signed: { maker: 'Ostrel', key: 'corvane' },
    })
    expect((await puts(file)).permit).toMatchObject({
      ...permit,
      signed: { maker: 'Corvane', packages: ['alder-service-20-2638.9'] },
    })
    /* Typed, it is a lead's word, and not everybody's. */
    const typed = { topic: PERMIT_TOPIC, answer: 'PM-3 7A31-C0 2026-11-30', note: '' }
    const said = await juno.post<{ code?: string }>('/api/slips/0413/lines', { lines: [typed] })
    expect(said.body.code).toBe('act.refused')
    /* Nor does a lead's word borrow the file's signature. */
    const file64 = createHash('sha256').update(file).digest('hex')
    const borrowed = { ...typed, answer: `PM-3 OTHER 2030-01-01 service ${file64}` }
    const lead = await bench.at('Ilse')
    const lines = [borrowed]
    const refused = await lead.post<{ code?: string }>('/api/slips/0413/lines', { lines })
    expect(refused.body.code).toBe('slip.line')
  })

  it('is none once its key is trusted no more', async () => {
    const permitNow = async () => {
      /* What is said since has the slip read again. */
      const line = { topic: 'accessory.case', answer: 'here', note: '' }
      await juno.post('/api/slips/0413/lines', { lines: [line] })
      return (await juno.get<Job>('/api/slips/0413/job')).body.permit
    }
    expect((await permitNow())?.id).toBe('PM-1')
    rmSync(join(trust, 'corvane.pem'))
    expect(await bench.at('Ilse').then((ilse) => saidBy(ilse))).toBeNull()
  })
})

/** The permit after somebody else said something. */
async function saidBy(ilse: Browser): Promise<Job['permit']> {
  const line = { topic: 'accessory.case', answer: 'none', note: '' }
  await ilse.post('/api/slips/0413/lines', { lines: [line] })
  return (await ilse.get<Job>('/api/slips/0413/job')).body.permit
}
