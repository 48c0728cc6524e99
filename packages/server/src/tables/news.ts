/**
 * PostgreSQL's own notifications, saying only {topic, id, version}. Sent inside the transaction that
 * changed the thing, so that they go out with its commit or not at all.
 */
import type { News } from '@plain-slate/api'
import { newsSchema } from '@plain-slate/api'
import pg from 'pg'
import type { Database } from './database.ts'

const CHANNEL = 'plain_slate_news'
const RETRY_MS = 500

type Topic = News['topic']

/** Tells every server of this database what changed; of several topics at once. */
export async function tell(
  db: Database,
  topics: Topic | readonly Topic[],
  id: string,
  version: number,
): Promise<void> {
  const news = [topics].flat().map((topic): News => ({ topic, id, version }))
  const each = news.map(() => 'pg_notify(?, ?)').join(', ')
  await db.raw(
    `select ${each}`,
    news.flatMap((one) => [CHANNEL, JSON.stringify(one)]),
  )
}

/**
 * Listens until the signal ends it. When the connection is lost it comes back by itself and calls
 * `onGap`, since news may have been missed meanwhile.
 */
export function listen(
  url: string,
  on: { readonly news: (news: News) => void; readonly gap: () => void },
  signal: AbortSignal,
): void {
  let first = true
  const again = () => {
    if (!signal.aborted) setTimeout(connect, RETRY_MS).unref()
  }
  const connect = () => {
    if (signal.aborted) return
    const client = new pg.Client({ connectionString: url, application_name: 'plain-slate news' })
    const stop = () => void client.end().catch(() => undefined)
    let over = false
    const lost = () => {
      if (over) return
      over = true
      signal.removeEventListener('abort', stop)
      stop()
      again()
    }
    signal.addEventListener('abort', stop)
    client.on('error', lost)
    client.on('end', lost)
    client.on('notification', (message) => {
      const parsed = newsSchema.safeParse(JSON.parse(message.payload ?? 'null'))
      if (parsed.success) on.news(parsed.data)
    })
    client
      .connect()
      .then(() => client.query(`listen ${CHANNEL}`))
      .then(() => {
        if (!first) on.gap()
        first = false
      })
      .catch(lost)
  }
  connect()
}
