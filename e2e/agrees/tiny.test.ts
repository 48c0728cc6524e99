/** A whole job on a family that nothing but a test knows: planned, rehearsed with its cuts, run on real bytes. */
import type { Case, Cut } from '@plain-slate/core'
import { rehearseCuts, worstByStep } from '@plain-slate/core'
import type { DemoDevice } from '@plain-slate/demo'
import { describe, expect, it } from 'vitest'
import { bytesAgainstMap, changedMarks, comparable, readableMarks } from './compare.ts'
import { onStandIn, onTwin, planFor, sceneOf } from './scene.ts'
import { shelfOf } from './shelf.ts'
import { TINY, TINY_PACKAGES, candle } from './tiny.ts'

const SHELF = shelfOf(TINY, 64, { here: TINY_PACKAGES, known: [], devices: [] })
const aimed = (build: string) => {
  const found = SHELF.shelf.find(({ manifest }) => manifest.build === build)
  if (found === undefined) throw new Error(`no ${build}`)
  return found.manifest
}
type Wanted = Pick<Case, 'intent' | 'keepData'>
const update: Wanted = { intent: 'update', keepData: true }

async function done(build: string, wanted: Wanted, cut?: Cut, more: Partial<DemoDevice> = {}) {
  const scene = await sceneOf(SHELF, candle(more))
  try {
    const wish = { aim: aimed(build), evidence: new Map(), way: undefined, ...wanted }
    const plan = planFor(scene, wish)
    if (plan === undefined) return undefined
    const twin = onTwin(scene, plan, cut)
    const real = await onStandIn(scene, plan, cut, twin.phase)
    const worst = worstByStep(plan, rehearseCuts(scene.nature, scene.before, plan))
    const wiped = twin.device.data.form === 'none'
    const marks = wiped ? readableMarks(scene) : changedMarks(scene)
    return { plan, twin, real, worst, marks, bytes: bytesAgainstMap(scene) }
  } finally {
    await scene.end()
  }
}

function same(found: Awaited<ReturnType<typeof done>>) {
  if (found === undefined) throw new Error('no plan')
  expect(comparable(found.real)).toEqual(comparable(found.twin))
}

describe('a family that a test made up', () => {
  it('is updated with its data kept, as rehearsed and byte by byte', async () => {
    const found = await done('yx', update)
    expect(found?.twin.phase).toBe('ended')
    same(found)
    expect([found?.bytes, found?.marks]).toEqual([[], []])
    expect(found?.real.device.floors).toEqual({ all: 2 })
    const classes = new Set(found?.worst.values())
    expect(classes.size).toBeGreaterThan(1)
    expect([classes.has('data-lost'), classes.has('dead')]).toEqual([false, false])
  })

  it('is taken up after a cut at any kind, and ends the same', async () => {
    for (const kind of ['cable', 'battery', 'computer'] as const) {
      const found = await done('yx', update, { command: 0, bytes: 5000, kind })
      expect(found?.twin.phase).toBe('ended')
      same(found)
      expect([kind, found?.bytes, found?.marks]).toEqual([kind, [], []])
    }
  })

  it('goes back a release only with its data erased, and below its floor not at all', async () => {
    expect(await done('xy', update)).toBeUndefined()
    const wiped = await done('xy', { intent: 'downgrade', keepData: false })
    expect([wiped?.real.device.data.form, wiped?.marks]).toEqual(['none', []])
    same(wiped)
    const low = { intent: 'downgrade', keepData: false } as const
    expect(await done('xy', low, undefined, { build: 'yx', floor: 2 })).toBeUndefined()
  })
})
