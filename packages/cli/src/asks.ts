/** The running server as commands ask it: calls of the contract. */
import type { Contract, ParamsOf, Route } from '@plain-slate/api'
import type { z } from 'zod'

export type Input<R extends Route> = {
  readonly params?: ParamsOf<R>
  readonly query?: z.input<R['query']>
  readonly body?: z.input<R['body']>
}

export type Server = {
  /** Asks a route. Throws Cannot with the server's own sentence. */
  readonly call: <Name extends keyof Contract>(
    name: Name,
    input?: Input<Contract[Name]>,
  ) => Promise<z.output<Contract[Name]['answer']>>
  /** The same with the response as it comes, and any body. */
  readonly fetch: (name: keyof Contract, init: RequestInit, input?: object) => Promise<Response>
}
