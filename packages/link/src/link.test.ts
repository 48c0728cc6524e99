import { createHash } from 'node:crypto'
import { PassThrough, Duplex } from 'node:stream'
import type { Json } from '@plain-slate/core'
import { encodeFrame, frameDecoder } from '@plain-slate/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { openStream } from './address.ts'
import { LinkLost, openLink } from './link.ts'
import { WINDOW, chunkBytes, inChunks, putPiece } from './piece.ts'

/** A far end in memory: what it says to each request is the test's. */
function farEnd(say: (header: Record<string, Json>, payload: Uint8Array) => object | undefined) {
  const [there, back] = [new PassThrough(), new PassThrough()]
  const near = Duplex.from({ readable: back, writable: there })
  const decoder = frameDecoder()
  there.on('data', (bytes: Uint8Array) => {
    const frames = decoder.push(bytes)
    if (!frames.ok) throw new Error('a bad frame')
    for (const { header, payload } of frames.value) {
      const said = say(header, payload)
      if (said !== undefined) back.write(encodeFrame({ ...said, id: header['id'] ?? 0, at: 0 }))
    }
  })
  return { near, back }
}

describe('an address', () => {
  it('where nothing listens opens nothing', async () => {
    expect(await openStream({ kind: 'tcp', host: '127.0.0.1', port: 1 })).toBeUndefined()
  })
})

describe('a link', () => {
  it('gives each request its own answer, whatever order they come in', async () => {
    const held: (() => void)[] = []
    const { near, back } = farEnd((header) => {
      held.push(() =>
        back.write(
          encodeFrame({ answer: 'kept', id: header['id'] ?? 0, at: 0, got: Number(header['id']) }),
        ),
      )
      if (held.length === 2) for (const one of held.reverse()) one()
      return undefined
    })
    const link = openLink(near)
    const [one, two] = await Promise.all([link.ask({ verb: 'facts' }), link.ask({ verb: 'facts' })])
    expect([one.answer, two.answer]).toMatchObject([{ got: 1 }, { got: 2 }])
  })

  it('that ends loses whoever waits, and whoever asks later', async () => {
    const { near, back } = farEnd(() => undefined)
    const link = openLink(near)
    const asked = link.ask({ verb: 'facts' })
    back.end()
    await expect(asked).rejects.toThrow(LinkLost)
    await expect(link.ask({ verb: 'facts' })).rejects.toThrow(LinkLost)
  })

  it('takes no answer that is none', async () => {
    const { near } = farEnd(() => ({ answer: 'song' }))
    await expect(openLink(near).ask({ verb: 'facts' })).rejects.toThrow(LinkLost)
  })
})

const LEASE = { run: 'run', epoch: 1 }
const image = Buffer.from(Array.from({ length: 1_000_000 }, (_, index) => index % 251))
const put = { partition: 'main', offset: 0, size: image.length, image: 'i' } as const
const bytes = async function* (_: string, from: number, to: number) {
  yield await Promise.resolve(image.subarray(from, to))
}

describe('a piece', () => {
  it('goes in a window of chunks, from where the device stands, under its own digest', async () => {
    const began = 3 * 16 * 1024
    let got = began
    const digests: Json[] = []
    const { near } = farEnd((header, payload) => {
      if (header['verb'] === 'finish') digests.push(header['piece'] ?? null)
      if (header['verb'] === 'chunk') got = Number(header['offset']) + payload.length
      return { answer: 'kept', got }
    })
    const told: number[] = []
    const outcome = await putPiece(openLink(near), LEASE, put, bytes, (kept) => told.push(kept))
    expect(outcome).toEqual({ kind: 'kept' })
    expect([told[0], told.at(-1)]).toEqual([began, image.length])
    expect(digests).toEqual([createHash('sha256').update(image).digest('hex')])
  })

  it('is refused with the device’s own code, and a damaged chunk is a lost stream', async () => {
    const saying = (code: string) =>
      farEnd(({ verb }) =>
        verb === 'begin' ? { answer: 'kept', got: 0 } : { answer: 'refused', code, text: '' },
      ).near
    const floor = await putPiece(openLink(saying('floor')), LEASE, put, bytes, () => undefined)
    expect(floor).toEqual({ kind: 'refused', code: 'floor' })
    const damaged = putPiece(openLink(saying('bad-checksum')), LEASE, put, bytes, () => undefined)
    await expect(damaged).rejects.toThrow(LinkLost)
  })

  it('has no more chunks under way than the window holds', async () => {
    let waiting = 0
    let most = 0
    const { near, back } = farEnd((header) => {
      if (header['verb'] !== 'chunk') return { answer: 'kept', got: 0 }
      waiting += 1
      most = Math.max(most, waiting)
      setTimeout(() => {
        waiting -= 1
        back.write(encodeFrame({ answer: 'kept', id: header['id'] ?? 0, at: 0, got: 0 }))
      }, 1)
      return undefined
    })
    await putPiece(openLink(near), LEASE, put, bytes, () => undefined)
    expect(most).toBe(WINDOW)
  })

  it('is cut into equal chunks however its bytes come', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.uint8Array({ maxLength: 50 }), { maxLength: 12 }),
        fc.integer({ min: 1, max: 40 }),
        async (parts, size) => {
          const chunks: Uint8Array[] = []
          const source = (async function* () {
            yield* await Promise.resolve(parts)
          })()
          for await (const chunk of inChunks(source, size)) chunks.push(Uint8Array.from(chunk))
          expect(Buffer.concat(chunks).equals(Buffer.concat(parts))).toBe(true)
          expect(chunks.slice(0, -1).every(({ length }) => length === size)).toBe(true)
        },
      ),
      { numRuns: 100 },
    )
  })

  it('that is small goes in many chunks, so that its progress shows; a large one in whole MiB', () => {
    expect(chunkBytes(1_000_000)).toBe(48 * 1024)
    expect(chunkBytes(320 * 1024 ** 2)).toBe(1024 ** 2)
  })
})
