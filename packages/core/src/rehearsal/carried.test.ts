/** A package with an owner's image in it, planned, rehearsed and held against others. */
import { describe, expect, it } from 'vitest'
import { withCarried } from '../firmware/carried.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import { planOf } from '../plan/plan.ts'
import { routesTo } from '../route/route.ts'
import { carriedIn } from '../testing/carrying.ts'
import { alder, benchOf, caseOf, packageOf } from '../testing/families.ts'
import { said } from '../testing/judged.ts'
import { digestOf } from '../testing/packages.ts'
import { catalogueOf } from '../twin/images.ts'
import { imageOn } from '../twin/parts.ts'
import { rehearse } from './rehearse.ts'

describe('a package with an owner’s image', () => {
  const build = (name: string, patchDate: string) =>
    packageOf(alder, { model: 'CORV-5N', board: 'C', build: name, release: 20, patchDate })
  const on = build('20-2630.0-HO', '2026-07-01')
  const next = build('20-2638.0-HO', '2026-09-01')
  const { device: of } = benchOf({ family: alder, on })
  const own = carriedIn(next, of.serial)

  it('is the package but for that image, by another name, and leads no other to it', () => {
    expect(own.id).not.toBe(next.id)
    expect(own.images.filter(({ role }) => role !== 'kernel')).toEqual(
      next.images.filter(({ role }) => role !== 'kernel'),
    )
    expect(own.archives.slice(0, -1)).toEqual(next.archives)
    const known = catalogueOf([next, own])
    const [kernel] = own.carried?.images ?? []
    expect(known.get(kernel?.sha256 ?? '')?.modified).toBe(true)
    expect(next.images.every(({ sha256 }) => known.get(sha256)?.modified === false)).toBe(true)
    const other = { file: 'b.tar', sha256: digestOf('b') }
    expect(withCarried(next, [], { archive: other, serial: 'x' }).id).not.toBe(own.id)
  })

  it('of a phone that came with its lock closed is opened for, and left so: no road closes it over that', () => {
    for (const relock of ['close', 'leave'] as const) {
      const bench = benchOf({ family: alder, on, shelf: [own] })
      const { shelved, ...at } = said(
        { 'consent.carried': 'yes', 'owner.managed': 'agreed' },
        caseOf(bench, own, {
          intent: 'update',
          keepData: false,
          house: { ...USUAL_HOUSE, relock },
        }),
      )
      const { mode, permission } = bench.device
      const start = { at, mode, permission }
      const { routes } = routesTo({ start, aims: [shelved.key] })
      expect(routes.length).toBeGreaterThan(0)
      for (const { moves } of routes) {
        const made = planOf(start, moves)
        if (!made.ok) throw new Error(JSON.stringify(made.refusal))
        const { end } = rehearse(bench.nature, bench.device, made.value)
        expect([end.state.phase.kind, end.device.lock]).toEqual(['ended', 'open'])
      }
    }
  })

  it('goes on as planned under an open lock, data kept, and is preferred to the maker’s of the same build', () => {
    const bench = benchOf({ family: alder, on, shelf: [next, own], more: { lock: 'open' } })
    const { shelved: _, ...at } = said(
      { 'consent.carried': 'yes', 'owner.managed': 'agreed' },
      caseOf(bench, own, { intent: 'update', keepData: true }),
    )
    const { mode, permission } = bench.device
    const start = { at, mode, permission }
    const [best] = routesTo({ start }).routes
    expect(best?.shelved.manifest.id).toBe(own.id)
    const made = planOf(start, best?.moves ?? [])
    if (!made.ok) throw new Error(JSON.stringify(made.refusal))
    const { end } = rehearse(bench.nature, bench.device, made.value)
    expect([end.state.phase.kind, end.device.outcome, end.device.data.form]).toEqual([
      'ended',
      'normal',
      'readable',
    ])
    const kernel = end.device.parts['kernel']
    expect(kernel && imageOn(kernel, bench.nature.catalogue)?.modified).toBe(true)
    /* Told no, the maker's own is what is left; another device's is none for this one. */
    const offered = (answer: string, serial = of.serial) => {
      const mine = carriedIn(next, serial)
      const there = benchOf({ family: alder, on, shelf: [next, mine], more: { lock: 'open' } })
      const { shelved: __, ...case_ } = said(
        { 'consent.carried': answer, 'owner.managed': 'agreed' },
        caseOf(there, mine, { intent: 'update', keepData: true }),
      )
      return routesTo({ start: { at: case_, mode, permission } }).routes.map(
        ({ shelved }) => shelved.manifest.id,
      )
    }
    expect(offered('yes')).toContain(own.id)
    expect(offered('no')).not.toContain(own.id)
    expect(offered('no')).toContain(next.id)
    expect(offered('yes', 'SOMEBODY-ELSES')).not.toContain(own.id)
  })

  it('foresees no fault that is known under the maker’s image in its place: what shows is told as worse', () => {
    const early = (name: string) =>
      packageOf(alder, { model: 'CORV-4N', board: 'B1', build: name, release: 20 })
    const aim = early('20-2640.0-HO')
    const limitsOf = (pack: typeof aim) => {
      const bench = benchOf({
        family: alder,
        on: early('20-2632.0-HO'),
        shelf: [aim, pack],
        more: { lock: 'open' },
      })
      const { shelved, ...at } = said(
        { 'consent.carried': 'yes', 'owner.managed': 'agreed' },
        caseOf(bench, pack, { intent: 'update', keepData: true }),
      )
      const start = { at, mode: bench.device.mode, permission: bench.device.permission }
      const made = planOf(start, [{ pack: shelved.key, way: 'images' }])
      if (!made.ok) throw new Error(JSON.stringify(made.refusal))
      return made.value.expected.limits
    }
    expect(limitsOf(aim)).toEqual(['no-sensors'])
    expect(limitsOf(carriedIn(aim, of.serial))).toBeUndefined()
    expect(limitsOf(carriedIn(aim, of.serial, 'rescue'))).toEqual(['no-sensors'])
  })
})
