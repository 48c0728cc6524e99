/**
 * Rehearsals, in the thread beside: some hundred cuts a plan would hold up everybody who asks for anything meanwhile.
 * The same plan on the same device is rehearsed once.
 */
import type { Plan } from '@plain-slate/core'
import type { AtPort } from '../devices/case.ts'
import { manifestsFor } from '../devices/case.ts'
import { askBeside } from './beside.ts'
import type { Rehearsed } from './beside-worker.ts'

export type { Assumed, Rehearsed } from './beside-worker.ts'

/** Rehearsals of the plans asked for last: a page asks for the same plan again and again. */
const known = new Map<string, Promise<Rehearsed>>()
/** Those that are done. */
const done = new Map<string, Rehearsed>()
const KNOWN_MOST = 200

const keyOf = ({ read: { facts, digests } }: AtPort, digest: string): string =>
  `${digest} ${JSON.stringify(facts)} ${JSON.stringify([...digests])}`

/** `who` waits: told once of each rehearsal, however often it asks meanwhile. */
type Aside = { readonly digest: string; readonly who: string; readonly then: () => void }
/** Who is to be told of which rehearsal. */
const told = new Set<string>()

/** The rehearsal of a plan, if it is done; else it is begun, and `then` is called when it is. */
export function rehearseAside(
  found: AtPort,
  plan: Plan,
  { digest, who, then }: Aside,
): Rehearsed | undefined {
  const key = keyOf(found, digest)
  const end = done.get(key)
  const waits = `${who} ${key}`
  if (end === undefined && !told.has(waits)) {
    told.add(waits)
    rehearsed(found, plan, digest)
      .then(then, () => undefined)
      .finally(() => told.delete(waits))
  }
  return end
}

/** Rehearses a plan to its end and with its cuts. Rejects when the thread dies. */
export function rehearsed(found: AtPort, plan: Plan, digest: string): Promise<Rehearsed> {
  const key = keyOf(found, digest)
  const before = known.get(key)
  if (before !== undefined) return before
  const { family, read } = found
  const made = askBeside({ kind: 'rehearse', family, read, manifests: manifestsFor(found), plan })
  made.then(
    (end) => done.set(key, end),
    () => known.delete(key),
  )
  const [oldest] = known.keys()
  if (known.size >= KNOWN_MOST && oldest !== undefined) {
    known.delete(oldest)
    done.delete(oldest)
  }
  known.set(key, made)
  return made
}
