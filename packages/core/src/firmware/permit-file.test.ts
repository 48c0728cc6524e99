/** A permit's file: what is read of it, what is signed, and where it is wrong. */
import { describe, expect, it } from 'vitest'
import type { PermitFile } from './permit-file.ts'
import { PERMIT_FORMAT, permitSigned, readPermitFile } from './permit-file.ts'

const permit = {
  format: PERMIT_FORMAT,
  id: 'PM-1',
  maker: 'Corvane',
  device: '7A31-C0',
  scope: 'service',
  packages: ['one'],
  from: '2026-10-01',
  until: '2026-11-30',
  signature: `${'A'.repeat(86)}==`,
} satisfies PermitFile
const reads = (more: object) => readPermitFile(JSON.stringify({ ...permit, ...more }))
const where = (more: object) => {
  const read = reads(more)
  return read.ok ? 'read' : read.refusal.path
}

describe('a permit’s file', () => {
  it('is read whole, or says where it is wrong', () => {
    expect(reads({})).toEqual({ ok: true, value: permit })
    expect(where({ device: '7A31 C0' })).toBe('device')
    expect(where({ packages: [] })).toBe('packages')
    expect(where({ until: '2026-02-30' })).toBe('until')
    expect(where({ until: '2026-09-30' })).toBe('until')
    expect(where({ signature: 'short' })).toBe('signature')
    expect(where({ more: 1 })).toBe('')
    const long = JSON.stringify({ ...permit, more: ' '.repeat(70_000) }).slice(0, 65_536)
    expect(readPermitFile(long)).toMatchObject({
      refusal: { problem: 'it is longer than any permit' },
    })
    expect(readPermitFile('moon')).toMatchObject({ ok: false })
    expect(readPermitFile('{"format":"\\u0000"}')).toMatchObject({ ok: false })
  })

  it('is signed in all but its signature', () => {
    const text = permitSigned(permit)
    expect(permitSigned({ ...permit, until: '2026-12-31' })).not.toBe(text)
    expect(permitSigned({ ...permit, ...{ signature: 'another' } })).toBe(text)
  })
})
