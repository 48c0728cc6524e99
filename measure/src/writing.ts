/**
 * A gibibyte written to a simulated device at pace 0, begin to finish, against the same bytes over plain
 * TCP with SHA-256 at the far end, taken in turn; the read-back digest timed apart.
 */
import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import {
  createReadStream,
  mkdirSync,
  mkdtempSync,
  openSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Image, ImageFacts } from '@plain-slate/core'
import { BLOCK_BYTES } from '@plain-slate/core'
import {
  DEMO_DEVICES,
  TARN_PACKAGES,
  TARN_R4,
  buildPackage,
  bytesOf,
  makeDevice,
  originOf,
  tarnFamily,
} from '@plain-slate/demo'
import type { ImageBytes, Link } from '@plain-slate/link'
import { hello, openLink, openStream, putPiece } from '@plain-slate/link'
import type { Row } from './row.ts'
import { alternating, spread, timed } from './timed.ts'

const GIB = 1024 ** 3
const MIB = 1024 ** 2
/** A main image of more than a GiB. */
const SCALE = 3
const PIECE = 256 * MIB
const SECRET = 'measured'
const FAR_ENDS = fileURLToPath(new URL('far-ends.ts', import.meta.url))
const BUILD = 'H2.104.r4'

export async function writing(): Promise<readonly Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'writing-'))
  const { file, main } = layOut(folder)
  const [bench, benchPort] = await farEnd('bench', folder)
  const [plain, plainPort] = await farEnd('plain')
  const stream = await openStream({ kind: 'tcp', host: '127.0.0.1', port: benchPort })
  if (stream === undefined) throw new Error('no bench')
  const link = openLink(stream)
  const lease = { run: 'measure', epoch: 1 }
  await hello(link, lease, SECRET)
  const [ours, theirs] = await alternating([
    () => write(link, lease, main, file),
    () => send(plainPort, file),
  ])
  const readBack = await timed(() =>
    link.ask({ verb: 'digest', partition: 'main', from: 0, to: GIB }),
  )
  link.close()
  bench.kill()
  plain.kill()
  rmSync(folder, { recursive: true })
  if (ours === undefined || theirs === undefined) return []
  return [
    {
      what: 'rate of a 1 GiB stand-in write at pace 0, begin to finish, against plain TCP with SHA-256 at the far end',
      measured: `${(theirs.median / ours.median).toFixed(2)} times (plain ${spread(theirs)})`,
      limit: 'aim at least 0.7 times',
    },
    {
      what: 'the read-back of it, the device’s own SHA-256 of the range',
      measured: `${readBack.median.toFixed(0)} ms (${spread(readBack)})`,
      limit: 'told apart, no aim',
    },
  ]
}

type Laid = { readonly file: string; readonly main: Image }

/** A device at a large scale and the image that is written to it, as a file. */
const ANY = {
  service: false,
  track: '',
  maxLoader: null,
  boards: [],
  chipsets: [],
  rows: [],
} as const

function layOut(folder: string): Laid {
  const [, device] = DEMO_DEVICES
  const draft = TARN_PACKAGES.find(({ build }) => build === BUILD)
  if (device === undefined || draft === undefined) throw new Error('no demo')
  mkdirSync(join(folder, 'devices'))
  const family = tarnFamily()
  makeDevice({ folder: join(folder, 'devices'), family, scale: SCALE }, { ...device, port: 'P1' })
  const { images } = buildPackage(draft, SCALE).manifest
  const main = images.find(({ partition }) => partition === 'main')
  if (main === undefined) throw new Error('no main image')
  const facts: ImageFacts = {
    image: main.sha256,
    role: 'main',
    blocks: main.size / BLOCK_BYTES,
    loaderVersion: null,
    modified: false,
    builds: [
      { ...ANY, build: BUILD, release: 5, patchDate: '2026-10-01', generation: 6, minLoader: 7 },
    ],
  }
  const bench = { format: 'plain-slate/stand-in-bench@1', pace: 0, ports: {}, families: [family] }
  writeFileSync(join(folder, 'bench.json'), JSON.stringify({ ...bench, images: [facts] }))
  writeFileSync(join(folder, 'link.secret'), SECRET)
  const file = join(folder, 'main.img')
  const out = openSync(file, 'w')
  for (let at = 0; at < GIB; at += MIB)
    writeSync(out, bytesOf(originOf(TARN_R4, 'main', BUILD), at, at + MIB))
  return { file, main }
}

async function farEnd(...args: readonly string[]): Promise<[ChildProcess, number]> {
  const child = spawn(process.execPath, ['--import', 'tsx', FAR_ENDS, ...args], {
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const [said] = (await once(child.stdout, 'data')) as [Buffer]
  return [child, Number(said.toString())]
}

async function write(
  link: Link,
  lease: { readonly run: string; readonly epoch: number },
  { sha256: image }: Image,
  file: string,
): Promise<void> {
  const bytes: ImageBytes = async function* (_, from, to) {
    if (from === to) return
    const range = { start: from, end: to - 1, highWaterMark: MIB }
    for await (const part of createReadStream(file, range)) yield part as Uint8Array
  }
  for (let offset = 0; offset < GIB; offset += PIECE) {
    const put = { partition: 'main', offset, size: PIECE, image } as const
    const { kind } = await putPiece(link, lease, put, bytes, () => undefined)
    if (kind !== 'kept') throw new Error(`a piece was ${kind}`)
  }
}

async function send(port: number, file: string): Promise<void> {
  const socket = connect({ host: '127.0.0.1', port })
  createReadStream(file, { end: GIB - 1, highWaterMark: MIB }).pipe(socket)
  await once(socket, 'data')
  socket.destroy()
}
