/**
 * Asking the server: one function for every route of the contract, typed by its schemas. A refusal
 * comes as Refused with the server's own sentence; no answer at all as Refused too, with ours.
 */
import type { ApiError, Contract, ParamsOf, Route, RouteName } from '@plain-slate/api'
import { addressIn, contract, errorSchema } from '@plain-slate/api'
import { speaker } from '@plain-slate/texts'
import type { z } from 'zod'

/** The error shape, or the code `offline` when nothing answered. */
export type Trouble = Omit<ApiError, 'code'> & { readonly code: ApiError['code'] | 'offline' }

/** A refusal as an exception, which is how the query library takes it. */
export class Refused extends Error {
  override readonly name = 'Refused'
  readonly trouble: Trouble
  constructor(trouble: Trouble) {
    super(trouble.sentence)
    this.trouble = trouble
  }
}

export type Input<R extends Route> = {
  readonly params?: ParamsOf<R>
  readonly query?: z.input<R['query']>
  readonly body?: z.input<R['body']>
}
export type Answer<Name extends RouteName> = z.output<Contract[Name]['answer']>
export type InputOf<Name extends RouteName> = Input<Contract[Name]>

/** Calls a route; throws Refused. */
export async function call<Name extends RouteName>(
  name: Name,
  input: InputOf<Name> = {},
): Promise<Answer<Name>> {
  const route: Route = contract[name]
  const response = await send(route, addressOf(name, input), input.body)
  const body: unknown = await response.json().catch(() => undefined)
  if (response.ok) return route.answer.parse(body) as Answer<Name>
  throw new Refused(refusalIn(body))
}

/** The refusal in an answer; ours where the answer holds none. */
function refusalIn(body: unknown): Trouble {
  const trouble = errorSchema.safeParse(body)
  return trouble.success ? trouble.data : offline()
}

/** The same of an answer's text. */
export function troubleIn(text: string): Trouble {
  try {
    return refusalIn(JSON.parse(text))
  } catch {
    return offline()
  }
}

/** The address of a route with its parameters and query, for links and downloads. */
export function addressOf<Name extends RouteName>(name: Name, input: InputOf<Name> = {}): string {
  const params = (input.params ?? {}) as Record<string, string>
  return addressIn(contract[name].path, params, input.query ?? {})
}

async function send(route: Route, address: string, body: unknown): Promise<Response> {
  const init: RequestInit =
    route.method === 'get'
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body ?? {}) }
  try {
    return await fetch(address, { method: route.method.toUpperCase(), ...init })
  } catch {
    throw new Refused(offline())
  }
}

function offline(): Trouble {
  const say = speaker('en-GB')
  return {
    code: 'offline',
    sentence: say('error.offline'),
    kept: say('error.offline.kept'),
    remedy: say('error.offline.remedy'),
    requestId: '',
  }
}

/** The trouble in an error of the query library. */
export function troubleOf(error: unknown): Trouble {
  return error instanceof Refused ? error.trouble : offline()
}
