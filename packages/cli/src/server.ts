/**
 * The running server as the shell tool asks it: found by the note in the data folder (./data, or --data
 * DIR). It is read under the bench secret, which only who may read that folder has; acts are a person's.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Contract, Route } from '@plain-slate/api'
import { addressIn, contract, errorSchema } from '@plain-slate/api'
import type { z } from 'zod'
import { shownAs } from './as.ts'
import type { Input, Server } from './asks.ts'
import { Cannot } from './cannot.ts'
import { say } from './outcome.ts'

/** The server that runs from a data folder, asked under the name of whoever is given. Throws Cannot when none runs. */
export function serverOf({
  data,
  as,
}: {
  readonly data: string
  readonly as?: string | undefined
}): Server {
  const { address, secret } = readNote(data)
  const under = (shown: () => Promise<string>) => serverAt({ data, address, shown })
  let named: Promise<string> | undefined
  return under(() => {
    named ??= shownAs(as, secret, (shown) => under(() => Promise.resolve(shown)))
    return named
  })
}

type At = {
  readonly data: string
  readonly address: string
  /** Asked with each call; the first finds out who asks. */
  readonly shown: () => Promise<string>
}

function serverAt(at: At): Server {
  const send: Server['fetch'] = async (name, init, input = {}) => {
    const { params, query } = input as Input<Route>
    const path = addressIn(
      contract[name].path,
      (params ?? {}) as Record<string, string>,
      query ?? {},
    )
    const headers = new Headers(init.headers)
    headers.set('authorization', `Bearer ${await at.shown()}`)
    const response = await fetch(new URL(path, at.address), {
      method: contract[name].method.toUpperCase(),
      ...init,
      headers,
    }).catch(() => undefined)
    if (response === undefined) throw new Cannot(say('cli.no-server', { data: at.data }))
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
