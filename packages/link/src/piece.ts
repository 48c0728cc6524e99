/**
 * One piece of an image, or a whole file, over the link: begun, sent in chunks with a window of unacknowledged ones, finished with its
 * own digest, which is made while the bytes go. A session the device kept is taken up where it stands.
 */
import { createHash } from 'node:crypto'
import { crc32 } from 'node:zlib'
import type { Command, DeviceRefusal, FilePut, LinkAnswer, LinkRequest } from '@plain-slate/core'
import { PAYLOAD_MAX } from '@plain-slate/core'
import type { Answered, Lease, Link } from './link.ts'
import { LinkLost } from './link.ts'

/** Where a piece goes, and of which image it is. */
export type Put = Pick<Extract<Command, { kind: 'put' }>, 'partition' | 'offset' | 'size' | 'image'>

/** Bytes of an image, from `from` to before `to`, in whatever pieces they come. */
export type ImageBytes = (image: string, from: number, to: number) => AsyncIterable<Uint8Array>

/** Chunks that may be on their way without an acknowledgement. */
export const WINDOW = 8
/** A small piece goes in about this many chunks, so that its progress can be seen. */
const CHUNKS_LEAST = 24
const CHUNK_STEP = 16 * 1024

/** Bytes of a chunk of a piece: at most what a frame holds. */
export const chunkBytes = (size: number): number =>
  Math.min(PAYLOAD_MAX, Math.ceil(size / CHUNKS_LEAST / CHUNK_STEP) * CHUNK_STEP)

export type PutOutcome =
  { readonly kind: 'kept' } | { readonly kind: 'refused'; readonly code: DeviceRefusal }

type Progress = (got: number, at: number) => void

/** Puts a piece; `progress` is told bytes kept and the device's own time. Throws LinkLost. */
export function putPiece(
  link: Link,
  lease: Lease,
  put: Put,
  bytes: ImageBytes,
  progress: Progress,
): Promise<PutOutcome> {
  const { partition, offset, size, image } = put
  const begin = { verb: 'begin', ...lease, partition, offset, size, image } as const
  return putBytes(link, lease, { begin, offset, size, image }, bytes, progress)
}

/** Puts a whole file to a store, in the same way. Throws LinkLost. */
export function putFile(
  link: Link,
  lease: Lease,
  { store, name, size, image }: FilePut,
  bytes: ImageBytes,
  progress: Progress,
): Promise<PutOutcome> {
  const begin = { verb: 'file-put', ...lease, store, name, size, image } as const
  return putBytes(link, lease, { begin, offset: 0, size, image }, bytes, progress)
}

type Sent = Pick<Put, 'offset' | 'size' | 'image'> & { readonly begin: LinkRequest }

async function putBytes(
  link: Link,
  lease: Lease,
  { begin, offset, size, image }: Sent,
  bytes: ImageBytes,
  progress: Progress,
): Promise<PutOutcome> {
  const begun = (await link.ask(begin)).answer
  if (begun.answer === 'refused') return refusedBy(begun)
  const got = keptOf(begun)
  progress(got, begun.at)
  const hash = createHash('sha256')
  for await (const part of bytes(image, offset, offset + got)) hash.update(part)
  const onTheWay: Promise<Answered>[] = []
  const acknowledged = async (): Promise<LinkAnswer | undefined> => {
    const answered = (await onTheWay.shift())?.answer
    if (answered?.answer === 'kept') progress(answered.got, answered.at)
    return answered?.answer === 'refused' ? answered : undefined
  }
  let at = got
  for await (const chunk of inChunks(bytes(image, offset + got, offset + size), chunkBytes(size))) {
    hash.update(chunk)
    const request = { verb: 'chunk', ...lease, offset: at, crc32: crc32(chunk) } as const
    onTheWay.push((await link.send(request, chunk)).answered)
    at += chunk.length
    const refused = onTheWay.length >= WINDOW ? await acknowledged() : undefined
    if (refused !== undefined) return refusedBy(refused)
  }
  while (onTheWay.length > 0) {
    const refused = await acknowledged()
    if (refused !== undefined) return refusedBy(refused)
  }
  const piece = hash.digest('hex')
  const finished = (await link.ask({ verb: 'finish', ...lease, piece })).answer
  return finished.answer === 'refused' ? refusedBy(finished) : { kind: 'kept' }
}

/** A chunk that was damaged on its way is no refusal: the stream is broken, and taken up again. */
function refusedBy(answer: LinkAnswer): PutOutcome {
  if (answer.answer !== 'refused') throw new LinkLost('an answer out of turn')
  if (answer.code === 'bad-checksum') throw new LinkLost('a chunk was damaged on its way')
  return { kind: 'refused', code: answer.code }
}

function keptOf(answer: LinkAnswer): number {
  if (answer.answer !== 'kept') throw new LinkLost('an answer out of turn')
  return answer.got
}

/** The same bytes in chunks of one size, the last one shorter. */
export async function* inChunks(
  source: AsyncIterable<Uint8Array>,
  size: number,
): AsyncGenerator<Uint8Array> {
  let rest: Uint8Array = new Uint8Array()
  for await (const part of source) {
    let all = rest.length === 0 ? part : Buffer.concat([rest, part])
    while (all.length >= size) {
      yield all.subarray(0, size)
      all = all.subarray(size)
    }
    rest = all
  }
  if (rest.length > 0) yield rest
}

/** SHA-256 of a range of an image, as hex. */
export async function digestOf(
  bytes: ImageBytes,
  image: string,
  from: number,
  to: number,
): Promise<string> {
  const hash = createHash('sha256')
  for await (const part of bytes(image, from, to)) hash.update(part)
  return hash.digest('hex')
}
