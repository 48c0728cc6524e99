/**
 * Who may knock at all: known host names on every request, same-origin and JSON on every request
 * that changes something. Cookies are SameSite=Strict besides; this holds without them too.
 */
import type { NextFunction, Request, RequestHandler, Response } from 'express'
import type { Config } from '../base/config.ts'
import { refuseWith } from './errors.ts'

const SAFE = ['GET', 'HEAD', 'OPTIONS']

/** Refuses a Host header that is not ours, on GET and event streams too (DNS rebinding). */
export function knownHost(config: Config): RequestHandler {
  const names = ['127.0.0.1', 'localhost', '[::1]']
  return (req, res, next) => {
    const port = req.socket.localPort
    const ours = [...names.map((name) => `${name}:${port}`), ...config.hosts]
    const host = req.headers.host?.toLowerCase() ?? ''
    if (ours.includes(host)) return next()
    refuseWith(req, res, { code: 'edge.host', facts: { host } })
  }
}

/** Refuses a change that another site's page could have sent, or that is not JSON. */
export function sameOrigin(config: Config): RequestHandler {
  return (req, res, next) => {
    if (SAFE.includes(req.method)) return next()
    /* Another site's page cannot send this header: browsers ask first, and we never say yes. */
    if (req.headers.authorization === undefined && !isSameOrigin(req, config))
      return refuseWith(req, res, { code: 'edge.origin' })
    if (!req.is('application/json') && !isUpload(req))
      return refuseWith(req, res, { code: 'input.not-json' })
    next()
  }
}

const UPLOADS = ['/api/shelf/archives?', '/api/shelf/catalogues']

/** Archives and catalogues come as bytes, each to one address only. */
export const isUpload = (req: Request): boolean =>
  req.method === 'POST' &&
  UPLOADS.some((address) => req.originalUrl.startsWith(address)) &&
  req.is('application/octet-stream') !== false

function isSameOrigin(req: Request, config: Config): boolean {
  const site = req.headers['sec-fetch-site']
  if (site !== undefined) return site === 'same-origin'
  const scheme = config.behindTls ? 'https' : 'http'
  return req.headers.origin === `${scheme}://${req.headers.host ?? ''}`
}

/** No page of ours is kept by a cache between browser and server; built assets say otherwise. */
export function notCached(_req: Request, res: Response, next: NextFunction): void {
  res.setHeader('cache-control', 'no-store')
  next()
}
