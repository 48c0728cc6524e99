/**
 * One event stream: server-sent events (WHATWG HTML) with a heartbeat, ended when its session is over
 * or the server drains.
 */
import type { Request, Response } from 'express'
import type { Face } from '@plain-slate/api'
import type { Database } from '../tables/database.ts'
import { sessionLives } from '../tables/sessions.ts'
import type { Hub, Subscriber, Word } from './hub.ts'

const HEARTBEAT_MS = 20_000
const SESSION_CHECK_MS = 60_000
/** A subscriber that does not read is let go when this much waits for it. */
const BACKLOG_BYTES = 256 * 1024

/** What streams come from: who listens, and where sessions are looked up. */
type Streams = { readonly hub: Hub; readonly db: Database }

/** Streams until the browser, the session or the server ends it; false when too many are open. */
export function stream(from: Streams, actor: Face, req: Request, res: Response): boolean {
  if (!streamTo(from, { personId: actor.id, role: actor.role }, res)) return false
  const check = setInterval(() => {
    sessionLives(from.db, req.sessionID)
      .then((lives) => {
        if (!lives) res.end('event: signed-off\ndata: {}\n\n')
      })
      .catch(() => res.end())
  }, SESSION_CHECK_MS)
  res.on('close', () => clearInterval(check))
  return true
}

/** The stream itself, for a person or an agent. */
export function streamTo(
  from: Streams,
  who: Pick<Subscriber, 'personId' | 'role'>,
  res: Response,
): boolean {
  const leave = from.hub.subscribe({
    ...who,
    hear: (word) => {
      if (res.writableLength > BACKLOG_BYTES) res.destroy()
      else if (word.kind === 'bye') res.end()
      else res.write(frame(word))
    },
  })
  if (leave === undefined) return false
  res.writeHead(200, { 'content-type': 'text/event-stream', 'x-accel-buffering': 'no' })
  res.write('retry: 1000\n\nevent: hello\ndata: {}\n\n')
  const beat = setInterval(() => res.write(': beat\n\n'), HEARTBEAT_MS)
  res.on('close', () => {
    clearInterval(beat)
    leave()
  })
  return true
}

function frame(word: Word): string {
  if (word.kind !== 'news') return 'event: reset\ndata: {}\n\n'
  return `event: news\ndata: ${JSON.stringify(word.news)}\n\n`
}
