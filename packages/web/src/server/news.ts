/**
 * One event stream a browser, shared by its tabs: the tab that holds the lock listens and passes on
 * what it hears; when it closes, the next one takes over (Web Locks, BroadcastChannel).
 */
import type { News } from '@plain-slate/api'
import { contract, newsSchema } from '@plain-slate/api'

export type Word =
  | { readonly kind: 'news'; readonly news: News }
  /** News may have been missed: fetch all. */
  | { readonly kind: 'reset' }
  | { readonly kind: 'signed-off' }
  | { readonly kind: 'online'; readonly online: boolean }

const NAME = 'plain-slate-news'

/** Hears every word until the signal ends it, in whichever tab the stream lives. */
export function hearNews(hear: (word: Word) => void, signal: AbortSignal): void {
  const channel = new BroadcastChannel(NAME)
  channel.addEventListener('message', (event: MessageEvent<Word>) => hear(event.data))
  const tell = (word: Word) => {
    hear(word)
    if (!signal.aborted) channel.postMessage(word)
  }
  signal.addEventListener('abort', () => channel.close())
  navigator.locks
    .request(NAME, { signal }, () => lead(tell, signal))
    .catch((error: unknown) => {
      if (!signal.aborted) throw error
    })
}

/** Holds the stream open; resolves when this tab is told to end. */
function lead(tell: (word: Word) => void, signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    if (signal.aborted) return resolve()
    const source = new EventSource(contract.events.path)
    let lost = false
    source.addEventListener('hello', () => {
      if (lost) tell({ kind: 'reset' })
      lost = false
      tell({ kind: 'online', online: true })
    })
    source.addEventListener('news', (event: MessageEvent<string>) => {
      const news = newsSchema.safeParse(JSON.parse(event.data))
      if (news.success) tell({ kind: 'news', news: news.data })
    })
    source.addEventListener('reset', () => tell({ kind: 'reset' }))
    source.addEventListener('signed-off', () => tell({ kind: 'signed-off' }))
    source.addEventListener('error', () => {
      lost = true
      tell({ kind: 'online', online: false })
      /* Closed for good means refused, not away: the session may be over. */
      if (source.readyState === EventSource.CLOSED) tell({ kind: 'signed-off' })
    })
    signal.addEventListener('abort', () => {
      source.close()
      resolve()
    })
  })
}
