/** Where a slip's device may hang: its own port, or the only one left for it, and never another model's. */
import type { Slip } from '@plain-slate/api'
import type { DeviceFacts, Family } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import type { Workshop } from '../base/workshop.ts'
import { freePorts, seenAt } from './at-port.ts'
import type { JobAt } from './job-at.ts'

const family = (id: string, model: string) =>
  ({ id, models: [{ code: model }, { code: `${model}K` }] }) as unknown as Family
const tarn = family('tarn', 'BRAK-H2')
const alder = family('alder', 'CORV-4N')
const workshop: Pick<Workshop, 'families'> = { families: [tarn, alder] }
const sight = (port: string, model: string, serial: string) =>
  ({ port, facts: { model, serial } as DeviceFacts }) as unknown as JobAt['sights'][number]
const job = (more: Partial<JobAt> & { readonly model?: string | null } = {}): JobAt => {
  const { model = 'BRAK-H2', ...rest } = more
  return {
    slip: { model } as Slip,
    sights: [sight('P1', 'BRAK-H2', 'A1'), sight('P2', 'CORV-4N', 'B1')],
    others: new Map<string, string>(),
    family: tarn,
    serial: undefined,
    sight: undefined,
    ...rest,
  } as JobAt
}
const portsOf = (at: JobAt) => freePorts(workshop, at).map(({ port }) => port)
const seen = (at: JobAt) => seenAt(workshop, at)?.port

describe('ports that a slip’s device may hang at', () => {
  it('are those of its family that no other slip claims; all that are free where none is', () => {
    expect(portsOf(job())).toEqual(['P1'])
    expect(portsOf(job({ others: new Map([['A1', '0001'] as const]) }))).toEqual(['P2'])
    expect(portsOf(job({ family: undefined }))).toEqual(['P1', 'P2'])
  })

  it('is the only one left, of the model that the slip names', () => {
    expect(seen(job())).toBe('P1')
    expect(seen(job({ model: null }))).toBe('P1')
    expect(seen(job({ model: 'BRAK-H2K' }))).toBeUndefined()
    expect(seen(job({ others: new Map([['A1', '0001'] as const]) }))).toBeUndefined()
    const two = [sight('P1', 'BRAK-H2', 'A1'), sight('P3', 'BRAK-H2', 'A2')]
    expect(seen(job({ sights: two }))).toBeUndefined()
  })

  it('is its own once a serial was read, and none where that answers nowhere', () => {
    const own = { port: 'P4', facts: { model: 'BRAK-H2', serial: 'A9' } as DeviceFacts }
    expect(seen(job({ serial: 'A9', sight: own }))).toBe('P4')
    expect(seen(job({ serial: 'A9' }))).toBeUndefined()
  })
})
