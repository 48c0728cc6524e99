/**
 * How long a body may take. A firmware archive may take hours, as long as bytes keep coming; everything
 * else is small and must be here soon, so that nobody holds a connection by sending a byte now and then.
 */
import type { RequestHandler } from 'express'
import { isUpload } from './guards.ts'

export type BodyTime = {
  /** Milliseconds in which a small body must be here whole. */
  readonly small: number
  /** Milliseconds in which an upload must bring at least one more byte. */
  readonly still: number
}

export const BODY_TIME: BodyTime = { small: 30_000, still: 60_000 }

/** Ends requests whose body does not come: an upload as a reset the vault knows, others plainly. */
export function bodyTime({ small, still }: BodyTime): RequestHandler {
  return (req, _res, next) => {
    if (req.method === 'GET' || req.method === 'HEAD') return next()
    if (isUpload(req)) {
      const { socket } = req
      const stand = () => req.destroy(stoodStill())
      socket.setTimeout(still).once('timeout', stand)
      /* The next request may come on the same connection. */
      req.once('close', () => socket.setTimeout(0).removeListener('timeout', stand))
      return next()
    }
    const late = setTimeout(() => req.destroy(), small)
    const over = () => clearTimeout(late)
    req.once('end', over).once('close', over)
    next()
  }
}

const stoodStill = (): Error => Object.assign(new Error('no byte came'), { code: 'ETIMEDOUT' })
