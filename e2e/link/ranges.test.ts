/** What a device gives of its flash, and what it says without being asked: by real bytes, over a real stream. */
import { createHash } from 'node:crypto'
import type { DeviceEvent, LinkRequest } from '@plain-slate/core'
import { BLOCK_BYTES, BLOCK_DIGEST_BYTES, LOOKING, modeTaking } from '@plain-slate/core'
import { DEMO_DEVICES } from '@plain-slate/demo'
import type { Link } from '@plain-slate/link'
import { meet, putFile } from '@plain-slate/link'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Scene } from '../agrees/scene.ts'
import { SECRET, sceneOf } from '../agrees/scene.ts'
import { shelfAt } from '../agrees/shelf.ts'

const deviceOf = (family: string) => {
  const found = DEMO_DEVICES.find(({ line }) => line.family === family)
  if (found === undefined) throw new Error(`no device of ${family}`)
  return found
}

/** A stream to the scene's device, and what it says by itself on it. */
async function met(scene: Scene, epoch: number) {
  const address = { kind: 'tcp', host: '127.0.0.1', port: scene.bench.ports['P1'] ?? 0 } as const
  const heard: DeviceEvent[] = []
  const lease = { run: epoch === LOOKING ? 'look' : 'test', epoch }
  const one = await meet(address, lease, SECRET, undefined, (event) => heard.push(event))
  if (one?.kind !== 'met') throw new Error('not met')
  return { link: one.link, heard, lease }
}
const codeOf = async (link: Link, request: LinkRequest) => {
  const { answer } = await link.ask(request)
  return answer.answer === 'refused' ? answer.code : answer.answer
}

describe('a range of the flash of a phone', () => {
  const shelf = shelfAt(4096, 'alder')
  const mode = modeTaking(shelf.family, 'read', 'kernel') ?? ''
  const elsewhere = shelf.family.modes.find(
    ({ id, takes }) => id !== mode && takes.blocks !== undefined,
  )?.id
  let scene: Scene
  let link: Link
  beforeAll(async () => {
    scene = await sceneOf(shelf, { ...deviceOf('alder'), strange: {}, mode, battery: 90 })
    link = (await met(scene, 1)).link
  })
  afterAll(async () => {
    link.close()
    await scene.end()
  })
  const bytesOf = (partition: string, from: number, to: number) => {
    const start = scene.device.file.starts[partition] ?? 0
    return scene.device.flash.read(start + from, to - from)
  }

  it('is told block by block as it stands there, and follows its bytes', async () => {
    const range = { verb: 'blocks', partition: 'kernel', from: 0, to: 2 * BLOCK_BYTES } as const
    const wanted = () =>
      [0, 1].map((index) => {
        const block = bytesOf('kernel', index * BLOCK_BYTES, (index + 1) * BLOCK_BYTES)
        return createHash('sha256').update(block).digest().subarray(0, BLOCK_DIGEST_BYTES)
      })
    const before = await link.ask(range)
    expect(Buffer.from(before.payload)).toEqual(Buffer.concat(wanted()))
    const at = (scene.device.file.starts['kernel'] ?? 0) + BLOCK_BYTES
    scene.device.flash.write(at, Uint8Array.of(1 ^ (bytesOf('kernel', BLOCK_BYTES, 4097)[0] ?? 0)))
    const after = await link.ask(range)
    const halves = ({ payload }: typeof after) => [
      Buffer.from(payload.subarray(0, BLOCK_DIGEST_BYTES)),
      Buffer.from(payload.subarray(BLOCK_DIGEST_BYTES)),
    ]
    expect(halves(after)[0]).toEqual(halves(before)[0])
    expect(halves(after)[1]).not.toEqual(halves(before)[1])
  })

  it('is read back where the family lets it be, and nothing of the customer’s or the device’s own', async () => {
    const read = (partition: string, to = 100) =>
      ({ verb: 'read', partition, from: 0, to }) as const
    const { payload } = await link.ask(read('kernel'))
    expect(Buffer.from(payload)).toEqual(Buffer.from(bytesOf('kernel', 0, 100)))
    const codes = ['customer', 'calib', 'main'].map((part) => codeOf(link, read(part)))
    expect(await Promise.all(codes)).toEqual(['wrong-mode', 'wrong-mode', 'wrong-mode'])
    expect(await codeOf(link, read('kernel', 2 ** 40))).toBe('too-large')
  })

  it('of broken blocks, and in a mode that does not read back, is refused', async () => {
    const blocks = { verb: 'blocks', partition: 'kernel', from: 0, to: BLOCK_BYTES + 1 } as const
    expect(await codeOf(link, blocks)).toBe('bad-offset')
    expect(elsewhere).toBeDefined()
    const there = await sceneOf(shelf, {
      ...deviceOf('alder'),
      strange: {},
      mode: elsewhere ?? '',
      battery: 90,
    })
    const other = await met(there, 1)
    const asked = { verb: 'read', partition: 'kernel', from: 0, to: 100 } as const
    expect(await codeOf(other.link, asked)).toBe('wrong-mode')
    expect(await codeOf(other.link, { ...blocks, to: BLOCK_BYTES })).toBe('blocks')
    other.link.close()
    await there.end()
  })
})

describe('a tablet that was pushed to', () => {
  const shelf = shelfAt(4096, 'fen')
  const rule = shelf.family.installs.find(({ confirm }) => confirm !== undefined)
  const next = shelf.shelf.find(({ manifest }) => manifest.build === 'FEN-26.21B-S')?.manifest
  const [archive] = next?.archives ?? []
  let scene: Scene
  beforeAll(async () => {
    const mode = rule?.mode ?? ''
    scene = await sceneOf(shelf, { ...deviceOf('fen'), build: 'FEN-26.19A-S', mode, battery: 90 })
  })
  afterAll(() => scene.end())

  it('says by itself that it waits for a hand, in its own words, to its owner and no looker', async () => {
    const looker = await met(scene, LOOKING)
    const owner = await met(scene, 2)
    const file = { store: 'push', name: 'p.tar' } as const
    const { sha256: image = '', bytes: size = 0 } = archive ?? {}
    const put = { kind: 'push', mode: rule?.mode ?? '', ...file, size, image } as const
    expect(await putFile(owner.link, owner.lease, put, shelf.bytes, () => undefined)).toMatchObject(
      { kind: 'kept' },
    )
    expect(owner.heard).toEqual([])
    const installed = { verb: 'install', ...owner.lease, ...file } as const
    expect(await codeOf(owner.link, installed)).toBe('done')
    const prompt = { event: 'prompt', asks: 'confirm', text: rule?.confirm?.say }
    expect([owner.heard, looker.heard]).toEqual([[prompt], []])
    owner.link.close()
    looker.link.close()
  })
})
