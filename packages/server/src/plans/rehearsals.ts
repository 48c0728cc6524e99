/**
 * Rehearsals, in a thread beside the server's own: some hundred cuts a plan would hold up everybody who asks
 * for anything meanwhile. The same plan on the same device is rehearsed once.
 */
import { Worker } from 'node:worker_threads'
import type {
  CutClass,
  DeviceFacts,
  DeviceModel,
  Family,
  Manifest,
  Plan,
  ReadDevice,
  StopReason,
} from '@plain-slate/core'
import type { AtPort } from '../devices/case.ts'

export type ToRehearse = {
  readonly family: Family
  readonly read: ReadDevice
  readonly manifests: readonly Manifest[]
  readonly plan: Plan
}
/** What was not read of a device and assumed: partitions, and facts with what was assumed of each. */
export type Assumed = {
  readonly parts: readonly string[]
  readonly facts: Readonly<Record<string, string | number>>
}

/** Where a rehearsal stopped: at which command, and why. */
type Stopped = { readonly command: number; readonly why: StopReason }

export type Rehearsed = {
  /** Null: it came to its end. */
  readonly stopped: Stopped | null
  readonly assumed: Assumed
  /** The worst that a cut leaves, by the step's number. */
  readonly worst: readonly (readonly [number, CutClass])[]
  readonly end: DeviceModel
  /** What the device says of itself at the end. */
  readonly says: DeviceFacts
}

/** Rehearsals of the plans asked for last: a page asks for the same plan again and again. */
const known = new Map<string, Promise<Rehearsed>>()
const KNOWN_MOST = 64

/** Rehearses a plan to its end and with its cuts. `digest`: the plan's own. Rejects when the thread dies. */
export function rehearsed(found: AtPort, plan: Plan, digest: string): Promise<Rehearsed> {
  const { facts, digests } = found.read
  const key = `${digest} ${JSON.stringify(facts)} ${JSON.stringify([...digests])}`
  const before = known.get(key)
  if (before !== undefined) return before
  const { family, read, at } = found
  const made = ask({ family, read, manifests: at.shelf.map(({ manifest }) => manifest), plan })
  made.catch(() => known.delete(key))
  const [oldest] = known.keys()
  if (known.size >= KNOWN_MOST && oldest !== undefined) known.delete(oldest)
  known.set(key, made)
  return made
}

type Waiting = { readonly take: (done: Rehearsed) => void; readonly lose: (why: Error) => void }
let thread: { readonly worker: Worker; readonly waiting: Map<number, Waiting> } | undefined
let next = 1

/** The one thread, begun when it is first asked, and again after a death. It keeps no process alive. */
function begin(): NonNullable<typeof thread> {
  const worker = new Worker(new URL('./rehearse-thread.mjs', import.meta.url))
  const waiting = new Map<number, Waiting>()
  const lose = (why: Error) => {
    for (const one of waiting.values()) one.lose(why)
    waiting.clear()
    thread = undefined
  }
  worker.on('message', ({ id, done }: { id: number; done: Rehearsed }) => {
    waiting.get(id)?.take(done)
    waiting.delete(id)
    if (waiting.size === 0) worker.unref()
  })
  worker.on('error', (error) => lose(error instanceof Error ? error : new Error(String(error))))
  worker.on('exit', () => lose(new Error('the rehearsal ended before its time')))
  thread = { worker, waiting }
  return thread
}

function ask(what: ToRehearse): Promise<Rehearsed> {
  const { worker, waiting } = thread ?? begin()
  const id = next++
  return new Promise((take, lose) => {
    waiting.set(id, { take, lose })
    worker.ref()
    worker.postMessage({ id, ...what })
  })
}
