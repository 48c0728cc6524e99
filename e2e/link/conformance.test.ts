/** The stand-in against the link's conformance suite, over TCP and over a process's own pipes. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { DEMO_DEVICES, makeDevice } from '@plain-slate/demo'
import type { Address, Target } from '@plain-slate/link'
import { conform } from '@plain-slate/link'
import type { Bench } from '@plain-slate/standins'
import { openBench } from '@plain-slate/standins'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { shelfAt } from '../agrees/shelf.ts'

/** Small images: the suite is about what is said, not how much. */
const shelf = shelfAt(4096)
const SECRET = 'a secret of the suite'
const STDIO = fileURLToPath(new URL('../../packages/standins/src/stdio.ts', import.meta.url))
const folder = mkdtempSync(join(tmpdir(), 'conformance-'))

const draft = DEMO_DEVICES[1]
if (draft === undefined) throw new Error('no device')
const aim = shelf.shelf.find(({ manifest }) => manifest.build === 'H2.104.r4')?.manifest
const modem = aim?.images.find(({ partition }) => partition === 'modem')
if (modem === undefined) throw new Error('no image')

let image: Uint8Array
let bench: Bench
beforeAll(async () => {
  const parts: Uint8Array[] = []
  for await (const part of shelf.bytes(modem.sha256, 0, modem.size)) parts.push(part)
  image = Buffer.concat(parts)
  makeDevice({ folder, family: shelf.family, scale: shelf.scale }, { ...draft, port: 'P1' })
  const images = [...shelf.catalogue.values()]
  const plan = {
    folder,
    secret: SECRET,
    pace: 0,
    ports: { P1: 0 },
    families: [shelf.family],
    images,
  }
  bench = await openBench(plan)
  bench.act({ kind: 'keys', serial: draft.serial, to: 'off' })
  bench.act({ kind: 'keys', serial: draft.serial, to: 'loader' })
})
afterAll(async () => {
  await bench.stop()
  rmSync(folder, { recursive: true, force: true })
})

const port = () => bench.ports['P1'] ?? 0
const overTcp = (): Address => ({ kind: 'tcp', host: '127.0.0.1', port: port() })
const overPipes = (): Address => ({
  kind: 'command',
  argv: [process.execPath, '--import', 'tsx', STDIO, String(port())],
})
const target = (address: Address, epoch: number, partition = 'modem'): Target => ({
  address,
  secret: SECRET,
  image,
  partition,
  mode: 'loader',
  never: 'calib',
  epoch,
})
type Found = Awaited<ReturnType<typeof conform>>
const claims = (found: Found) =>
  Object.fromEntries(found.map(({ claim, wrong }) => [claim, wrong ?? 'holds']))
const holding = (found: Found) => Object.fromEntries(found.map(({ claim }) => [claim, 'holds']))

describe('the stand-in', () => {
  it('conforms over TCP', async () => {
    const found = await conform(target(overTcp(), 1))
    expect(claims(found)).toEqual(holding(found))
    expect(found.length).toBeGreaterThan(14)
  }, 60_000)

  it('conforms over the pipes of a process', async () => {
    const found = await conform(target(overPipes(), 1000))
    expect(claims(found)).toEqual(holding(found))
  }, 120_000)

  it('is caught where it does not: for a partition that takes no such image', async () => {
    const found = await conform(target(overTcp(), 2000, 'kernel'))
    const wrong = found.filter((one) => one.wrong !== undefined).map(({ claim }) => claim)
    expect(wrong).toContain('takes a piece in a window of chunks, and digests what it was given')
    expect(wrong).not.toContain('ends a stream whose secret is wrong, without a word')
  }, 60_000)
})
