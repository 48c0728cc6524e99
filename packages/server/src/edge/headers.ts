/** The headers every answer carries: helmet's, with a content policy that has a nonce a request. */
import { randomBytes } from 'node:crypto'
import type { RequestHandler } from 'express'
import helmet from 'helmet'
import type { Config } from '../base/config.ts'

declare module 'express-serve-static-core' {
  interface Locals {
    nonce: string
  }
}

/** Sets `res.locals.nonce` and the policy. Plain http on loopback is not upgraded. */
export function headers(config: Config): readonly RequestHandler[] {
  const nonce: RequestHandler = (_req, res, next) => {
    res.locals.nonce = randomBytes(16).toString('base64')
    next()
  }
  const policy = helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", (_req, res) => `'nonce-${(res as unknown as Locals).locals.nonce}'`],
        workerSrc: ["'self'", 'blob:'],
        imgSrc: ["'self'", 'data:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: config.behindTls,
  })
  return [nonce, policy]
}

type Locals = { readonly locals: { readonly nonce: string } }
