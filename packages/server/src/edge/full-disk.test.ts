import { tmpdir } from 'node:os'
import type { ApiError } from '@plain-slate/api'
import type { Request, Response } from 'express'
import { pino } from 'pino'
import { describe, expect, it } from 'vitest'
import type { Config } from '../base/config.ts'
import { lastResort } from './errors.ts'

/** What somebody is told whose request ended in this error. */
function told(error: Error): { status: number; body: Partial<ApiError> } {
  const answer = { status: 0, body: {} as Partial<ApiError> }
  const res = {
    headersSent: false,
    status: (status: number) => ((answer.status = status), res),
    json: (body: ApiError) => (answer.body = body),
  }
  const config = { vaultFolder: tmpdir() } as Config
  const log = pino({ level: 'silent' })
  lastResort({ log, config })(
    error,
    { id: 'r' } as unknown as Request,
    res as unknown as Response,
    () => undefined,
  )
  return answer
}
const withCode = (message: string, code: string) => Object.assign(new Error(message), { code })

describe('a full disk', () => {
  it.each([
    ['the database’s', withCode('could not extend file', '53100')],
    ['the file system’s', withCode('write', 'ENOSPC')],
    ['told without a code', new Error('could not write to file: No space left on device')],
  ])('in %s words is named, and no fault of ours', (_whose, error) => {
    const { status, body } = told(error)
    expect([status, body.code]).toEqual([507, 'disk.full'])
    expect(body.sentence).toContain(`The disk of ${tmpdir()} is full`)
    expect(body.sentence).toMatch(/\d+ MiB are free/)
  })

  it('is not what any other fault is', () => {
    expect(told(withCode('disk', '53200')).body.code).toBe('server.fault')
  })
})
