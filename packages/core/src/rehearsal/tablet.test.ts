/** What a master technician says of a tablet with two slots, each as a run on the twin. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { makePlan } from '../route/make-plan.ts'
import type { OnBench } from '../testing/families.ts'
import { benchOf, caseOf, fen, packageOf } from '../testing/families.ts'
import { ended, refused, tell } from '../testing/told.ts'
import { isUntouched } from '../twin/blocks.ts'
import type { DeviceModel } from '../twin/state.ts'
import { step } from '../twin/twin.ts'

describe('a tablet with two slots', () => {
  const build = (more: Partial<Manifest> = {}) =>
    packageOf(fen, {
      model: 'OSTR-11A',
      board: 'g1',
      build: 'FEN-26.20B-S',
      release: 8,
      patchDate: '2026-09-01',
      generation: 4,
      track: 'S',
      roles: ['loader', 'kernel', 'rescue', 'variant', 'support', 'main'],
      ...more,
    })
  const next = build({ build: 'FEN-26.21B-S', patchDate: '2026-10-01', generation: 5 })
  const without = (manifest: Manifest): Manifest => ({
    ...manifest,
    images: manifest.images.filter(({ role }) => role !== 'modem'),
  })
  const tablet = (more: Partial<OnBench> = {}) =>
    benchOf({ family: fen, on: without(build()), shelf: [without(next)], ...more })

  it('has its other slot written, tried, and found good; its floor rises then', () => {
    const bench = tablet()
    const { plan, device, reaches } = ended(bench, caseOf(bench, without(next)))
    const parts = plan.steps.flatMap((one) => (one.kind === 'write' ? [one.image.partition] : []))
    expect(parts.every((name) => name.endsWith('_b') || name === 'rescue')).toBe(true)
    expect(device.slots).toEqual({ runs: 'b', tries: undefined, good: ['a', 'b'] })
    expect([device.floors, device.outcome]).toEqual([{ all: 5 }, 'normal'])
    expect(isUntouched(device.parts['main_a']?.map ?? [])).toBe(true)
    expect(reaches).toBe(true)
  })

  it('falls back to the slot it had when the one to be tried is torn', () => {
    const bench = tablet()
    const { device: ready } = tell(
      { ...bench, device: { ...bench.device, mode: 'loader' } },
      { kind: 'slot', epoch: 1, slot: 'b' },
    )
    const main = ready.parts['main_b']
    if (main === undefined) throw new Error('no main')
    const torn = {
      ...ready,
      parts: {
        ...ready.parts,
        main_b: { ...main, map: [{ from: 0, to: main.blocks, kind: 'torn' as const }] },
      },
    }
    const { device } = tell({ ...bench, device: torn }, { kind: 'keys', to: 'system' })
    expect([device.outcome, device.slots?.runs, device.returns]).toEqual(['normal', 'a', 3])
    expect(device.data.form).toBe('readable')
  })

  it('written to while it merges loses its data, so every plan waits for that first', () => {
    const bench = tablet({ more: { merge: 'merging' } })
    const image = without(next).images.find(({ role }) => role === 'main')
    const begun = tell(
      { ...bench, device: { ...bench.device, mode: 'loader' } },
      {
        kind: 'begin',
        epoch: 1,
        partition: 'main_b',
        offset: 0,
        size: 4096,
        image: image?.sha256 ?? '',
      },
    )
    expect([begun.output.kind, begun.device.data.form]).toEqual(['kept', 'unreadable'])
    const { plan, device, reaches } = ended(bench, caseOf(bench, without(next)))
    const order = plan.steps.map(({ kind }) => kind)
    expect(order.indexOf('merge')).toBeLessThan(order.indexOf('write'))
    expect([device.merge, device.data.form, reaches]).toEqual(['none', 'readable', true])
    /* Met again where it is written: its table and what is left alone are looked at there. */
    expect(order.slice(order.indexOf('merge'), order.indexOf('write'))).toContain('meet')
    const early = { ...without(next), channel: 'unreleased' as const }
    const made = makePlan({ at: caseOf(tablet(), early), mode: 'system', permission: true })
    expect(made.ok || made.refusal).toMatchObject({ rule: 'package.unreleased' })
  })

  it('with an update of its own prepared has it taken back by its rescue first', () => {
    const bench = tablet({ more: { merge: 'staged' } })
    const { plan, device, reaches } = ended(bench, caseOf(bench, without(next)))
    const step = plan.steps.find(({ kind }) => kind === 'merge')
    expect(step).toMatchObject({ mode: 'rescue', do: 'cancel' })
    expect([device.merge, device.data.form, reaches]).toEqual(['none', 'readable', true])
    const rescue = { ...bench, device: { ...bench.device, mode: 'rescue' } }
    const cancel = { kind: 'merge', epoch: 1, do: 'cancel' } as const
    expect(tell(rescue, cancel).device.merge).toBe('none')
    const merging = { ...rescue.device, merge: 'merging' as const }
    expect(refused({ ...rescue, device: merging }, cancel)).toBe('merging')
  })

  it('has done merging when its system ran long enough, and not when it was off', () => {
    const bench = tablet({ more: { merge: 'merging', fresh: true, mode: 'off' } })
    const started = tell(bench, { kind: 'keys', to: 'system' }).device
    const later = (device: DeviceModel) =>
      step(bench.nature, device, { kind: 'facts' }, device.at + 15 * 60_000)
    expect(started.merge).toBe('merging')
    expect(later(started).device.merge).toBe('none')
    const off = tell({ ...bench, device: started }, { kind: 'power-off' }).device
    expect(later(off).device.merge).toBe('merging')
  })

  it('from the trial track asks for a reset under a stable build', () => {
    const on = without(build({ build: 'FEN-26.19A-S' }))
    const data = { ...tablet().device.data, track: 'T' }
    const bench = benchOf({ family: fen, on, more: { data, mode: 'off' } })
    expect(tell(bench, { kind: 'keys', to: 'system' }).device.outcome).toBe('asks-reset')
    const stable = { ...data, track: 'S' }
    const other = benchOf({
      family: fen,
      on: without(build({ track: 'T' })),
      more: { data: stable, mode: 'off' },
    })
    expect(tell(other, { kind: 'keys', to: 'system' }).device.outcome).toBe('normal')
  })
})
