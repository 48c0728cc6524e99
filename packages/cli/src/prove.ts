/**
 * `prove FILE…`: reads the archives of one package here, without a server, and holds every claim of its
 * manifest against their bytes. The manifest lies in one of them.
 */
import { createReadStream } from 'node:fs'
import { basename } from 'node:path'
import { readTar } from '@plain-slate/archives'
import type { Listing } from '@plain-slate/archives'
import type { Manifest, ProofClaim, ReadArchive } from '@plain-slate/core'
import { prove as proofOf, readManifest } from '@plain-slate/core'
import { readArgs } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { Cannot } from './server.ts'

const CHUNK_BYTES = 1024 * 1024
const MANIFEST = 'manifest.json'
const MANIFEST_BYTES = 1024 * 1024

type Here = { readonly file: string; readonly listing: Listing }

export async function prove(args: readonly string[]): Promise<Outcome> {
  const { files } = readArgs(args)
  if (files.length === 0) throw new Cannot(say('cli.usage'))
  const here: Here[] = []
  for (const file of files) {
    const reading = await read(file)
    if (!reading.ok) {
      const { rule, entry, offset } = reading.refusal
      const why = say(`rule.${rule}`)
      const text = `${basename(file)}: ${say('archive.state.refused', { why, entry, offset })}`
      return { code: 1, text, json: { refused: { file: basename(file), ...reading.refusal } } }
    }
    here.push({ file, listing: reading.listing })
  }
  const { manifest, first } = await manifestIn(here)
  const proof = proofOf(manifest, first, here.map(asRead))
  const title = say('package.title', {
    title: manifest.title,
    state: say(`package.state.${proof.state}`),
  })
  const text = [title, ...proof.claims.map(line)].join('\n')
  const json = { package: manifest.id, state: proof.state, claims: proof.claims }
  return { code: proof.state === 'proven' ? 0 : 1, text, json }
}

const read = (file: string) =>
  readTar(createReadStream(file, { highWaterMark: CHUNK_BYTES })).catch(() => {
    throw new Cannot(say('cli.no-file', { file }))
  })

const usable = ({ listing }: Here) => listing.entries.filter((entry) => entry.refused === undefined)

const asRead = (one: Here): ReadArchive => ({
  name: basename(one.file),
  sha256: one.listing.sha256,
  entries: usable(one).map(({ name, offset, size, sha256 }) => ({ name, offset, size, sha256 })),
  refusedEntries: one.listing.entries.length - usable(one).length,
})

async function manifestIn(
  here: readonly Here[],
): Promise<{ readonly manifest: Manifest; readonly first: string }> {
  for (const one of here) {
    const entry = usable(one).find(({ name, size }) => name === MANIFEST && size <= MANIFEST_BYTES)
    if (entry === undefined) continue
    const parts: Buffer[] = []
    const range = { start: entry.offset, end: entry.offset + entry.size - 1 }
    for await (const part of createReadStream(one.file, range)) parts.push(part as Buffer)
    const manifest = readManifest(parsed(Buffer.concat(parts).toString('utf8')))
    if (manifest.ok) return { manifest: manifest.value, first: one.listing.sha256 }
    const { refusal } = manifest
    const why = refusal.kind === 'newer' ? refusal.format : `${refusal.path}: ${refusal.problem}`
    throw new Cannot(say('archive.trouble', { why }))
  }
  throw new Cannot(say('cli.no-manifest'))
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}

function line(claim: ProofClaim): string {
  const about =
    claim.claim === 'image'
      ? say('package.claim.image', { partition: claim.partition })
      : say(`package.claim.${claim.claim}`, { file: claim.file })
  const wanted =
    'wanted' in claim && claim.held !== 'holds'
      ? `, ${say('package.wanted', { wanted: claim.wanted })}`
      : ''
  return `  ${about}: ${say(`held.${claim.held}`)}${wanted}`
}
