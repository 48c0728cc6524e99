/**
 * Threads beside the server's own, for what takes longer than anybody else should wait: one rehearses, one searches, so
 * that no search waits behind rehearsals. Each answers what it is asked one after the other.
 */
import { Worker } from 'node:worker_threads'
import type { Asked, AnswerTo } from './beside-worker.ts'

type Waiting = { readonly take: (done: never) => void; readonly lose: (why: Error) => void }
type Thread = { readonly worker: Worker; readonly waiting: Map<number, Waiting> }
const threads = new Map<Asked['kind'], Thread>()
let next = 1

/** A thread, begun when it is first asked, and again after a death. It keeps no process alive. */
function begin(kind: Asked['kind']): Thread {
  const worker = new Worker(new URL('./beside-thread.mjs', import.meta.url))
  const waiting = new Map<number, Waiting>()
  const lose = (why: Error) => {
    for (const one of waiting.values()) one.lose(why)
    waiting.clear()
    threads.delete(kind)
  }
  worker.on('message', ({ id, done }: { id: number; done: never }) => {
    waiting.get(id)?.take(done)
    waiting.delete(id)
    if (waiting.size === 0) worker.unref()
  })
  worker.on('error', (error) => lose(error instanceof Error ? error : new Error(String(error))))
  worker.on('exit', () => lose(new Error('the thread beside ended before its time')))
  const thread = { worker, waiting }
  threads.set(kind, thread)
  return thread
}

/** Asks the thread for such things. Rejects when it dies. */
export function askBeside<What extends Asked>(what: What): Promise<AnswerTo<What>> {
  const { worker, waiting } = threads.get(what.kind) ?? begin(what.kind)
  const id = next++
  return new Promise((take, lose) => {
    waiting.set(id, { take: take as Waiting['take'], lose })
    worker.ref()
    worker.postMessage({ id, what })
  })
}
