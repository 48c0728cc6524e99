/**
 * The running server as the shell tool asks it: found by the note in the data folder (./data, or --data
 * DIR), asked under the bench secret, which only who may read that folder has.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Contract, ParamsOf, Route } from '@plain-slate/api'
import { addressIn, contract, errorSchema } from '@plain-slate/api'
import type { z } from 'zod'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'

export type Input<R extends Route> = {
  readonly params?: ParamsOf<R>
  readonly query?: z.input<R['query']>
  readonly body?: z.input<R['body']>
}

/** Something that cannot be done, with its sentence. Caught once, where a command ends. */
export class Cannot extends Error {}

export const cannot = (text: string): Outcome => ({ code: 2, text, json: { error: text } })

export type Server = {
  /** Asks a route. Throws Cannot with the server's own sentence. */
  readonly call: <Name extends keyof Contract>(
    name: Name,
    input?: Input<Contract[Name]>,
  ) => Promise<z.output<Contract[Name]['answer']>>
  /** The same with the response as it comes, and any body. */
  readonly fetch: (name: keyof Contract, init: RequestInit, input?: object) => Promise<Response>
}

/** The server that runs from a data folder. Throws Cannot when none does. */
export function serverOf(data: string): Server {
  const { address, secret } = readNote(data)
  const send: Server['fetch'] = async (name, init, input = {}) => {
    const { params, query } = input as Input<Route>
    const path = addressIn(
      contract[name].path,
      (params ?? {}) as Record<string, string>,
      query ?? {},
    )
    const headers = new Headers(init.headers)
    headers.set('authorization', `Bearer ${secret}`)
    const response = await fetch(new URL(path, address), {
      method: contract[name].method.toUpperCase(),
      ...init,
      headers,
    }).catch(() => undefined)
    if (response === undefined) throw new Cannot(say('cli.no-server', { data }))
    if (response.ok) return response
    const refused = errorSchema.safeParse(await response.json().catch(() => undefined))
    const sentence = refused.success
      ? `${refused.data.sentence} ${refused.data.remedy}`
      : String(response.status)
    throw new Cannot(say('cli.refused', { sentence }))
  }
  return {
    fetch: send,
    async call(name, input = {}) {
      const route: Route = contract[name]
      const init =
        route.method === 'get'
          ? {}
          : {
              headers: { 'content-type': 'application/json' },
              body: JSON.stringify(input.body ?? {}),
            }
      const response = await send(name, init, input)
      return route.answer.parse(await response.json()) as z.output<Contract[typeof name]['answer']>
    },
  }
}

function readNote(data: string): { readonly address: string; readonly secret: string } {
  try {
    const note = JSON.parse(readFileSync(join(data, 'run.json'), 'utf8')) as { address: string }
    const secret = readFileSync(join(data, 'bench.secret'), 'utf8').trim()
    return { address: note.address, secret }
  } catch {
    throw new Cannot(say('cli.no-server', { data }))
  }
}
