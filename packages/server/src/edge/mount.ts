/**
 * Joins the contract to its handlers: parses what comes in, holds the route's role against whoever is
 * signed in, calls one function, answers. Every route of the contract must have a handler: the
 * compiler sees to it.
 */
import type {
  Face,
  AnswerOf,
  BodyOf,
  Contract,
  ParamsOf,
  QueryOf,
  Route,
  RouteName,
} from '@plain-slate/api'
import { everyRoute } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import { reaches } from '@plain-slate/core'
import type { Express, Request, Response } from 'express'
import type { z } from 'zod'
import type { Config } from '../base/config.ts'
import { illegibleAt, madeLegible } from './legible.ts'
import type { Refusal } from '../base/refusal.ts'
import { refuseWith } from './errors.ts'
import { bearsSecret } from '../base/secret.ts'

/** The handler wrote the answer itself (a stream, a page). */
export const WRITTEN = Symbol('written')

export type Call<R extends Route> = {
  readonly params: ParamsOf<R>
  readonly query: QueryOf<R>
  readonly body: BodyOf<R>
  /** Who is signed in; undefined only on routes that need nobody, or under the bench secret. */
  readonly actor: Face | undefined
  readonly req: Request
  readonly res: Response
}

export type Handler<R extends Route> = (
  call: Call<R>,
) => Promise<Result<AnswerOf<R> | typeof WRITTEN, Refusal>>

export type Handlers = { readonly [Name in RouteName]: Handler<Contract[Name]> }

/** What the edge needs of the rest: how it is set up, and whom to tell of a call that was refused. */
export type Edge = {
  readonly config: Config
  /** Somebody who is signed in was refused a call; `what` is the route. */
  readonly refused: (person: string, what: string) => Promise<void>
}

/** Mounts every route of the contract on the app. */
export function mount(app: Express, edge: Edge, handlers: Handlers): void {
  for (const [name, route] of everyRoute()) {
    const path = route.path.replace(/\{(\w+)\}/g, ':$1')
    const handler = handlers[name] as unknown as Handler<Route>
    app[route.method](path, async (req, res) => {
      const refusal = await answer(edge, route, handler, req, res)
      if (refusal !== undefined) refuseWith(req, res, refusal)
    })
  }
}

async function answer(
  edge: Edge,
  route: Route,
  handler: Handler<Route>,
  req: Request,
  res: Response,
): Promise<Refusal | undefined> {
  const actor = res.locals.actor
  const withSecret = route.secret === true && bearsSecret(req, edge.config)
  if (!withSecret && !reaches(actor?.role, route.needs))
    return notEnough(edge, route, actor, req.headers.authorization !== undefined)
  const input = parse(route, req)
  if (!input.ok) return input.refusal
  const result = await handler({ ...input.value, actor, req, res })
  if (!result.ok) return result.refusal
  if (result.value !== WRITTEN) res.json(route.answer.parse(result.value))
  return undefined
}

/** Routes that need a role have somebody; the mount saw to it. */
export function someone({ actor }: { readonly actor: Face | undefined }): Face {
  if (actor === undefined) throw new Error('a route that needs a role was reached by nobody')
  return actor
}

/** Nobody signed in is told to sign in, or at the shell to give a name; somebody who may not is counted, and entered in the book. */
async function notEnough(
  edge: Edge,
  route: Route,
  actor: Face | undefined,
  atShell: boolean,
): Promise<Refusal> {
  if (actor === undefined) return { code: atShell ? 'session.shell' : 'session.none' }
  await edge.refused(actor.id, `${route.method.toUpperCase()} ${route.path}`)
  return { code: 'act.refused', facts: { role: actor.role, needs: route.needs } }
}

type Input = { readonly params: unknown; readonly query: unknown; readonly body: unknown }

function parse(route: Route, req: Request): Result<Input, Refusal> {
  const given = { params: req.params, query: req.query, body: (req.body ?? {}) as unknown }
  /* What devices said reaches us through agents: one odd character there must not cost the rest. */
  const agents = route.needs === 'agent'
  const odd = agents || route.anyText === true ? undefined : illegibleAt(given)
  if (odd !== undefined) {
    const where = [{ path: odd, problem: 'a character that is no text (NUL, or half of one)' }]
    return { ok: false, refusal: { code: 'input.invalid', more: { where } } }
  }
  const parts = {
    params: route.params.safeParse(given.params),
    query: route.query.safeParse(given.query),
    body: route.body.safeParse(agents ? madeLegible(given.body) : given.body),
  }
  const where = Object.entries(parts).flatMap(([part, parsed]) =>
    parsed.success ? [] : parsed.error.issues.map((issue) => problemOf(part, issue)),
  )
  if (where.length > 0) return { ok: false, refusal: { code: 'input.invalid', more: { where } } }
  return {
    ok: true,
    value: { params: parts.params.data, query: parts.query.data, body: parts.body.data },
  }
}

function problemOf(part: string, issue: z.core.$ZodIssue) {
  return { path: [part, ...issue.path.map(String)].join('.'), problem: issue.message }
}

declare module 'express-serve-static-core' {
  interface Locals {
    actor: Face | undefined
  }
}
