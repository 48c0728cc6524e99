/** The built interface: assets for ever, and the one page with its nonce for every other address. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Express, RequestHandler } from 'express'
import express from 'express'
import { docsAssets, docsScript } from './docs/page.ts'

const NONCE = '%NONCE%'

/** Serves the built folder. Without one (it was not built) every page says so. */
export function servePages(app: Express, webDist: string): void {
  app.get('/api/docs/assets/open.js', (_req, res) => {
    res.type('js').send(docsScript)
  })
  app.use('/api/docs/assets', express.static(docsAssets(), { index: false, maxAge: '1h' }))
  app.use(
    '/assets',
    express.static(join(webDist, 'assets'), { immutable: true, maxAge: '365d', index: false }),
  )
  app.get('/{*page}', page(join(webDist, 'index.html')))
}

function page(file: string): RequestHandler {
  let text: string | undefined
  return (req, res, next) => {
    if (req.path.startsWith('/api/') || req.path.startsWith('/assets/')) return next()
    text ??= read(file)
    if (text === undefined) {
      res.status(503).type('text').send('The interface is not built yet: run npm start.')
      return
    }
    res.type('html').send(text.replaceAll(NONCE, res.locals.nonce))
  }
}

function read(file: string): string | undefined {
  try {
    return readFileSync(file, 'utf8')
  } catch {
    return undefined
  }
}
