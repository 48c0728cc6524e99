/**
 * Parsing what strangers can make large, in a thread of its own with a time of its own: the server's thread goes on
 * meanwhile, leases are renewed, and what does not end is ended. One text after the other.
 */
import { Worker } from 'node:worker_threads'
import type { DepotCatalogue, Family, Manifest, Result, Trial } from '@plain-slate/core'
import type { WrongPlace } from './family-file.ts'

export type ToParse =
  | { readonly kind: 'family'; readonly text: string }
  | {
      readonly kind: 'catalogue'
      readonly bytes: Uint8Array
      readonly keys: readonly { readonly name: string; readonly pem: string }[]
    }

/** A catalogue without its packages, and the trusted key that signed it; null: none did. */
export type CatalogueHead = Omit<DepotCatalogue, 'packages' | 'signature'> & {
  readonly packages: number
  readonly key: string | null
}

/** How long each may take, in ms: a text within its limits takes a small part of it. */
const FAMILY_MS = 10_000
const CATALOGUE_MS = 120_000

/** A family with what it would do. */
export type TriedFamily = { readonly family: Family; readonly trial: Trial }

/** Every place that is wrong with a family's file, or the family and its trial; `late`: it did not come to an end. */
export const parseFamily = (
  text: string,
  patienceMs = FAMILY_MS,
): Promise<Result<TriedFamily, readonly WrongPlace[]> | 'late'> =>
  beside({ kind: 'family', text }, patienceMs, () => undefined)

/** A catalogue's head and its packages; `late`: it did not come to an end. */
export async function parseCatalogue(
  what: Omit<Extract<ToParse, { kind: 'catalogue' }>, 'kind'>,
  patienceMs = CATALOGUE_MS,
): Promise<
  | Result<
      { readonly head: CatalogueHead; readonly packages: readonly Manifest[] },
      { readonly path: string; readonly problem: string }
    >
  | 'late'
> {
  const packages: Manifest[] = []
  type Done = Result<CatalogueHead, { readonly path: string; readonly problem: string }>
  const done = await beside<Done, Manifest[]>({ kind: 'catalogue', ...what }, patienceMs, (part) =>
    packages.push(...part),
  )
  if (done === 'late' || !done.ok) return done
  return { ok: true, value: { head: done.value, packages } }
}

let before: Promise<unknown> = Promise.resolve()

/** Begins the thread once the one before has ended. Rejects where the thread itself breaks. */
function beside<Done, Part = never>(
  what: ToParse,
  patienceMs: number,
  onPart: (part: Part) => void,
): Promise<Done | 'late'> {
  const mine = before.then(() => parsed<Done, Part>(what, patienceMs, onPart))
  before = mine.catch(() => undefined)
  return mine
}

function parsed<Done, Part>(
  what: ToParse,
  patienceMs: number,
  onPart: (part: Part) => void,
): Promise<Done | 'late'> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./parse-thread.mjs', import.meta.url), { workerData: what })
    const late = setTimeout(() => end('late'), patienceMs)
    function end(done: Done | 'late') {
      clearTimeout(late)
      resolve(done)
      void worker.terminate()
    }
    worker.on('message', (said: { readonly part: Part } | { readonly done: Done }) => {
      if ('part' in said) onPart(said.part)
      else end(said.done)
    })
    worker.on('error', (error) => {
      clearTimeout(late)
      reject(error instanceof Error ? error : new Error(String(error)))
    })
  })
}
