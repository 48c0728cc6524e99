/**
 * The conformance suite of the device link: what docs/link.md asks of a device's side, held against any
 * address or command. It writes one image to one partition and nothing else; the device must be in the
 * mode in which that partition is written, and its owner must have agreed. Each check opens streams of its own.
 */
import { setTimeout as pause } from 'node:timers/promises'
import type { LinkRequest } from '@plain-slate/core'
import {
  BLOCK_BYTES,
  BLOCK_DIGEST_BYTES,
  HEADER_MAX,
  LOOKING,
  decodeRanges,
} from '@plain-slate/core'
import { openStream } from './address.ts'
import type { Target } from './conformance-bench.ts'
import { Bench, refusalOf, sha256 } from './conformance-bench.ts'
import type { Answered } from './link.ts'
import { LinkLost, hello } from './link.ts'
import { putPiece } from './piece.ts'

export type { Target } from './conformance-bench.ts'
export type Checked = {
  readonly claim: string
  /** What was found instead; undefined: it conforms. */
  readonly wrong: string | undefined
}

type Check = (bench: Bench) => Promise<string | undefined>

/** So many blocks are asked for. */
const BLOCKS_ASKED = 16
/** A stream that must end has ended by then. */
const SOON_MS = 4000

const CHECKS: Readonly<Record<string, Check>> = {
  'ends a stream whose secret is wrong, without a word': (bench) =>
    endsWithout(bench, { ...bench.hello(), secret: 'another secret' }),
  'ends a stream of another protocol': (bench) =>
    endsWithout(bench, { ...bench.hello(), protocol: 'plain-slate/link@0' }),
  'ends a stream that begins with anything but hello': (bench) =>
    endsWithout(bench, { verb: 'facts' }),
  'ends a stream with a header over 64 KiB': async (bench) => {
    const stream = await openStream(bench.target.address)
    if (stream === undefined) return 'nothing is at this address'
    const ended = new Promise<undefined>((resolve) =>
      stream.once('close', () => resolve(undefined)).once('end', () => resolve(undefined)),
    )
    const length = Buffer.alloc(4)
    length.writeUInt32BE(HEADER_MAX + 1)
    stream.on('error', () => undefined).resume()
    stream.write(Buffer.concat([length, Buffer.alloc(HEADER_MAX + 1, 0x20)]))
    const late = pause(SOON_MS).then(() => 'it listens on')
    return Promise.race([ended, late]).finally(() => stream.destroy())
  },
  'answers hello with its facts, in the mode it writes in': async (bench) => {
    const { mode } = bench.target
    const facts = await bench.facts()
    return facts?.mode === mode ? undefined : `it is in ${facts?.mode ?? 'no mode'}`
  },
  'answers what it does not know with unknown-verb, and listens on': async (bench) => {
    const link = await bench.meet()
    const first = await codeOf(link.ask({ verb: 'sing' } as unknown as LinkRequest))
    const then = (await link.ask({ verb: 'facts' })).answer.answer
    return want(`${first}, then ${then}`, 'unknown-verb, then facts')
  },
  'refuses an older epoch, at hello and at a writing verb': async (bench) => {
    const older = bench.lease()
    const link = await bench.meet()
    const late = await bench.open()
    const greeted = await hello(late, older, bench.target.secret).catch(() => undefined)
    late.close()
    const written = await codeOf(link.ask({ ...bench.begin(), ...older }))
    return want(`${refusalOf(greeted)}, ${written}`, 'old-epoch, old-epoch')
  },
  'lets a look in at epoch 0 and is owned by nobody for it': async (bench) => {
    await bench.meet()
    const look = await bench.open()
    const seen = await hello(look, { run: 'look', epoch: LOOKING }, bench.target.secret).catch(
      () => undefined,
    )
    look.close()
    const after = (await bench.facts())?.serial
    return seen === undefined || seen.answer === 'facts' ? want(after, bench.serial) : seen.answer
  },
  'gives a partition table whose checksums hold': async (bench) => {
    const link = await bench.meet()
    return tableOf(await link.ask({ verb: 'table' }))
  },
  'takes no chunk before a begin': async (bench) => {
    const link = await bench.meet()
    return want(await codeOf(link.ask(bench.chunk(0, 16), bench.bytes(0, 16))), 'no-session')
  },
  'refuses a partition it does not have, one that is never written, and what is too long': async (
    bench,
  ) => {
    const link = await bench.meet()
    const codes = [
      await codeOf(link.ask({ ...bench.begin(), partition: 'no such part' })),
      await codeOf(link.ask({ ...bench.begin(), partition: bench.target.never })),
      await codeOf(link.ask({ ...bench.begin(), size: 2 ** 50 })),
    ]
    return want(codes.join(' '), 'no-partition never-written too-large')
  },
  'erases nothing it does not have, or that is never touched, and turns nothing for an older owner':
    async (bench) => {
      const older = bench.lease()
      const link = await bench.meet()
      const lease = bench.lease()
      const codes = [
        await codeOf(link.ask({ verb: 'erase', ...lease, partition: 'no such part' })),
        await codeOf(link.ask({ verb: 'erase', ...lease, partition: bench.target.never })),
        await codeOf(link.ask({ verb: 'erase', ...older, partition: bench.target.partition })),
        await codeOf(link.ask({ verb: 'lock', ...older, to: 'open' })),
        await codeOf(link.ask({ verb: 'slot', ...older, slot: 'a' })),
      ]
      return want(codes.join(' '), 'no-partition never-written old-epoch old-epoch old-epoch')
    },
  'takes no permit of another device’s, and none from an older owner': async (bench) => {
    const older = bench.lease()
    const link = await bench.meet()
    const permit = { id: 'PM', device: 'nobody', scope: 'service', until: '2026-12-31' } as const
    const other = await codeOf(link.ask({ verb: 'permit', ...bench.lease(), permit }))
    const late = await codeOf(link.ask({ verb: 'permit', ...older, permit }))
    const barred = other === 'wrong-mode' ? 'other-device' : other
    return want(`${barred} ${late}`, 'other-device old-epoch')
  },
  'takes a file into no place that is not open, under no name that leads out, and for no older owner':
    async (bench) => {
      const older = bench.lease()
      const link = await bench.meet()
      const lease = bench.lease()
      const file = { store: 'card', name: 'a.tar', size: 16, image: '0'.repeat(64) } as const
      const codes = [
        await codeOf(link.ask({ verb: 'file-put', ...lease, ...file })),
        await codeOf(link.ask({ verb: 'file-list', store: 'card' })),
        await codeOf(link.ask({ verb: 'file-put', ...lease, ...file, name: '../a.tar' })),
        await codeOf(link.ask({ verb: 'file-put', ...older, ...file })),
        await codeOf(link.ask({ verb: 'install', ...older, store: 'card', name: 'a.tar' })),
        await codeOf(link.ask({ verb: 'install', ...lease, store: 'card', name: 'a.tar' })),
      ]
      const none = 'no-store no-store unknown-verb old-epoch old-epoch wrong-mode'
      return want(codes.join(' '), none)
    },
  'shows no fact as an empty text': async (bench) => {
    const facts = (await bench.facts()) ?? {}
    const empty = Object.entries(facts).filter(([, value]) => value === '')
    return empty.length === 0 ? undefined : empty.map(([fact]) => fact).join(', ')
  },
  'refuses an image that nobody signed': async (bench) => {
    const link = await bench.meet()
    return want(await codeOf(link.ask({ ...bench.begin(), image: '0'.repeat(64) })), 'not-signed')
  },
  'refuses a chunk at a wrong offset, or damaged on its way, and keeps what it had': async (
    bench,
  ) => {
    const link = await bench.meet()
    await link.ask(bench.begin())
    const codes = [
      await codeOf(link.ask(bench.chunk(4096, 16), bench.bytes(4096, 16))),
      await codeOf(link.ask({ ...bench.chunk(0, 16), crc32: 1 }, bench.bytes(0, 16))),
    ]
    const kept = keptOf(await link.ask(bench.begin()))
    return want(`${codes.join(' ')} ${kept}`, 'bad-offset bad-checksum 0')
  },
  'keeps what it acknowledged when the stream breaks, and resumes there': async (bench) => {
    const link = await bench.meet()
    await link.ask(bench.begin())
    const half = Math.floor(bench.target.image.length / 2)
    await link.ask(bench.chunk(0, half), bench.bytes(0, half))
    link.close()
    const again = await bench.meet()
    return want(String(keptOf(await again.ask(bench.begin()))), String(half))
  },
  'finishes only a piece that is all there and is what it was said to be': async (bench) => {
    const link = await bench.meet()
    const kept = keptOf(await link.ask(bench.begin()))
    const early = await codeOf(link.ask(bench.finish()))
    const rest = bench.target.image.length - kept
    await link.ask(bench.chunk(kept, rest), bench.bytes(kept, rest))
    const other = await codeOf(link.ask({ ...bench.finish(), piece: '0'.repeat(64) }))
    return want(`${early} ${other}`, 'bad-offset bad-digest')
  },
  'takes a piece in a window of chunks, and digests what it was given': async (bench) => {
    const link = await bench.meet()
    const { image, partition } = bench.target
    const put = {
      partition,
      offset: 0,
      size: image.length,
      image: bench.digest,
    } as const
    const whole = (_: string, from: number, to: number) => inParts(image.subarray(from, to))
    const outcome = await putPiece(link, bench.lease(), put, whole, () => undefined)
    const range = { verb: 'digest', partition, from: 0, to: image.length } as const
    const { answer } = await link.ask(range)
    const found = answer.answer === 'digest' ? answer.sha256 : refusalOf(answer)
    return want(`${outcome.kind} ${found}`, `kept ${bench.digest}`)
  },
  'gives the digests of blocks, and the bytes, as they stand there, or says that its mode does not':
    rangesAsTheyStand,
}

/** Every claim of the suite, in order, against one target. Throws when no device answers at all. */
export async function conform(target: Target): Promise<readonly Checked[]> {
  const bench = new Bench(target)
  const found: Checked[] = []
  await bench.begun()
  for (const [claim, check] of Object.entries(CHECKS)) {
    const wrong = await check(bench).catch((error: unknown) => String(error))
    bench.leave()
    found.push({ claim, wrong })
  }
  return found
}

const want = (found: string | undefined, wanted: string): string | undefined =>
  found === wanted ? undefined : `${found ?? 'nothing'}, not ${wanted}`

const codeOf = async (answered: Promise<Answered>): Promise<string> =>
  refusalOf((await answered).answer)
const keptOf = ({ answer }: Answered): number => (answer.answer === 'kept' ? answer.got : -1)

const isLost = (asked: Promise<unknown>): Promise<boolean> =>
  asked.then(
    () => false,
    (error: unknown) => error instanceof LinkLost,
  )

async function endsWithout(bench: Bench, first: LinkRequest): Promise<string | undefined> {
  const link = await bench.open()
  return (await isLost(link.ask(first))) ? undefined : 'it answered'
}

function tableOf({ answer, payload }: Answered): string | undefined {
  if (answer.answer !== 'table') return refusalOf(answer)
  let start = 0
  const ranges = answer.ranges.map(({ at, length }) => {
    const bytes = payload.subarray(start, start + length)
    start += length
    return { at, bytes }
  })
  const decoded = decodeRanges(answer.diskBytes, answer.sectorBytes, ranges)
  return decoded.ok ? undefined : `no table: ${decoded.refusal.kind}`
}

/** A few blocks of the image that was written; what a mode does not give it refuses. */
async function rangesAsTheyStand(bench: Bench): Promise<string | undefined> {
  const { image, partition } = bench.target
  const to = Math.min(BLOCKS_ASKED * BLOCK_BYTES, image.length - (image.length % BLOCK_BYTES))
  const link = await bench.meet()
  const blocks = await link.ask({ verb: 'blocks', partition, from: 0, to })
  const bytes = await link.ask({ verb: 'read', partition, from: 0, to })
  const digests = Array.from({ length: to / BLOCK_BYTES }, (_, index) => {
    const block = image.subarray(index * BLOCK_BYTES, (index + 1) * BLOCK_BYTES)
    return sha256(block).slice(0, BLOCK_DIGEST_BYTES * 2)
  })
  const given = ({ answer, payload }: Answered, kind: string, wanted: Uint8Array) => {
    if (answer.answer !== kind) return refusalOf(answer)
    return Buffer.compare(payload, wanted) === 0 ? 'wrong-mode' : 'other bytes'
  }
  const said = [
    given(blocks, 'blocks', Buffer.from(digests.join(''), 'hex')),
    given(bytes, 'bytes', image.subarray(0, to)),
    await codeOf(link.ask({ verb: 'blocks', partition, from: 0, to: 2 ** 50 })),
  ]
  return said[2] === 'too-large' || said[2] === 'wrong-mode'
    ? want(said.slice(0, 2).join(' '), 'wrong-mode wrong-mode')
    : want(said[2], 'too-large')
}

async function* inParts(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield* await Promise.resolve([bytes])
}
