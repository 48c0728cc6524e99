/** Shelving the demo's packages: sent to the running server as anybody would send them. */
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

/** Has the depot's catalogue taken in, where the shelf does not know it yet. */
export async function takeDemoCatalogue(address: string, secret: string): Promise<void> {
  const headers = { authorization: `Bearer ${secret}` }
  const shelf = (await (await fetch(new URL('/api/shelf', address), { headers })).json()) as {
    readonly catalogues: readonly { readonly from: string; readonly number: number }[]
  }
  if (shelf.catalogues.some(({ from, number }) => from === DEPOT && number >= DEPOT_NUMBER)) return
  const body = await demoCatalogue()
  const response = await fetch(new URL('/api/shelf/catalogues', address), {
    method: 'POST',
    headers: { ...headers, 'content-type': 'application/octet-stream' },
    body,
  })
  if (response.ok) return
  const { sentence = '', remedy = '' } = (await response.json()) as Partial<ApiError>
  throw new NotShelved(`the catalogue of ${DEPOT}: ${sentence} ${remedy}`)
}

/** Sends the depot's catalogue, then every volume of every package that the shelf does not hold yet; answers how many. */
export async function shelveDemo(address: string, secret: string): Promise<number> {
  await takeDemoCatalogue(address, secret)
  const headers = { authorization: `Bearer ${secret}` }
  const shelf = (await (await fetch(new URL('/api/shelf', address), { headers })).json()) as {
    archives: { name: string }[]
  }
  const here = new Set(shelf.archives.map(({ name }) => name))
  let sent = 0
  for (const draft of DEMO_PACKAGES)
    for (const [index, volume] of buildPackage(draft).volumes.entries()) {
      if (draft.firstOnly === true && index > 0) continue
      if (here.has(volume.file)) continue
      await sendVolume(address, headers, volume, {
        whole: draft.truncatedTo === undefined,
        maker: draft.line.maker,
      })
      sent += 1
    }
  const own = ownVolume()
  if (here.has(own.file)) return sent
  await sendVolume(address, headers, own, { whole: false, maker: '' })
  return sent + 1
}

/** What the owner of 0414 brought, in an archive by itself. */
function ownVolume(): Volume {
  const { role } = OWN_OF_0414
  const bytes = tarOf([{ name: `${role}.img`, bytes: bytesOfOwn(OWN_OF_0414) }])
  return { file: `owner-of-0414-${role}.tar`, bytes: bytes.length, chunks: () => [bytes] }
}

/** Sends one volume; with its digest where it is whole. */
export async function sendVolume(
  address: string,
  headers: Readonly<Record<string, string>>,
  volume: Volume,
  { whole, maker }: { readonly whole: boolean; readonly maker: string },
): Promise<void> {
  const url = new URL('/api/shelf/archives', address)
  url.searchParams.set('name', volume.file)
  if (whole) {
    url.searchParams.set('sha256', digestOfVolume(volume))
    url.searchParams.set('source', 'maker')
    url.searchParams.set('where', `${maker}, page of releases`)
  }
  const response = await fetch(url, {
    method: 'POST',
    headers: {
      ...headers,
      'content-type': 'application/octet-stream',
      'content-length': String(volume.bytes),
    },
    body: Readable.toWeb(Readable.from(volume.chunks())) as ReadableStream,
    duplex: 'half',
  } as RequestInit)
  if (response.ok) return
  const { sentence = '', remedy = '' } = (await response.json()) as Partial<ApiError>
  throw new NotShelved(`${volume.file}: ${sentence} ${remedy}`)
}

/** The shelf would not take a volume; the message is its own sentence. */
export class NotShelved extends Error {}
