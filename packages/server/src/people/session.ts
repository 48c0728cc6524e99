/** Sessions: a cookie, a row in PostgreSQL, and who it stands for. */
import connectPgSimple from 'connect-pg-simple'
import type { Request, RequestHandler } from 'express'
import session from 'express-session'
import pg from 'pg'
import type { Workshop } from '../base/workshop.ts'
import { readPerson } from '../tables/people.ts'
import type { Face } from '@plain-slate/api'
import { bearsSecret } from '../base/secret.ts'
import { faceOf } from './face.ts'
import { bearerOf } from './tokens.ts'

declare module 'express-session' {
  interface SessionData {
    personId: string
  }
}

/** A working day: longer than a shift, shorter than a forgotten bench. */
const SESSION_HOURS = 12
const POOL_MAX = 3

export type Sessions = { readonly handler: RequestHandler; readonly close: () => Promise<void> }

/** The session middleware with its own small pool. Purging is a job, not a timer in here. */
export function sessions(workshop: Workshop): Sessions {
  const pool = new pg.Pool({ connectionString: workshop.config.databaseUrl, max: POOL_MAX })
  pool.on('error', (err) => workshop.log.warn({ err }, 'session pool'))
  const Store = connectPgSimple(session)
  const handler = session({
    name: 'plain-slate',
    secret: workshop.config.cookieSecret,
    store: new Store({
      ...{ pool, tableName: 'sessions', pruneSessionInterval: false },
      /* The cookie ends so long after it was given, whatever is asked meanwhile; so does its row. */
      disableTouch: true,
    }),
    resave: false,
    saveUninitialized: false,
    rolling: false,
    cookie: {
      httpOnly: true,
      sameSite: 'strict',
      secure: workshop.config.behindTls,
      maxAge: SESSION_HOURS * 3600 * 1000,
      path: '/',
    },
  })
  return { handler, close: () => pool.end() }
}

/** Puts whoever is signed in, or bears a token, on `res.locals.actor`; somebody who has left is nobody. */
export function knowActor(workshop: Workshop): RequestHandler {
  return async (req, res, next) => {
    const { authorization } = req.headers
    res.locals.actor =
      authorization === undefined || bearsSecret(req, workshop.config)
        ? await actorOfSession(workshop, req.session.personId)
        : await bearerOf(workshop.db, authorization)
    next()
  }
}

async function actorOfSession({ db }: Workshop, id: string | undefined): Promise<Face | undefined> {
  const person = id === undefined ? undefined : await readPerson(db, id)
  return person?.active === true ? faceOf(person) : undefined
}

/** Gives the browser a new session for a person; the old id is worth nothing afterwards. */
export async function beginSession(req: Request, personId: string): Promise<void> {
  await promised((done) => req.session.regenerate(done))
  req.session.personId = personId
  await promised((done) => req.session.save(done))
}

/** Forgets the session, here and in the database. */
export async function endSession(req: Request): Promise<void> {
  await promised((done) => req.session.destroy(done))
}

function promised(call: (done: (error: unknown) => void) => void): Promise<void> {
  return new Promise((resolve, reject) => {
    call((error) => {
      if (error === undefined || error === null) resolve()
      else reject(error instanceof Error ? error : new Error('the session store failed'))
    })
  })
}
