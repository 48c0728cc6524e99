/** The Express application: guards, session, the contract's routes, pages, the last resort. */
import { randomUUID } from 'node:crypto'
import type { Express, RequestHandler } from 'express'
import express from 'express'
import { rateLimit } from 'express-rate-limit'
import { pinoHttp } from 'pino-http'
import { agentHandlers } from './agents/handlers.ts'
import { benchHandlers } from './bench/handlers.ts'
import { bookHandlers } from './book/handlers.ts'
import { bodyTime } from './edge/body-time.ts'
import { lastResort, refuseWith } from './edge/errors.ts'
import { knownHost, notCached, sameOrigin } from './edge/guards.ts'
import { headers } from './edge/headers.ts'
import { jsonBody } from './edge/json-body.ts'
import { mount } from './edge/mount.ts'
import type { Workshop } from './base/workshop.ts'
import { familyHandlers } from './job/families.ts'
import { jobHandlers } from './job/handlers.ts'
import { peopleHandlers } from './people/handlers.ts'
import { refusedTo } from './people/refusals.ts'
import { knowActor, sessions } from './people/session.ts'
import { servePages } from './pages.ts'
import { runHandlers } from './runs/handlers.ts'
import { shelfHandlers } from './shelf/handlers.ts'
import { shopHandlers } from './shop/handlers.ts'
import { slipHandlers } from './slips/handlers.ts'

/** Heads and notes are small; files go another way. */
const BODY_LIMIT = '64kb'
/** Reports hold journals and the heads of disks. */
const AGENT_LIMIT = '2mb'
/** Sign-ins a minute from one address, on top of the slowing of each person's PIN. */
const SIGN_INS_A_MINUTE = 60

export type App = { readonly express: Express; readonly close: () => Promise<void> }

/** Puts the application together. `webDist` is the folder of the built interface. */
export function makeApp(workshop: Workshop, webDist: string): App {
  const app = express()
  const session = sessions(workshop)
  app.disable('x-powered-by')
  if (workshop.config.behindTls) app.set('trust proxy', 1)
  app.use(
    pinoHttp({
      logger: workshop.log,
      genReqId: () => randomUUID(),
      autoLogging: { ignore: (req) => req.url === '/api/ready' || req.url === '/api/health' },
      redact: ['req.headers', 'res.headers'],
      customLogLevel: (_req, res, error) =>
        error !== undefined || res.statusCode >= 500 ? 'error' : 'debug',
    }),
  )
  app.use(knownHost(workshop.config), ...headers(workshop.config))
  app.use('/api', notCached, sameOrigin(workshop.config), bodyTime(workshop.bodyTime))
  for (const path of ['/api/agent', '/api/slips/files', '/api/families'])
    app.use(path, jsonBody(AGENT_LIMIT))
  app.use('/api', jsonBody(BODY_LIMIT))
  app.use(['/api/session', '/api/first-lead'], signInLimit())
  app.use('/api', butHealth(session.handler), butHealth(knowActor(workshop)))
  const refused = (person: string, what: string) => refusedTo(workshop, person, what)
  mount(
    app,
    { config: workshop.config, refused },
    {
      ...shopHandlers(workshop),
      ...peopleHandlers(workshop),
      ...slipHandlers(workshop),
      ...bookHandlers(workshop),
      ...shelfHandlers(workshop),
      ...benchHandlers(workshop),
      ...runHandlers(workshop),
      ...familyHandlers(workshop),
      ...jobHandlers(workshop),
      ...agentHandlers(workshop),
    },
  )
  servePages(app, webDist)
  app.use((req, res) => {
    refuseWith(req, res, { code: 'route.unknown', facts: { path: req.path } })
  })
  app.use(lastResort(workshop))
  return { express: app, close: session.close }
}

/** Health and readiness must answer while the database is away, so they ask for no session. */
function butHealth(handler: RequestHandler): RequestHandler {
  return (req, res, next) => {
    if (req.path === '/health' || req.path === '/ready') return next()
    return handler(req, res, next)
  }
}

function signInLimit() {
  return rateLimit({
    windowMs: 60_000,
    limit: SIGN_INS_A_MINUTE,
    skip: (req) => req.method !== 'POST',
    validate: false,
    handler: (req, res) => {
      const seconds = 60
      const more = { waitSeconds: seconds }
      refuseWith(req, res, { code: 'session.slow', facts: { seconds, name: '' }, more })
    },
  })
}
