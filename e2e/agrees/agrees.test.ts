import { describe, expect, it } from 'vitest'
import type { Cut, Evidence } from '@plain-slate/core'
import { CUT_KINDS, flatten } from '@plain-slate/core'
import { DEMO_DEVICES } from '@plain-slate/demo'
import type { DemoDevice } from '@plain-slate/demo'
import {
  bytesAgainstMap,
  changedMarks,
  comparable,
  onStandIn,
  onTwin,
  planFor,
  sceneOf,
} from './scene.ts'
import { shelfAt } from './shelf.ts'

/** A small generator (mulberry32), so that a seed names a case for ever. */
function chances(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let value = Math.imul(state ^ (state >>> 15), 1 | state)
    value = (value + Math.imul(value ^ (value >>> 7), 61 | value)) ^ value
    return ((value ^ (value >>> 14)) >>> 0) / 4294967296
  }
}

const small = shelfAt(4096)
const PLANS = 100

function deviceOf(random: () => number): DemoDevice {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T
  const [lead] = DEMO_DEVICES
  if (lead === undefined) throw new Error('no lead device')
  const build = pick(['H2.0ZC.r4', 'H2.0ZC.r4', 'H2.0ZP.r4'])
  return {
    ...lead,
    build,
    loader: pick([6, 6, 7]),
    floor: pick([5, 6]),
    battery: 60 + Math.floor(random() * 40),
    mode: pick(['normal', 'off'] as const),
    permission: random() < 0.6,
    pick: random(),
  }
}

/** One seeded case; undefined when no plan comes of it. */
async function oneCase(seed: number) {
  const random = chances(seed)
  const scene = await sceneOf(small, deviceOf(random))
  try {
    const aim = small.shelf[Math.floor(random() * small.shelf.length)]?.manifest
    const evidence = new Map<string, Evidence>(
      Object.entries(scene.before.parts).flatMap(([name, { was }]): [string, Evidence][] =>
        was !== undefined && random() < 0.4 ? [[name, { kind: 'digest', sha256: was }]] : [],
      ),
    )
    const plan = aim === undefined ? undefined : planFor(scene, aim, evidence)
    if (plan === undefined) return undefined
    const cut = cutOf(random, plan)
    const twin = onTwin(scene, plan, cut)
    const real = await onStandIn(scene, plan, cut, twin.phase)
    return { twin, real, cut, bytes: bytesAgainstMap(scene), marks: changedMarks(scene) }
  } finally {
    await scene.end()
  }
}

function cutOf(random: () => number, plan: Parameters<typeof flatten>[0]): Cut | undefined {
  const puts = flatten(plan).commands.filter((one) => one.kind === 'put')
  const command = Math.floor(random() * puts.length)
  const size = puts[command]?.size ?? 0
  const at = [0, Math.floor(size / 8192) * 4096 + 100, size, size + 1, Math.floor(random() * size)]
  const bytes = at[Math.floor(random() * at.length)] ?? 0
  const kind = CUT_KINDS[Math.floor(random() * 3)] ?? 'cable'
  return random() < 0.15 ? undefined : { command, bytes, kind }
}

describe('rehearsal and run agree', () => {
  it('on a hundred seeded plans with seeded cuts', async () => {
    let plans = 0
    const left = new Set<string>()
    for (let seed = 1; plans < PLANS; seed += 1) {
      const found = await oneCase(seed)
      if (found === undefined) continue
      plans += 1
      const { twin, real, cut, bytes, marks } = found
      left.add(`${cut?.kind ?? 'no cut'} ${twin.phase}`)
      const at = `seed ${seed}, ${JSON.stringify(cut)}`
      expect(comparable(real), at).toEqual(comparable(twin))
      expect(Math.abs(real.device.battery - twin.device.battery), at).toBeLessThan(1)
      expect({ at, bytes, marks }).toEqual({ at, bytes: [], marks: [] })
    }
    /* The cases reach what they are for: ends, deaths, and every kind of cut. */
    expect([...left].sort()).toEqual(
      expect.arrayContaining([
        'battery ended',
        'battery lost',
        'cable ended',
        'computer ended',
        'no cut ended',
      ]),
    )
  }, 240_000)
})

describe('the lead device', () => {
  it('goes from 0ZC by way of loader 7 to 104; its flash is the images, its tickets are untouched', async () => {
    const shelf = shelfAt(256)
    const [lead] = DEMO_DEVICES
    if (lead === undefined) throw new Error('no lead device')
    const scene = await sceneOf(shelf, lead)
    try {
      const aim = shelf.shelf.find(({ manifest }) => manifest.build === 'H2.104.r4')?.manifest
      const plan = aim === undefined ? undefined : planFor(scene, aim, new Map())
      if (aim === undefined || plan === undefined) throw new Error('no plan')
      const real = await onStandIn(scene, plan, undefined, 'ended')
      expect(real.phase).toBe('ended')
      const { device } = scene
      const digests = aim.images.map(({ partition, size }) => {
        const start = device.file.starts[partition] ?? 0
        return [partition, device.flash.digest(start, start + size)]
      })
      expect(digests).toEqual(aim.images.map(({ partition, sha256 }) => [partition, sha256]))
      expect([device.model.loaderVersion, device.model.floors.all, device.facts().build]).toEqual([
        7,
        6,
        'H2.104.r4',
      ])
      expect(changedMarks(scene)).toEqual([])
    } finally {
      await scene.end()
    }
  }, 60_000)
})
