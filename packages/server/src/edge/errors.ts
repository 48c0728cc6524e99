/** The one way out for what goes wrong: refusals with their sentence, faults with a request id. */
import { TOO_DEEP } from '@plain-slate/core'
import type { NextFunction, Request, Response } from 'express'
import { isAway } from '../tables/database.ts'
import { diskFull, isDiskFull } from '../base/full-disk.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { errorOf, statusOf } from '../base/refusal.ts'

/** Answers with a refusal in the error shape. */
export function refuseWith(req: Request, res: Response, refusal: Refusal): void {
  if (res.headersSent) {
    res.end()
    return
  }
  res.status(statusOf(refusal.code)).json(errorOf(refusal, String(req.id), 'en-GB'))
}

/** What body parsing and other middleware throw, as refusals; undefined for a real fault. */
function known(error: unknown, folder: string): Refusal | undefined {
  if (isDiskFull(error)) return diskFull(folder)
  if (isAway(error)) return { code: 'database.away' }
  const type = typeof error === 'object' && error !== null && 'type' in error ? error.type : ''
  if (type === 'entity.too.large') return { code: 'input.too-large' }
  if (type === 'entity.too.deep') return unreadable(TOO_DEEP)
  if (type === 'entity.parse.failed') return unreadable('the body is not readable JSON')
  /* What the body's parser refuses beside that: an encoding it has not, bytes that are not of it. */
  if (isClients(error)) return unreadable('the body cannot be read in the encoding it names')
  if (error instanceof URIError)
    return {
      code: 'input.invalid',
      more: { where: [{ path: 'address', problem: 'not readable as an address' }] },
    }
  return undefined
}

const unreadable = (problem: string): Refusal => ({
  code: 'input.invalid',
  more: { where: [{ path: 'body', problem }] },
})

/** An error that the framework says the sender made. */
function isClients(error: unknown): boolean {
  if (typeof error !== 'object' || error === null || !('status' in error)) return false
  return typeof error.status === 'number' && error.status >= 400 && error.status < 500
}

/** Express's last handler. A fault is logged whole and told as an id; the process lives on. */
export function lastResort({ log, config }: Pick<Workshop, 'log' | 'config'>) {
  return (error: unknown, req: Request, res: Response, next: NextFunction): void => {
    void next
    const refusal = known(error, config.vaultFolder)
    if (refusal === undefined) log.error({ err: error, requestId: req.id }, 'fault')
    refuseWith(req, res, refusal ?? { code: 'server.fault', facts: { id: String(req.id) } })
  }
}
