/**
 * The thread that parses what strangers can make large, for one text: a family's file, a depot's catalogue with its
 * signature. What is large goes back in parts, so that whoever waits does nothing for long at a stretch.
 */
import { createPublicKey, verify } from 'node:crypto'
import { parentPort, workerData } from 'node:worker_threads'
import type { DepotCatalogue, Result } from '@plain-slate/core'
import {
  TOO_DEEP,
  isDeeper,
  ok,
  readCatalogue,
  refuse,
  signedText,
  trialOf,
} from '@plain-slate/core'
import type { WrongPlace } from './family-file.ts'
import { readFamily } from './family-file.ts'
import type { CatalogueHead, ToParse, TriedFamily } from './parse-beside.ts'

/** Packages of one part. */
const AT_ONCE = 100

const what = workerData as ToParse
parentPort?.postMessage({
  done: what.kind === 'family' ? familyIn(what.text) : catalogueIn(what),
})

function familyIn(text: string): Result<TriedFamily, readonly WrongPlace[]> {
  const read = readFamily(text)
  return read.ok ? ok({ family: read.value, trial: trialOf(read.value) }) : read
}

function catalogueIn({
  bytes,
  keys,
}: Extract<ToParse, { kind: 'catalogue' }>): Result<
  CatalogueHead,
  { path: string; problem: string }
> {
  if (isDeeper(bytes)) return refuse({ path: '', problem: TOO_DEEP })
  const read = readCatalogue(Buffer.from(bytes).toString('utf8'))
  if (!read.ok) return read
  const { packages, signature: _, ...head } = read.value
  for (let from = 0; from < packages.length; from += AT_ONCE)
    parentPort?.postMessage({ part: packages.slice(from, from + AT_ONCE) })
  return ok({ ...head, packages: packages.length, key: signerOf(read.value, keys) ?? null })
}

/** The trusted key that signed it; undefined: none did. */
function signerOf(
  catalogue: DepotCatalogue,
  keys: Extract<ToParse, { kind: 'catalogue' }>['keys'],
): string | undefined {
  const text = Buffer.from(signedText(catalogue))
  const signature = Buffer.from(catalogue.signature, 'base64')
  return keys.find(({ pem }) => {
    try {
      const key = createPublicKey(pem)
      return key.asymmetricKeyType === 'ed25519' && verify(null, text, key, signature)
    } catch {
      return false
    }
  })?.name
}
