/** Bodies of JSON: bounded in bytes and in depth before anything is built of them. */
import type { IncomingMessage } from 'node:http'
import { TOO_DEEP, isDeeper } from '@plain-slate/core'
import express from 'express'
import type { RequestHandler } from 'express'

/** What the parser throws of a body that is nested too deep. */
export class TooDeep extends Error {
  readonly type = 'entity.too.deep'
}

/** Reads a JSON body of at most so many bytes (`64kb`). */
export const jsonBody = (limit: string): RequestHandler => express.json({ limit, verify: notDeep })

function notDeep(_req: IncomingMessage, _res: unknown, body: Buffer): void {
  if (isDeeper(body)) throw new TooDeep(TOO_DEEP)
}
