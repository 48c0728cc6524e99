/** What a master technician says of packages that a device installs by itself, each as a run on the twin. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { makePlan } from '../route/make-plan.ts'
import type { Bench, OnBench } from '../testing/families.ts'
import { benchOf, caseOf, fen, modifiedOf, packageOf } from '../testing/families.ts'
import { planned, run, say } from '../testing/installs.ts'
import { archived, newest } from '../testing/packages.ts'
import { kinds } from '../testing/told.ts'
import { tarn } from '../testing/tarn.ts'
import { isUntouched } from '../twin/blocks.ts'
import { imageOn } from '../twin/parts.ts'
import type { DeviceModel } from '../twin/state.ts'
import type { TwinInput } from '../twin/stepped.ts'
import { step } from '../twin/twin.ts'
import { rehearseCuts, worstByStep } from './rehearse.ts'

describe('a package pushed to a tablet', () => {
  const build = (more: Partial<Manifest> = {}) => {
    const made = packageOf(fen, {
      model: 'OSTR-11A',
      board: 'g1',
      build: 'FEN-26.20B-S',
      release: 8,
      patchDate: '2026-09-01',
      generation: 4,
      track: 'S',
      ...more,
    })
    const images = made.images.filter(({ role }) => role !== 'modem')
    return archived({ ...made, images })
  }
  const on = build()
  const next = build({ build: 'FEN-26.21B-S', patchDate: '2026-10-01', generation: 5 })
  const whole = build({ build: 'FEN-26.21B-S', patchDate: '2026-10-01', generation: 5 })
  const increment: Manifest = archived({
    ...whole,
    id: 'an increment',
    kind: 'incremental',
    requires: { exactBuild: 'FEN-26.20B-S' },
    images: whole.images.filter(({ role }) => role !== 'rescue' && role !== 'variant'),
  })
  const tablet = (more: Partial<OnBench> = {}) =>
    benchOf({ family: fen, on, shelf: [next, increment], ...more })
  const inRescue = (bench: Bench, ...inputs: readonly TwinInput[]) =>
    say(bench, { ...bench.device, mode: 'rescue' }, ...inputs)
  const pushing = ({ archives: [archive] }: Manifest): readonly TwinInput[] => {
    const { sha256: image = '', bytes: size = 0 } = archive ?? {}
    const file = { epoch: 1, store: 'push', name: 'p.tar' } as const
    return [
      { kind: 'file-put', ...file, size, image },
      { kind: 'chunk', epoch: 1, offset: 0, size },
      { kind: 'finish', epoch: 1 },
      { kind: 'install', ...file },
    ]
  }

  it('is written to the other slot, confirmed by hand, tried, found good, and merges then', () => {
    const bench = tablet()
    const plan = planned(bench, next, 'push')
    const { device, state } = run(bench, plan)
    expect(kinds(plan)).toEqual(expect.arrayContaining(['push', 'by-hand', 'first-start', 'prove']))
    expect(kinds(plan)).not.toContain('write')
    expect(state.phase.kind).toBe('ended')
    expect(device.slots).toEqual({ runs: 'b', tries: undefined, good: ['a', 'b'] })
    expect([device.merge, device.data.form, device.floors]).toEqual([
      'merging',
      'readable',
      { all: 5 },
    ])
    expect(isUntouched(device.parts['main_a']?.map ?? [])).toBe(true)
    expect(device.files).toEqual([])
  })

  it('that no hand confirms is not tried, and the device starts what it had', () => {
    const bench = tablet()
    const pushed = inRescue(bench, ...pushing(next))
    expect(pushed.device.slots?.tries).toBe('b')
    const late = step(bench.nature, pushed.device, { kind: 'facts' }, pushed.doneAt + 601_000)
    const soon = step(bench.nature, pushed.device, { kind: 'facts' }, pushed.doneAt + 599_000)
    expect([late.device.slots?.tries, late.device.merge]).toEqual([undefined, 'none'])
    expect([soon.device.slots?.tries, soon.device.merge]).toEqual(['b', 'staged'])
    const started = say(bench, pushed.device, { kind: 'keys', to: 'system' }).device
    expect([started.slots?.runs, started.merge]).toEqual(['a', 'none'])
  })

  it('waits while an update merges', () => {
    const merging = tablet({ more: { merge: 'merging' } })
    expect(inRescue(merging, ...pushing(next)).output).toEqual({ kind: 'refused', code: 'merging' })
  })

  it('as an increment goes on one exact build that nobody changed, and on no other', () => {
    const bench = tablet()
    const plan = planned(bench, increment)
    const { device } = run(bench, plan)
    expect(kinds(plan)).toContain('push')
    const variant = device.parts['variant_b']
    expect(variant && imageOn(variant, bench.nature.catalogue)?.builds[0]?.build).toBe(on.build)
    expect([device.slots?.runs, device.data.form]).toEqual(['b', 'readable'])
    const changed = tablet({ own: [modifiedOf(on, 'main')], more: { lock: 'open' } })
    const refused = inRescue(changed, ...pushing(increment))
    expect(refused.output).toEqual({ kind: 'refused', code: 'modified' })
    /* Looked over block by block: that takes its minutes before it says so. Another base is said at once. */
    const before = inRescue(changed, ...pushing(increment).slice(0, 3))
    expect(refused.doneAt - before.doneAt).toBeGreaterThan(100_000)
    const elsewhere = benchOf({
      family: fen,
      on: build({ build: 'FEN-26.19A-S' }),
      shelf: [next, increment],
    })
    const there = inRescue(elsewhere, ...pushing(increment))
    expect(there.output).toEqual({ kind: 'refused', code: 'other-base' })
    expect(there.doneAt).toBe(inRescue(elsewhere, ...pushing(increment).slice(0, 3)).doneAt)
  })

  it('cut short is refused by the device, and so is one for another model', () => {
    const bench = tablet()
    const [put, , , install] = pushing(next)
    if (put === undefined || install === undefined) throw new Error('nothing pushed')
    const short = inRescue(bench, put, { kind: 'chunk', epoch: 1, offset: 0, size: 8192 }, install)
    expect(short.output).toEqual({ kind: 'refused', code: 'no-file' })
    const foreign = archived({
      ...next,
      id: 'of another',
      targets: next.targets.map((one) => ({ ...one, model: 'OSTR-8B' })),
    })
    const other = tablet({ shelf: [foreign] })
    expect(inRescue(other, ...pushing(foreign)).output).toEqual({
      kind: 'refused',
      code: 'other-target',
    })
  })

  it('is wiped by the rescue before its first start where its data could not be opened', () => {
    const trial = build({ build: 'FEN-26.21A-T', track: 'T', release: 9, generation: 5 })
    const bench = benchOf({ family: fen, on: trial, shelf: [next] })
    const plan = planned(bench, next, 'push', false)
    const order = plan.steps.map((one) => (one.kind === 'by-hand' ? one.what : one.kind))
    expect(order.indexOf('reset')).toBeGreaterThan(order.indexOf('confirm'))
    expect(order.indexOf('reset')).toBeLessThan(order.indexOf('first-start'))
    const { device, state } = run(bench, plan)
    expect([state.phase.kind, device.data.form, device.outcome]).toEqual([
      'ended',
      'none',
      'normal',
    ])
  })

  it('is merged before the lock is closed over it', () => {
    const open = tablet({ more: { lock: 'open' } })
    const at = caseOf(open, on, { intent: 'relock', keepData: false })
    const made = makePlan({ at, mode: 'system', permission: true, way: 'push' })
    const order = made.ok ? kinds(made.value) : []
    expect(order.indexOf('merge')).toBeGreaterThan(order.indexOf('prove'))
    expect(order.indexOf('merge')).toBeLessThan(order.indexOf('lock'))
    /* Turned over a merge it would lose what it did not wipe: what is gone stays gone. */
    const merging = { ...open.device, mode: 'loader', merge: 'merging' as const }
    const lock = { kind: 'lock', epoch: 1, to: 'closed' } as const
    expect(say(open, merging, lock).device.data.form).toBe('none')
  })

  it('cut anywhere loses nothing: the slot that runs is never written', () => {
    const bench = tablet()
    const plan = planned(bench, next, 'push')
    const results = rehearseCuts(bench.nature, bench.device, plan)
    const leaves = new Set(results.map((one) => one.leaves))
    expect([...leaves].sort()).toEqual(['redo', 'take-up'])
    const push = plan.steps.find(({ kind }) => kind === 'push')?.number ?? 0
    expect(worstByStep(plan, results).get(push)).toBe('redo')
  })
})

describe('a package on a memory card', () => {
  const h2k = (more: Partial<Manifest>) =>
    archived(
      packageOf(tarn, { model: 'BRAK-H2K', board: 'r4', build: 'H2.0ZC.r4', release: 4, ...more }),
    )
  const on = h2k({})
  const next = h2k({ build: 'H2.104.r4', patchDate: '2026-10-01' })
  const handheld = (more: Partial<OnBench> = {}) =>
    benchOf({ family: tarn, on, shelf: [next], ...more })

  it('is copied and proven there, installed by hands, and taken away after', () => {
    const bench = handheld()
    const plan = planned(bench, next, 'card')
    const { device, state } = run(bench, plan)
    expect(state.phase.kind).toBe('ended')
    const order = kinds(plan)
    expect(
      order.filter((kind) => ['copy', 'prove-copy', 'install', 'drop'].includes(kind)),
    ).toEqual(['copy', 'prove-copy', 'install', 'drop'])
    const main = device.parts['main']
    expect(main && imageOn(main, bench.nature.catalogue)?.builds[0]?.build).toBe('H2.104.r4')
    expect([device.data.form, device.files]).toEqual(['readable', []])
  })

  it('that asks for a newer loader has it raised between the copy and the install', () => {
    const old = h2k({ loaderVersion: 6 })
    const raised = h2k({ kind: 'part', id: 'loader 7', loaderVersion: 7, build: 'H2.0ZP.r4' })
    const loader7 = { ...raised, images: raised.images.filter(({ role }) => role === 'loader') }
    const asks = archived(newest)
    const bench = benchOf({ family: tarn, on: old, shelf: [asks, loader7] })
    const plan = planned(bench, asks, 'card')
    const order = kinds(plan).filter((kind) => /^(copy|write|restart|install)$/.test(kind))
    expect(order).toEqual(['copy', 'write', 'restart', 'install'])
    const { device, state } = run(bench, plan)
    expect([state.phase.kind, device.outcome, device.loaderVersion]).toEqual(['ended', 'normal', 7])
    expect(plan.expected.loaderVersion).toBe(7)
    const least = planned(bench, { ...asks, requires: { minLoader: 6 } }, 'card')
    expect(kinds(least)).not.toContain('write')
  })

  it('of two that fit the first by name is taken, and nothing is said', () => {
    const bench = handheld()
    const file = (name: string, { archives: [archive] }: Manifest) =>
      ({ store: 'card', name, size: archive?.bytes ?? 0, holds: archive?.sha256 ?? '' }) as const
    const rescue = { ...bench.device, mode: 'rescue' }
    const by = (files: DeviceModel['files']) => {
      const input = { kind: 'install', store: 'card', name: undefined } as const
      const { device } = say(bench, { ...rescue, files }, input)
      const main = device.parts['main']
      return main && imageOn(main, bench.nature.catalogue)?.builds[0]?.build
    }
    expect(by([file('b.tar', next), file('a.tar', on)])).toBe('H2.0ZC.r4')
    expect(by([file('a.tar', next), file('b.tar', on)])).toBe('H2.104.r4')
    expect(by([file('a.bin', on), file('b.tar', next)])).toBe('H2.104.r4')
  })

  it('is refused under thirty percent, over a changed kernel as an increment, and larger than the card takes', () => {
    const low = handheld({ more: { battery: 29, mode: 'rescue' } })
    const files = [
      { store: 'card', name: 'a.tar', size: 1, holds: next.archives[0]?.sha256 ?? '' },
    ] as const
    const input = { kind: 'install', store: 'card', name: undefined } as const
    expect(say(low, { ...low.device, files }, input).output).toEqual({
      kind: 'refused',
      code: 'battery-low',
    })
    const enough = { ...low.device, files, battery: 31 }
    expect(say(low, enough, input).output.kind).toBe('done')
    const bench = handheld()
    const size = 1024 ** 3
    const put = {
      kind: 'file-put',
      epoch: 1,
      store: 'card',
      name: 'x.tar',
      size,
      image: 'x',
    } as const
    expect(say(bench, bench.device, put).output).toEqual({ kind: 'refused', code: 'no-room' })
    expect(say(bench, bench.device, { ...put, size: 4096 }).output.kind).toBe('kept')
  })

  it('cut in the middle of the install loops, and the same card is read again', () => {
    const bench = handheld()
    const plan = planned(bench, next, 'card')
    const results = rehearseCuts(bench.nature, bench.device, plan)
    const install = plan.steps.find(({ kind }) => kind === 'install')?.number ?? 0
    expect(worstByStep(plan, results).get(install)).toBe('loop-data-safe')
    const copy = plan.steps.find(({ kind }) => kind === 'copy')?.number ?? 0
    expect(worstByStep(plan, results).get(copy)).toBe('redo')
  })
})
