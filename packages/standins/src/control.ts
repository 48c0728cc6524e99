/**
 * The control side: HTTP on loopback under a secret. `GET /devices` lists, `POST /act` does what hands
 * would do. Bodies are small; anything else is refused without being read.
 */
import { createServer } from 'node:http'
import type { IncomingMessage, Server, ServerResponse } from 'node:http'
import { standInActSchema } from '@plain-slate/api'
import type { Bench } from './bench.ts'

const BODY_MAX = 4096

/** The server; not listening yet. */
export function controlServer(bench: Bench, secret: string): Server {
  return createServer((req, res) => {
    void answer(bench, secret, req, res).catch(() => res.destroy())
  })
}

async function answer(
  bench: Bench,
  secret: string,
  req: IncomingMessage,
  res: ServerResponse,
): Promise<void> {
  if (!isOurs(req)) return send(res, 421, { done: false, sentence: 'no' })
  if (req.headers.authorization !== `Bearer ${secret}`)
    return send(res, 401, { done: false, sentence: 'no' })
  if (req.method === 'GET' && req.url === '/devices') return send(res, 200, bench.shown())
  if (req.method !== 'POST' || req.url !== '/act')
    return send(res, 404, { done: false, sentence: 'no' })
  const act = standInActSchema.safeParse(await bodyOf(req))
  if (!act.success) return send(res, 400, { done: false, sentence: 'This is no act of hands.' })
  const sentence = bench.act(act.data)
  send(res, 200, { done: sentence === undefined, sentence: sentence ?? '' })
}

/** A page of another site that reached loopback under its own name is not answered. */
function isOurs({ headers: { host = '' }, socket: { localPort } }: IncomingMessage): boolean {
  return ['127.0.0.1', 'localhost'].some((name) => host.toLowerCase() === `${name}:${localPort}`)
}

async function bodyOf(req: IncomingMessage): Promise<unknown> {
  let text = ''
  for await (const part of req) {
    text += String(part)
    if (text.length > BODY_MAX) return undefined
  }
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}

function send(res: ServerResponse, status: number, body: object): void {
  res.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body))
}
