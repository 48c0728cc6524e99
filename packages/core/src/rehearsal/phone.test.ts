/** What a master technician says of a phone whose lock opens, each as a run on the twin. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { makePlan } from '../route/make-plan.ts'
import type { Bench, OnBench } from '../testing/families.ts'
import { alder, benchOf, caseOf, modifiedOf, packageOf } from '../testing/families.ts'
import { ended, kinds, refused, tell } from '../testing/told.ts'
import { isUntouched } from '../twin/blocks.ts'
import { startOf } from '../twin/start.ts'
import type { DeviceModel } from '../twin/state.ts'
import { judge } from '../match/judge.ts'
import { factsOf } from '../twin/told.ts'
import { step } from '../twin/twin.ts'
import { rehearse } from './rehearse.ts'

describe('a phone with a lock that opens', () => {
  const build = (more: Partial<Manifest> = {}) =>
    packageOf(alder, {
      model: 'CORV-5M',
      board: 'C',
      build: '21-2640.1-HO',
      release: 21,
      patchDate: '2026-10-01',
      generation: 3,
      requires: { minLoader: 30, maxLoader: 33 },
      ...more,
    })
  const phone = (more: Partial<OnBench> = {}) => benchOf({ family: alder, on: build(), ...more })
  const inLoader = (bench: Bench, more: Partial<DeviceModel> = {}): Bench => ({
    ...bench,
    device: { ...bench.device, mode: 'loader', ...more },
  })
  const open = { kind: 'lock', epoch: 1, to: 'open' } as const
  const close = { kind: 'lock', epoch: 1, to: 'closed' } as const
  const start = { kind: 'keys', to: 'system' } as const

  it('has one that opens only with its switch on, which wipes', () => {
    expect(refused(inLoader(phone()), open)).toBe('lock-switch')
    const opened = tell(inLoader(phone(), { lockSwitch: true, account: 'on' }), open).device
    expect([opened.lock, opened.data.form, opened.permission]).toEqual(['open', 'none', false])
    expect(opened.account).toBe('asked')
    const carriers = phone({ more: { fused: { ...phone().device.fused, carrier: 'S' } } })
    expect(tell(carriers, { kind: 'lock-switch', on: true }).device.lockSwitch).toBe(false)
  })

  it('greys the switch for the days its family says, and forgets an account where its family does', () => {
    const seven = 7 * 86_400_000
    const { lock } = alder
    if (lock.opens !== 'command') throw new Error('it opens')
    const after = (at: number, days = 7) => {
      const family = { ...alder, lock: { ...lock, greyedDays: days } }
      const bench = benchOf({ family, on: build(), more: { setUpAt: 1 } })
      return step(bench.nature, bench.device, { kind: 'lock-switch', on: true }, at).device
        .lockSwitch
    }
    expect([after(seven - 1), after(seven + 2), after(10, 0)]).toEqual([false, true, true])
    const asks = (asksAfterReset: boolean) => {
      const family = { ...alder, account: { ...alder.account, asksAfterReset } }
      return tell(benchOf({ family, on: build(), more: { account: 'on' } }), { kind: 'reset' })
        .device.account
    }
    expect([asks(true), asks(false)]).toEqual(['asked', 'on'])
  })

  it('closes over signed parts alone, of the row of its fuses, and at or above its floors', () => {
    const modified = phone({ own: [modifiedOf(build(), 'rescue')], more: { lock: 'open' } })
    expect(refused(inLoader(modified), close)).toBe('not-signed')
    const targets = build().targets.map((one) => ({ ...one, region: 'ML' }))
    const foreign = benchOf({ family: alder, on: build({ targets }), more: { lock: 'open' } })
    expect(refused(inLoader(foreign), close)).toBe('other-variant')
    const low = phone({ more: { lock: 'open', floors: { main: 9 } } })
    expect(refused(inLoader(low), close)).toBe('floor')
    expect(refused(inLoader(phone({ more: { lock: 'open' } })), close)).toBe('done')
  })

  it('closed over all that is signed keeps data nothing opens, asks for a reset, and a second start proves it', () => {
    const closed = tell(inLoader(phone({ more: { lock: 'open' } })), close, start).device
    expect([closed.lock, closed.data.form, closed.outcome]).toEqual([
      'closed',
      'unreadable',
      'asks-reset',
    ])
    expect(closed.data.items).toBe(12)
    const bench = phone({ more: { lock: 'open' } })
    const at = caseOf(bench, build(), { intent: 'relock', keepData: false })
    const { plan, device, fates, reaches } = ended(bench, at)
    expect(kinds(plan).filter((kind) => kind === 'first-start')).toHaveLength(2)
    expect(kinds(plan).indexOf('lock')).toBeGreaterThan(kinds(plan).indexOf('prove'))
    expect([device.lock, device.outcome, device.data.form]).toEqual(['closed', 'normal', 'none'])
    expect(fates[0]).toMatchObject({ fate: 'wiped', why: 'lock' })
    expect(reaches).toBe(true)
  })

  it('goes no further than its loader under a closed lock with a part that is not signed', () => {
    const bench = phone({ own: [modifiedOf(build(), 'kernel')] })
    const { device } = tell({ ...bench, device: { ...bench.device, mode: 'off' } }, start)
    expect([device.outcome, device.mode]).toEqual(['stays', 'loader'])
    expect(factsOf(bench.nature, device).shows).toBe('not signed')
    const opened = tell(inLoader(bench, { lock: 'open' }), start).device
    expect([opened.outcome, opened.marks]).toEqual(['normal', ['custom']])
  })

  it('loops on data of a later patch, which lie there whole and open no more', () => {
    const on = build({ patchDate: '2026-05-01' })
    const data = { ...phone().device.data, patchDate: '2026-10-01' }
    const bench = benchOf({ family: alder, on, more: { data, mode: 'off' } })
    const looped = tell(bench, start).device
    expect([looped.outcome, looped.mode]).toEqual(['loop', 'loop'])
    expect(isUntouched(looped.parts['customer']?.map ?? [])).toBe(true)
    expect(tell({ ...bench, device: looped }, { kind: 'tally' }).output.kind).toBe('silent')
  })

  it('keeps no radio where its modem is not for its loader, and no sensors where its board is of the early ones', () => {
    const on = build({ requires: { minLoader: 32 } })
    expect(
      startOf(alder, benchOf({ family: alder, on }).device, phone().nature.catalogue).outcome,
    ).toBe('normal')
    const unpaired = benchOf({ family: alder, on })
    expect(startOf(alder, unpaired.device, unpaired.nature.catalogue).limits).toEqual(['no-radio'])
    const early = packageOf(alder, {
      model: 'CORV-4N',
      board: 'B1',
      build: '20-2638.0-HO',
      release: 20,
    })
    const four = benchOf({ family: alder, on: early })
    expect(startOf(alder, four.device, four.nature.catalogue).limits).toEqual(['no-sensors'])
    const fault = (on: Manifest) =>
      judge(caseOf(benchOf({ family: alder, on }), on)).findings.find(
        ({ rule }) => rule === 'state.known-fault',
      )
    expect(fault(early)?.facts).toMatchObject({ source: 'noted by the house', devices: 3 })
    const before = packageOf(alder, {
      model: 'CORV-4N',
      board: 'B1',
      build: '20-2637.9-HO',
      release: 20,
    })
    const was = benchOf({ family: alder, on: before })
    expect(startOf(alder, was.device, was.nature.catalogue).limits).toEqual([])
    expect(fault(before)).toBe(undefined)
  })

  it('is written in two modes, each part where it is taken, and met again after each way', () => {
    const next = build({ build: '21-2641.0-HO', loaderVersion: 32, requires: { minLoader: 32 } })
    const bench = phone({ shelf: [next] })
    const { plan, device, reaches } = ended(bench, caseOf(bench, next))
    const modes = plan.steps.flatMap((one) =>
      one.kind === 'write' ? [`${one.image.role} ${one.mode}`] : [],
    )
    expect(new Set(modes)).toEqual(
      new Set([
        'loader loader',
        'modem loader',
        'kernel loader',
        'rescue loader',
        'variant transfer',
        'support transfer',
        'main transfer',
      ]),
    )
    expect([device.outcome, device.data.form]).toEqual(['normal', 'readable'])
    expect(reaches).toBe(true)
  })

  it('of another board than the plan’s is left before anything is said to it', () => {
    const next = build({ build: '21-2641.0-HO' })
    const bench = phone({ shelf: [next] })
    const made = makePlan({ at: caseOf(bench, next), mode: 'system', permission: true })
    if (!made.ok) throw new Error(made.refusal.kind)
    const other = { ...bench.device, fused: { ...bench.device.fused, board: 'D' } }
    const { state, device } = rehearse(bench.nature, other, made.value).end
    expect(state.phase).toEqual({
      kind: 'stopped',
      why: { kind: 'other-id', fact: 'board', here: 'D', planned: 'C' },
    })
    expect(Object.values(device.parts).every(({ map }) => isUntouched(map))).toBe(true)
  })
})
