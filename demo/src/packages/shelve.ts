/** Shelving the demo's packages: sent to the running server as anybody would send them. */
import { request as open } from 'node:http'
import { Readable } from 'node:stream'
import type { ApiError } from '@plain-slate/api'
import { tarOf } from '@plain-slate/archives'
import type { ImageFacts } from '@plain-slate/core'
import { catalogueOf } from '@plain-slate/core'
import { DEMO_DEVICES } from '../devices/devices.ts'
import { buildPackage, digestOfVolume } from './build.ts'
import type { Volume } from './build.ts'
import { DEMO_PACKAGES, ON_DEVICES_ONLY } from './all.ts'
import { DEPOT, DEPOT_NUMBER, demoCatalogue } from './catalogue.ts'
import { OWN_OF_0414, bytesOfOwn, modifiedFacts, ownFacts } from './modified.ts'

/** Facts of every image the demo's makers have signed, and of the parts that owners changed. */
export const demoImages = (): readonly ImageFacts[] => {
  const drafts = [...DEMO_PACKAGES, ...ON_DEVICES_ONLY]
  const signed = catalogueOf(drafts.map((draft) => buildPackage(draft).manifest))
  return [
    ...signed.values(),
    ...modifiedFacts(DEMO_DEVICES, signed),
    ...ownFacts([OWN_OF_0414], signed),
  ]
}

/** The shelf as far as is asked here. */
type Shelf = {
  readonly archives: readonly { readonly name: string; readonly sha256: string }[]
  readonly catalogues: readonly { readonly from: string; readonly number: number }[]
}

/** Has the depot's catalogue taken in, where the shelf does not know it yet. */
export async function takeDemoCatalogue(address: string, by: Sender): Promise<void> {
  const far = farShelf(address, by)
  const { catalogues } = await far.shelf()
  if (catalogues.some(({ from, number }) => from === DEPOT && number >= DEPOT_NUMBER)) return
  const body = Buffer.from(await demoCatalogue())
  await far.send('/api/shelf/catalogues', {
    what: `the catalogue of ${DEPOT}`,
    bytes: body.length,
    chunks: () => [body],
  })
}

/** Sends the depot's catalogue, then every volume of every package that the shelf does not hold yet; answers how many. */
export async function shelveDemo(address: string, by: Sender): Promise<number> {
  await takeDemoCatalogue(address, by)
  const far = farShelf(address, by)
  const here = new Set((await far.shelf()).archives.map(({ name }) => name))
  let sent = 0
  for (const { volume, whole, maker } of demoVolumes()) {
    if (here.has(volume.file)) continue
    await sendTo(far, volume, { whole, maker })
    sent += 1
  }
  return sent
}

type ToSend = { readonly volume: Volume; readonly whole: boolean; readonly maker: string }

function* demoVolumes(): Generator<ToSend> {
  for (const draft of DEMO_PACKAGES)
    for (const [index, volume] of buildPackage(draft).volumes.entries()) {
      if (draft.firstOnly === true && index > 0) continue
      yield { volume, whole: draft.truncatedTo === undefined, maker: draft.line.maker }
    }
  yield { volume: ownVolume(), whole: false, maker: '' }
}

/** What the owner of 0414 brought, in an archive by itself. */
function ownVolume(): Volume {
  const { role } = OWN_OF_0414
  const bytes = tarOf([{ name: `${role}.img`, bytes: bytesOfOwn(OWN_OF_0414) }])
  return { file: `owner-of-0414-${role}.tar`, bytes: bytes.length, chunks: () => [bytes] }
}

/** Sends one volume; with its digest where it is whole. */
export const sendVolume = (
  address: string,
  headers: Headed,
  volume: Volume,
  about: { readonly whole: boolean; readonly maker: string },
): Promise<void> => sendTo(farShelf(address, signedIn(headers)), volume, about)

type Headed = Readonly<Record<string, string>>
/** How the shelf is read, and who sends to it: they sign in only where something is sent. */
export type Sender = { readonly reads: Headed; readonly sends: () => Promise<Headed> }

/** Who is signed in already reads and sends. */
const signedIn = (headers: Headed): Sender => ({
  reads: headers,
  sends: () => Promise.resolve(headers),
})

function sendTo(
  far: FarShelf,
  volume: Volume,
  { whole, maker }: { readonly whole: boolean; readonly maker: string },
): Promise<void> {
  const query = new URLSearchParams({ name: volume.file })
  const sha256 = digestOfVolume(volume)
  if (whole) {
    query.set('sha256', sha256)
    query.set('source', 'maker')
    query.set('where', `${maker}, page of releases`)
  }
  const isHere = async () => (await far.shelf()).archives.some((one) => one.sha256 === sha256)
  return far.send(`/api/shelf/archives?${query.toString()}`, {
    what: volume.file,
    ...volume,
    isHere,
  })
}

type Sending = {
  /** What it is called where it is refused. */
  readonly what: string
  readonly bytes: number
  readonly chunks: () => Iterable<Uint8Array>
  /** Asked before it is sent again: the answer alone may have been lost. */
  readonly isHere?: () => Promise<boolean>
}
type FarShelf = {
  readonly shelf: () => Promise<Shelf>
  /** Throws NotShelved with the shelf's own sentence. */
  readonly send: (path: string, sending: Sending) => Promise<void>
}

/** A busy machine loses connections, and its server asks for patience: this often it is tried again. */
const TRIES = 20
const PAUSE_MS = 1500
/** "Not now": what was asked may be asked again. */
const BUSY = [429, 503]

/**
 * The shelf of a running server. Every request has a connection of its own: packages are built between two for longer
 * than a server keeps one that says nothing, and a body that was begun on a dead one is lost.
 */
function farShelf(address: string, { reads, sends }: Sender): FarShelf {
  const ask = async (path: string, sending?: Sending): Promise<Answer> => {
    const headers = sending === undefined ? reads : await sends()
    for (let left = TRIES; ; left -= 1) {
      const answer = await request(new URL(path, address), headers, sending).catch(
        (error: unknown) => {
          if (left <= 1) throw new NotShelved(lostWords(sending?.what ?? path, error))
          return undefined
        },
      )
      if (answer !== undefined && (left <= 1 || !BUSY.includes(answer.status))) return answer
      await new Promise((done) => setTimeout(done, PAUSE_MS))
      if ((await sending?.isHere?.()) === true) return { status: 200, text: '' }
    }
  }
  return {
    shelf: async () => JSON.parse((await ask('/api/shelf')).text) as Shelf,
    async send(path, sending) {
      const { status, text } = await ask(path, sending)
      if (status < 300) return
      const { sentence = '', remedy = '' } = JSON.parse(text) as Partial<ApiError>
      throw new NotShelved(`${sending.what}: ${sentence} ${remedy}`)
    },
  }
}

const lostWords = (what: string, error: unknown): string =>
  `${what}: the server could not be reached (${error instanceof Error ? error.message : ''}).`

type Answer = { readonly status: number; readonly text: string }

/** One request on a connection of its own. Rejects when that breaks. */
function request(url: URL, headers: Headed, sending: Sending | undefined): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const sent = open(
      url,
      {
        agent: false,
        method: sending === undefined ? 'GET' : 'POST',
        headers: {
          ...headers,
          ...(sending === undefined
            ? {}
            : { 'content-type': 'application/octet-stream', 'content-length': sending.bytes }),
        },
      },
      (response) => {
        const parts: Buffer[] = []
        response.on('data', (part: Buffer) => parts.push(part))
        response.on('error', reject)
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            text: Buffer.concat(parts).toString('utf8'),
          }),
        )
      },
    )
    sent.on('error', reject)
    if (sending === undefined) sent.end()
    else Readable.from(sending.chunks()).pipe(sent)
  })
}

/** The shelf would not take a volume; the message is its own sentence. */
export class NotShelved extends Error {}
