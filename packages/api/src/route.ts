/**
 * What a route is: one declared object from which the server mounts its handler, the browser types
 * its call, OpenAPI is written and the table of rights is tested. Reads nothing; gives the shape.
 */
import type { Need } from '@plain-slate/core'
import { z } from 'zod'

/** What leaves: JSON after a schema, or a stream of the named kind that no schema describes. */
export type AnswerKind = 'json' | 'csv' | 'jsonl' | 'events' | 'html' | 'pdf' | 'calendar' | 'none'

export type Route<
  Params extends z.ZodType = z.ZodType,
  Query extends z.ZodType = z.ZodType,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
> = {
  readonly method: 'get' | 'post' | 'patch' | 'delete'
  /** With `{name}` for parameters, as OpenAPI writes them. */
  readonly path: string
  /** The least role; `nobody` is open to whoever reaches the address. */
  readonly needs: Need
  /** True when the bench secret of the data folder may stand in for a person. */
  readonly secret?: boolean
  /** True where names of files come as they are: the handler keeps them escaped, whatever is in them. */
  readonly anyText?: boolean
  readonly summary: string
  readonly params: Params
  readonly query: Query
  readonly body: Body
  readonly answer: Answer
  readonly answers: AnswerKind
}

const nothing = z.object({})

type Draft<
  P extends z.ZodType,
  Q extends z.ZodType,
  B extends z.ZodType,
  A extends z.ZodType,
> = Pick<Route, 'method' | 'path' | 'needs' | 'secret' | 'anyText' | 'summary'> & {
  readonly params?: P
  readonly query?: Q
  readonly body?: B
  readonly answer?: A
  readonly answers?: AnswerKind
}

/** Declares a route; parts left out are empty, and an answer without a schema is none. */
export function route<
  P extends z.ZodType = typeof nothing,
  Q extends z.ZodType = typeof nothing,
  B extends z.ZodType = typeof nothing,
  A extends z.ZodType = typeof nothing,
>(draft: Draft<P, Q, B, A>): Route<P, Q, B, A> {
  return {
    ...draft,
    params: draft.params ?? (nothing as unknown as P),
    query: draft.query ?? (nothing as unknown as Q),
    body: draft.body ?? (nothing as unknown as B),
    answer: draft.answer ?? (nothing as unknown as A),
    answers: draft.answers ?? (draft.answer === undefined ? 'none' : 'json'),
  }
}

export type ParamsOf<R extends Route> = z.output<R['params']>
export type QueryOf<R extends Route> = z.output<R['query']>
export type BodyOf<R extends Route> = z.output<R['body']>
export type AnswerOf<R extends Route> = z.output<R['answer']>
