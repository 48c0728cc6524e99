/**
 * `prove FILE…`: reads the archives of one package here, without a server, and holds every claim of its
 * manifest against their bytes. The manifest lies in one of them.
 */
import { createReadStream } from 'node:fs'
import { basename } from 'node:path'
import { readTar, shownName } from '@plain-slate/archives'
import type { Listing } from '@plain-slate/archives'
import type { Manifest, ProofClaim, ReadArchive } from '@plain-slate/core'
import { manifestIn, prove as proofOf, whyUnread } from '@plain-slate/core'
import { refusalWords } from '@plain-slate/texts'
import { oddLines, refusedLines } from './archive-words.ts'
import { readArgs } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { Cannot } from './cannot.ts'

const CHUNK_BYTES = 1024 * 1024
const MANIFEST = 'manifest.json'
const MANIFEST_BYTES = 1024 * 1024

type Here = { readonly file: string; readonly listing: Listing }

export async function prove(args: readonly string[]): Promise<Outcome> {
  const { files, option } = readArgs(args, ['sha256'])
  if (files.length === 0) throw new Cannot(say('cli.usage'))
  const here: Here[] = []
  for (const file of files) {
    const reading = await read(file)
    if (!reading.ok) {
      const refusal = { ...reading.refusal, entry: shownName(reading.refusal.entry) }
      const text = `${basename(file)}: ${refusalWords(say, refusal)}`
      return { code: 1, text, json: { refused: { file: basename(file), ...refusal } } }
    }
    here.push({ file, listing: reading.listing })
  }
  const { manifest, first } = await manifestOf(here)
  const outside = option('sha256')
  const proof = proofOf(
    manifest,
    first,
    here.map((one) => asRead(one, one.listing.sha256 === first ? outside : undefined)),
  )
  const title = say('package.title', {
    title: manifest.title,
    state: say(`package.state.${proof.state}`),
  })
  const refused = here.flatMap(({ listing }) => refusedIn(listing))
  const odd = here.flatMap(({ listing: { endMark, behind } }) =>
    oddLines({ endMark, behind: behind ?? null }),
  )
  const text = [title, ...proof.claims.map(line), ...refusedLines(refused), ...odd].join('\n')
  const json = { package: manifest.id, state: proof.state, claims: proof.claims, refused }
  const good = proof.state === 'whole' || proof.state === 'published'
  return { code: good ? 0 : 1, text, json }
}

const read = (file: string) =>
  readTar(createReadStream(file, { highWaterMark: CHUNK_BYTES })).catch(() => {
    throw new Cannot(say('cli.no-file', { file }))
  })

const usable = ({ listing }: Here) => listing.entries.filter((entry) => entry.refused === undefined)

/** Refused entries, their names escaped. */
const refusedIn = ({ entries }: Listing) =>
  entries.flatMap(({ name, offset, refused }) =>
    refused === undefined ? [] : [{ name: shownName(name), offset, refused }],
  )

const asRead = (one: Here, told: string | undefined): ReadArchive => ({
  outside: told === undefined ? [] : [{ sha256: told, source: 'person', where: '', at: '' }],
  name: basename(one.file),
  sha256: one.listing.sha256,
  entries: usable(one).map(({ name, offset, size, sha256 }) => ({ name, offset, size, sha256 })),
  refusedEntries: one.listing.entries.length - usable(one).length,
})

async function manifestOf(
  here: readonly Here[],
): Promise<{ readonly manifest: Manifest; readonly first: string }> {
  for (const one of here) {
    const entry = usable(one).find(({ name, size }) => name === MANIFEST && size <= MANIFEST_BYTES)
    if (entry === undefined) continue
    const read = manifestIn(await textOf(one.file, entry))
    if (read.ok) return { manifest: read.value, first: one.listing.sha256 }
    throw cannotBe(say('archive.trouble', { why: shownName(whyUnread(read.refusal)) }))
  }
  throw cannotBe(say('cli.no-manifest'))

  /** With the refused entries by name: one of them may be why. */
  function cannotBe(why: string): Cannot {
    const refused = refusedLines(here.flatMap(({ listing }) => refusedIn(listing)))
    return new Cannot([why, ...refused].join('\n'))
  }
}

/** The text of an entry; one of no bytes is an empty text. */
async function textOf(
  file: string,
  { offset, size }: { readonly offset: number; readonly size: number },
): Promise<string> {
  if (size === 0) return ''
  const parts: Buffer[] = []
  const range = { start: offset, end: offset + size - 1 }
  for await (const part of createReadStream(file, range)) parts.push(part as Buffer)
  return Buffer.concat(parts).toString('utf8')
}

function line(claim: ProofClaim): string {
  const about =
    claim.claim === 'image'
      ? say('package.claim.image', { partition: claim.partition })
      : say(`package.claim.${claim.claim}`, { file: claim.file })
  const held =
    claim.claim === 'published' && claim.held === 'missing'
      ? say('held.published.missing')
      : say(`held.${claim.held}`)
  const wanted =
    'wanted' in claim && claim.wanted !== undefined && claim.held !== 'holds'
      ? `, ${say('package.wanted', { wanted: claim.wanted })}`
      : ''
  return `  ${about}: ${held}${wanted}`
}
