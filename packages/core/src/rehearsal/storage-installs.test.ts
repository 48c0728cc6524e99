/** What a master technician says of a package on a phone's own storage, as runs on the twin. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { archiveOf } from '../firmware/manifest.ts'
import { orderOf } from '../plan/order.ts'
import type { PlanWay } from '../plan/install.ts'
import { makePlan } from '../route/make-plan.ts'
import type { Bench, OnBench } from '../testing/families.ts'
import { alder, benchOf, caseOf, modifiedOf, packageOf } from '../testing/families.ts'
import { planned, run, say } from '../testing/installs.ts'
import { archived } from '../testing/packages.ts'
import { said } from '../testing/judged.ts'
import { kinds } from '../testing/told.ts'

describe('a package on a phone’s own storage', () => {
  const phone = (more: Partial<Manifest>) =>
    archived(
      packageOf(alder, {
        model: 'CORV-4N',
        board: 'B2',
        build: '19-2630.0-HO',
        release: 19,
        patchDate: '2026-07-01',
        generation: 3,
        ...more,
      }),
    )
  const on = phone({})
  const next = phone({ build: '19-2636.0-HO', patchDate: '2026-08-01' })
  const older = phone({ build: '19-2620.0-HO', patchDate: '2026-05-01' })
  const bench = benchOf({ family: alder, on, shelf: [next, older] })

  it('is installed by the rescue and taken away after; a wipe on this road comes after it, and takes it', () => {
    const kept = planned(bench, next, 'storage')
    expect(kinds(kept)).toContain('drop')
    expect(run(bench, kept).device).toMatchObject({ files: [], outcome: 'normal' })
    const wiped = planned(bench, older, 'storage', false)
    const order = wiped.steps.map((one) => (one.kind === 'by-hand' ? one.what : one.kind))
    expect(order.indexOf('reset')).toBeGreaterThan(order.indexOf('install'))
    expect(order).not.toContain('drop')
    const { device, state } = run(bench, wiped)
    expect([state.phase.kind, device.files, device.data.form]).toEqual(['ended', [], 'none'])
  })

  it('is gone with the customer’s partition, whoever erases it', () => {
    const files = [{ store: 'storage', name: 'a.tar', size: 1, holds: '' }] as const
    const erase = { kind: 'erase', epoch: 1, partition: 'customer' } as const
    const there = { ...bench.device, files, mode: 'transfer' }
    expect(say(bench, there, erase).device.files).toEqual([])
    expect(say(bench, there, { ...erase, partition: 'cache' }).device.files).toEqual(files)
  })

  it('closes the lock after its start was proven, where that is what the owner wants', () => {
    const open = benchOf({ family: alder, on, shelf: [next], more: { lock: 'open' } })
    const at = caseOf(open, on, { intent: 'relock', keepData: false })
    const made = makePlan({ at, mode: 'system', permission: true, way: 'storage' })
    if (!made.ok) throw new Error(JSON.stringify(made.refusal))
    const order = kinds(made.value)
    expect(order.indexOf('lock')).toBeGreaterThan(order.indexOf('first-start'))
    expect(run(open, made.value).device).toMatchObject({ lock: 'closed', outcome: 'normal' })
  })

  it('asks for the link permission where it is off, since files are put to the running system', () => {
    const ready = (permission: boolean, mode = 'system') => {
      const at = caseOf(bench, next, { intent: 'update', keepData: true })
      const made = makePlan({ at, mode, permission, way: 'storage' })
      if (!made.ok) throw new Error(JSON.stringify(made.refusal))
      return made.value.steps.flatMap((one) => (one.kind === 'ready' ? [one.what] : []))
    }
    expect(ready(false)).toContain('permission')
    expect(ready(true)).toContain('permission')
    /* One that does not run cannot be asked for it now. */
    expect(ready(false, 'off')).not.toContain('permission')
  })

  it('is no road of a device that does not start: nothing can be copied to it; what is pushed can', () => {
    const madeAs = (starts: string, mode: string, way: PlanWay) => {
      const at = caseOf(bench, next, { intent: 'update', keepData: true })
      const lines = said({ 'history.starts': starts, 'owner.managed': 'agreed' }, at).lines
      return makePlan({ at: { ...at, lines }, mode, permission: true, way }).ok
    }
    expect(madeAs('stops', 'off', 'storage')).toBe(false)
    expect(madeAs('stops', 'off', 'push')).toBe(true)
    expect(madeAs('runs', 'off', 'storage')).toBe(true)
    /* It runs now, whatever was said when it came in. */
    expect(madeAs('stops', 'system', 'storage')).toBe(true)
  })

  it('is pushed into a rescue that was told to listen, and one of its owner’s own takes nothing', () => {
    const bare = benchOf({ family: alder, on, shelf: [on, next], more: { lock: 'open' } })
    const at = caseOf(bare, next, { intent: 'update', keepData: true })
    const made = makePlan({ at, mode: 'system', permission: true, way: 'push' })
    if (!made.ok) throw new Error(JSON.stringify(made.refusal))
    const { steps } = made.value
    const push = steps.findIndex(({ kind }) => kind === 'push')
    const menu = steps.slice(0, push).findLast(({ kind }) => kind === 'enter')
    expect(menu).toMatchObject({ way: { to: 'listening', line: 'cable' } })
    expect(run(bare, made.value).device).toMatchObject({ outcome: 'normal', files: [] })
    expect(run(bare, made.value).device.data.form).toBe('readable')
    const own = modifiedOf(on, 'rescue')
    const theirs = benchOf({ family: alder, on, shelf: [next], more: { lock: 'open' }, own: [own] })
    const { sha256: archive = '', bytes = 0 } = archiveOf(next) ?? {}
    const file = { store: 'push', name: '0.tar', size: bytes, holds: archive } as const
    const there = { ...theirs.device, mode: 'listening', files: [file] }
    const install = { kind: 'install', store: 'push', name: '0.tar' } as const
    expect(say(theirs, there, install).output).toMatchObject({ code: 'own-rescue' })
    expect(say(bare, { ...there, parts: bare.device.parts }, install).output.kind).toBe('done')
  })

  it('asks for no reset where only the cache is erased', () => {
    const cache = phone({
      build: '19-2636.0-HO',
      patchDate: '2026-08-01',
      effects: { erases: ['cache'] },
    })
    const there = benchOf({ family: alder, on, shelf: [cache] })
    const plan = planned(there, cache, 'storage')
    expect(plan.steps.some((one) => one.kind === 'by-hand' && one.what === 'reset')).toBe(false)
    expect(run(there, plan).device.data.form).toBe('readable')
  })

  it('goes on by the maker’s rescue: one that its owner changed is overwritten first, and takes nothing', () => {
    const own = modifiedOf(on, 'rescue')
    const stock = on.images.find(({ role }) => role === 'rescue')?.sha256 ?? ''
    const phoneOf = (more: Partial<OnBench> = {}) =>
      benchOf({ family: alder, on, shelf: [on, next], more: { lock: 'open' }, own: [own], ...more })
    const madeOn = (bench: Bench, rescue: string | undefined) => {
      const evidence = new Map(
        rescue === undefined ? [] : [['rescue', { kind: 'digest', sha256: rescue } as const]],
      )
      const at = caseOf(bench, next, { intent: 'update', keepData: true, evidence })
      return makePlan({ at, mode: 'system', permission: true, way: 'storage' })
    }
    const orderOn = (bench: Bench, rescue: string | undefined) => {
      const made = madeOn(bench, rescue)
      return made.ok ? kinds(made.value) : []
    }
    const made = madeOn(phoneOf(), own.image)
    if (!made.ok) throw new Error(JSON.stringify(made.refusal))
    const order = kinds(made.value)
    expect(order.indexOf('write')).toBeGreaterThan(order.indexOf('prove-copy'))
    expect(order.indexOf('write')).toBeLessThan(order.indexOf('install'))
    expect(orderOf(made.value, alder).map(({ code }) => code)).toContain('rescue-first')
    expect(run(phoneOf(), made.value).device).toMatchObject({ outcome: 'normal', files: [] })
    /* Where nobody read it, it goes on as well; where a known one stands there, or the lock is closed, it need not. */
    expect(orderOn(phoneOf(), undefined)).toContain('write')
    expect(orderOn(phoneOf({ own: [] }), stock)).not.toContain('write')
    expect(orderOn(phoneOf({ own: [], more: { lock: 'closed' } }), undefined)).not.toContain(
      'write',
    )
    /* A family whose rescue takes what it is given needs none of it. */
    const lax = {
      ...alder,
      installs: alder.installs.map((rule) => ({
        ...rule,
        checks: rule.checks.filter((one) => one !== 'stock-rescue'),
      })),
    }
    expect(orderOn(phoneOf({ family: lax }), own.image)).not.toContain('write')
    const bare = phoneOf()
    const { sha256: holds = '', bytes: size = 0 } = archiveOf(next) ?? {}
    const file = { store: 'storage', name: '0.tar', size, holds } as const
    const there = { ...bare.device, mode: 'rescue', files: [file] }
    const install = { kind: 'install', store: 'storage', name: undefined } as const
    expect(say(bare, there, install).output).toMatchObject({ kind: 'refused', code: 'no-storage' })
    expect(
      say({ ...bare, nature: { ...bare.nature, family: lax } }, there, install).output.kind,
    ).toBe('done')
  })
})
