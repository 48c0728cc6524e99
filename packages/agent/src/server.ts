/**
 * The server as the agent sees it: calls of the contract under the bench secret, and the event stream
 * that says when to look again. A server that is away is no error here: the agent goes on and tries later.
 */
import type { AnswerOf, BodyOf, Contract } from '@plain-slate/api'
import { contract } from '@plain-slate/api'
import { pause } from '@plain-slate/link'
import { createParser } from 'eventsource-parser'

type AgentRoute =
  'agentWork' | 'agentPorts' | 'agentLook' | 'agentClaim' | 'agentRenew' | 'agentReport'

export type Called<Answer> =
  | { readonly kind: 'answered'; readonly answer: Answer }
  /** Refused, with the contract's code. */
  | { readonly kind: 'refused'; readonly code: string }
  | { readonly kind: 'away' }

/** What the agent may say to the server, each by the contract's name. Nothing here throws. */
export type ServerSide = {
  readonly call: <Name extends AgentRoute>(
    name: Name,
    body: BodyOf<Contract[Name]>,
  ) => Promise<Called<AnswerOf<Contract[Name]>>>
  /** Calls `look` on news, and when the stream comes (back) up; ends with the signal. */
  readonly follow: (look: () => void, signal: AbortSignal) => Promise<void>
}

const PATIENCE_MS = 10_000
const AGAIN_MS = 500

/**
 * The server at an address. A call that is not answered within ten seconds, or with a fault of the server's
 * own, counts as away: it is tried again. Only a refusal by the contract is one.
 */
export function serverSide(address: string, secret: string, agent: string): ServerSide {
  const headers = { authorization: `Bearer ${secret}`, 'content-type': 'application/json' }
  return {
    async call(name, body) {
      const route = contract[name]
      try {
        const response = await fetch(new URL(route.path, address), {
          method: route.method.toUpperCase(),
          headers,
          signal: AbortSignal.timeout(PATIENCE_MS),
          ...(route.method === 'get' ? {} : { body: JSON.stringify(body) }),
        })
        const json: unknown = await response.json()
        if (response.ok)
          return {
            kind: 'answered',
            answer: route.answer.parse(json) as AnswerOf<Contract[typeof name]>,
          }
        const code = String((json as { code?: unknown }).code ?? response.status)
        return code === 'database.away' || response.status >= 500
          ? { kind: 'away' }
          : { kind: 'refused', code }
      } catch {
        return { kind: 'away' }
      }
    },
    async follow(look, signal) {
      const url = new URL(contract.agentEvents.path, address)
      url.searchParams.set('agent', agent)
      while (!signal.aborted) {
        await listen(url, headers, look, signal).catch(() => undefined)
        await pause(AGAIN_MS, signal)
      }
    },
  }
}

/** One stream until it breaks; a server that is away breaks it at once. */
async function listen(
  url: URL,
  headers: Readonly<Record<string, string>>,
  look: () => void,
  signal: AbortSignal,
): Promise<void> {
  const response = await fetch(url, { headers, signal })
  if (!response.ok || response.body === null) return
  look()
  const events = createParser({ onEvent: () => look() })
  for await (const part of response.body.pipeThrough(new TextDecoderStream())) events.feed(part)
}
