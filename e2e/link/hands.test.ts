/** What hands do to a simulated device while something is written to it, down to its bytes. */
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import { BLOCK_BYTES, LINK_PROTOCOL, LOOKING, imageOn } from '@plain-slate/core'
import { DEMO_DEVICES, makeDevice } from '@plain-slate/demo'
import type { Link } from '@plain-slate/link'
import {
  LinkLost,
  digestOf,
  hello,
  inChunks,
  openLink,
  openStream,
  putPiece,
} from '@plain-slate/link'
import type { Bench } from '@plain-slate/standins'
import { openBench } from '@plain-slate/standins'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { shelfAt } from '../agrees/shelf.ts'

const shelf = shelfAt(1024)
const SECRET = 'a secret of the test'
const [, draft] = DEMO_DEVICES
if (draft === undefined) throw new Error('no device')
const { serial } = draft
const aim = shelf.shelf.find(({ manifest }) => manifest.build === 'H2.104.r4')?.manifest
const found = aim?.images.find(({ partition }) => partition === 'support')
if (found === undefined) throw new Error('no image')
const support = found
const put = {
  partition: 'support',
  offset: 0,
  size: support.size,
  image: support.sha256,
} as const

let folder: string
let bench: Bench
let epoch = 0
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'hands-'))
  makeDevice({ folder, family: shelf.family, scale: shelf.scale }, { ...draft, port: 'P1' })
  const images = [...shelf.catalogue.values()]
  const plan = {
    folder,
    secret: SECRET,
    pace: 0,
    ports: { P1: 0, P2: 0 },
    families: [shelf.family],
  }
  bench = await openBench({ ...plan, images })
  toLoader()
})
afterEach(async () => {
  await bench.stop()
  rmSync(folder, { recursive: true, force: true })
})

function toLoader(): void {
  bench.act({ kind: 'keys', serial, to: 'off' })
  bench.act({ kind: 'keys', serial, to: 'loader' })
}
const device = () => {
  const [one] = bench.devices()
  if (one === undefined) throw new Error('no device')
  return one
}
async function stream(port = 'P1'): Promise<Link | undefined> {
  const opened = await openStream({
    kind: 'tcp',
    host: '127.0.0.1',
    port: bench.ports[port] ?? 0,
  })
  return opened === undefined ? undefined : openLink(opened)
}
async function met(): Promise<{
  readonly link: Link
  readonly lease: { run: string; epoch: number }
}> {
  const link = await stream()
  if (link === undefined) throw new Error('nothing there')
  epoch += 1
  const lease = { run: 'run', epoch }
  const answer = await hello(link, lease, SECRET)
  if (answer.answer !== 'facts') throw new Error(`hello: ${answer.answer}`)
  return { link, lease }
}
async function write(): Promise<string> {
  const { link, lease } = await met()
  return putPiece(link, lease, put, shelf.bytes, () => undefined).then(
    ({ kind }) => kind,
    (error: unknown) => (error instanceof LinkLost ? 'lost' : String(error)),
  )
}
const flash = () => readFileSync(join(folder, `${serial}.flash`))
const start = () => device().file.starts['support'] ?? 0

describe('a battery taken out in mid-piece', () => {
  it('leaves what was whole new, one block torn, the rest old', async () => {
    const old = flash()
    const cut = 5 * BLOCK_BYTES + 1000
    bench.act({ kind: 'cut', serial, piece: 1, bytes: cut, how: 'battery' })
    expect(await write()).toBe('lost')
    const now = flash()
    const image: Uint8Array[] = []
    for await (const part of shelf.bytes(support.sha256, 0, support.size)) image.push(part)
    const wanted = Buffer.concat(image)
    const block = (bytes: Buffer, index: number, from = start()) =>
      bytes.subarray(from + index * BLOCK_BYTES, from + (index + 1) * BLOCK_BYTES)
    for (let index = 0; index < 5; index += 1)
      expect(block(now, index).equals(block(wanted, index, 0))).toBe(true)
    expect(block(now, 5).equals(block(wanted, 5, 0))).toBe(false)
    expect(block(now, 5).equals(block(old, 5))).toBe(false)
    expect(
      now.subarray(start() + 6 * BLOCK_BYTES).equals(old.subarray(start() + 6 * BLOCK_BYTES)),
    ).toBe(true)
    expect(device().model.mode).toBe('off')
    expect(device().model.session).toBeUndefined()
  })

  it('is written whole when it is begun again', async () => {
    bench.act({ kind: 'cut', serial, piece: 1, bytes: 9000, how: 'battery' })
    expect(await write()).toBe('lost')
    bench.act({ kind: 'keys', serial, to: 'loader' })
    expect(await write()).toBe('kept')
    const { link } = await met()
    const range = { verb: 'digest', partition: 'support', from: 0, to: support.size } as const
    expect((await link.ask(range)).answer).toMatchObject({ sha256: support.sha256 })
  })
})

describe('keys that are held', () => {
  const lands = (held?: number) => {
    bench.act({ kind: 'keys', serial, to: 'off' })
    bench.act({ kind: 'keys', serial, to: 'loader', ...(held === undefined ? {} : { held }) })
    return device().model.mode
  }
  it('too short or too long end where the family’s usual slip does', () => {
    expect([1.9, 2, 4, 4.1].map((held) => lands(held))).toEqual([
      'rescue',
      'loader',
      'loader',
      'rescue',
    ])
  })
  it('for as long as it takes where nobody counts', () => {
    expect(lands()).toBe('loader')
  })
})

describe('a device whose process was killed in mid-piece', () => {
  /** Begins the image, sends so many chunks of its bytes, and never says that it is over. */
  async function sent(bytes: number): Promise<void> {
    const { link, lease } = await met()
    const { partition, offset, size, image } = put
    await link.ask({ verb: 'begin', ...lease, partition, offset, size, image })
    let at = 0
    for await (const chunk of inChunks(shelf.bytes(image, 0, bytes), 64 * 1024)) {
      const request = { verb: 'chunk', ...lease, offset: at, crc32: crc32(chunk) } as const
      await link.ask(request, chunk)
      at += chunk.length
    }
  }
  /** The same bench as kill -9 leaves it: the files as they are now. */
  async function killed() {
    const left = mkdtempSync(join(tmpdir(), 'killed-'))
    cpSync(folder, left, { recursive: true })
    const images = [...shelf.catalogue.values()]
    const plan = { folder: left, secret: SECRET, pace: 0, ports: {}, families: [shelf.family] }
    const again = await openBench({ ...plan, images })
    const [one] = again.devices()
    if (one === undefined) throw new Error('no device')
    const digest = one.flash.digest(start(), start() + support.size)
    const part = one.model.parts['support']
    const says = part === undefined ? undefined : imageOn(part, one.nature.catalogue)?.image
    await again.stop()
    rmSync(left, { recursive: true })
    return { digest, says }
  }

  it('says of the partition what its bytes are: the new image, the old one, or neither', async () => {
    const whole = support.size
    await sent(whole)
    expect(await killed()).toEqual({ digest: support.sha256, says: support.sha256 })
  })

  it('with nothing of it sent holds what it held', async () => {
    const before = device().model.parts['support']?.was
    await sent(0)
    expect(await killed()).toMatchObject({ says: before })
  })

  it('with half of it sent holds neither', async () => {
    await sent(support.size / 2)
    expect(await killed()).toMatchObject({ says: undefined })
  })
})

describe('the link permission withdrawn on a device that runs', () => {
  it('has it answer nothing, until it is given again', async () => {
    bench.act({ kind: 'keys', serial, to: 'off' })
    bench.act({ kind: 'keys', serial, to: 'loader' })
    const { link, lease } = await met()
    await link.ask({ verb: 'restart', ...lease, to: 'normal' })
    expect(device().model.mode).toBe('normal')
    bench.act({ kind: 'permit', serial, given: false })
    expect(bench.shown()[0]?.permission).toBe(false)
    await expect(met()).rejects.toThrow()
    bench.act({ kind: 'permit', serial, given: true })
    const tally = await (await met()).link.ask({ verb: 'tally' })
    expect(tally.answer.answer).toBe('tally')
  })

  it('cannot be reached in the loader', () => {
    expect(bench.act({ kind: 'permit', serial, given: false })).toContain('cannot be reached')
    expect(device().model.permission).toBe(draft.permission)
  })
})

describe('a cable pulled in mid-piece', () => {
  it('leaves the session where it was, and nothing on the port', async () => {
    bench.act({ kind: 'cut', serial, piece: 1, bytes: 9000, how: 'cable' })
    expect(await write()).toBe('lost')
    expect(device().model.session?.got).toBe(9000)
    const there = await stream()
    await expect(there?.ask({ verb: 'facts' })).rejects.toThrow(LinkLost)
    expect(bench.act({ kind: 'plug', serial, port: 'P1' })).toBeUndefined()
    expect(await write()).toBe('kept')
  })
})

describe('a stream', () => {
  it('that is not what it said at its end counts for nothing, and the range is suspect', async () => {
    const { link, lease } = await met()
    const short = { ...put, size: BLOCK_BYTES }
    const wrong = async function* () {
      yield await Promise.resolve(new Uint8Array(BLOCK_BYTES))
    }
    await putPiece(link, lease, short, wrong, () => undefined)
    const part = device().model.parts['support']
    expect(part && imageOn(part, device().nature.catalogue)?.image).not.toBe(support.sha256)
    const digest = await digestOf(shelf.bytes, support.sha256, 0, BLOCK_BYTES)
    const range = { verb: 'digest', partition: 'support', from: 0, to: BLOCK_BYTES } as const
    expect((await link.ask(range)).answer).not.toMatchObject({ sha256: digest })
  })

  it('of a newer owner ends the older one’s; one that only looks is not let in beside it', async () => {
    const first = await met()
    const second = await met()
    await expect(first.link.ask({ verb: 'facts' })).rejects.toThrow(LinkLost)
    const look = await stream()
    await expect(
      look?.ask({
        verb: 'hello',
        run: 'look',
        epoch: LOOKING,
        protocol: LINK_PROTOCOL,
        secret: SECRET,
      }),
    ).rejects.toThrow(LinkLost)
    expect((await second.link.ask({ verb: 'facts' })).answer.answer).toBe('facts')
  })
})

describe('hands', () => {
  it('can do only what the device and the bench allow, and are told why not', () => {
    expect(bench.act({ kind: 'keys', serial, to: 'rescue' })).toMatch(/no keys lead to rescue/)
    expect(bench.act({ kind: 'charge', serial, percent: 90 })).toMatch(/does not charge/)
    expect(bench.act({ kind: 'unplug', serial: 'TRN0000000000' })).toMatch(/no simulated device/)
  })
  it('are offered the ways of the family from the mode it is in', () => {
    bench.act({ kind: 'cell-out', serial })
    const [shown] = bench.shown()
    expect(shown?.keys.map(({ to }) => to.id)).toEqual(expect.arrayContaining(['loader', 'rescue']))
  })
})
