/** What a master technician says of a maker's service software, each as a run on the twin. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { judge } from '../match/judge.ts'
import type { Case } from '../match/rule.ts'
import { makePlan } from '../route/make-plan.ts'
import { begin, reduce, takeUp } from '../run/run.ts'
import type { Bench } from '../testing/families.ts'
import { alder, benchOf, caseOf, deviceIdOf, packageOf } from '../testing/families.ts'
import { saysOf } from '../testing/judged.ts'
import { ended, kinds, refused } from '../testing/told.ts'
import { factsOf } from '../twin/told.ts'
import type { Permit } from '../wire/permit.ts'
import { rehearseCuts } from './rehearse.ts'

describe('service software', () => {
  const build = (name: string, more: Partial<Manifest> = {}): Manifest =>
    packageOf(alder, {
      model: 'CORV-4M',
      board: 'B2',
      build: name,
      release: 20,
      patchDate: '2026-09-01',
      ...more,
    })
  const on = build('20-2638.0-HO')
  const made = build('20-2638.9-HO', { kind: 'service', generation: 9, patchDate: '2026-10-01' })
  const images = made.images.filter(({ role }) => alder.signedSet.includes(role))
  const service: Manifest = { ...made, images }
  const serial = 'ALDER0000001'
  const device = deviceIdOf(alder)
  const permit: Permit = { id: 'PM-1', device, scope: 'service', until: '2026-11-30' }
  const bench = (permits: readonly Permit[] = [permit]): Bench => {
    const plain = benchOf({ family: alder, on, shelf: [service] })
    return { ...plain, nature: { ...plain.nature, permits } }
  }
  const wish = (more: Partial<Case> = {}): Case =>
    caseOf(bench(), service, { intent: 'service', keepData: true, permit, ...more })
  const says = (more: Partial<Case> = {}) => judge(wish(more)).findings.map(({ code }) => code)

  it('of an older date wipes nothing: its starts move no data, and what the device reads stays as it is', () => {
    const older: Manifest = { ...service, patchDate: '2025-01-01', release: 19 }
    const at = caseOf(bench(), older, { intent: 'service', keepData: true, permit })
    expect(saysOf('promise.data', at)).toMatch(/^fits (kept|same)$/)
    const wipes = caseOf(bench(), older, { intent: 'service', keepData: false, permit })
    const { device, plan } = ended(bench(), wipes)
    expect(plan.steps.some(({ kind }) => kind === 'erase')).toBe(false)
    expect(device.data.form).toBe('readable')
    /* Stock of such a date would not keep them. */
    const stock: Manifest = { ...on, id: 'older', patchDate: '2025-01-01', release: 19 }
    expect(saysOf('promise.data', caseOf(bench(), stock, { keepData: true }))).toContain(
      'does-not-fit',
    )
  })

  it('runs where its maker permits it: marked, its permit used up, floors and data as they were', () => {
    const { plan, device, reaches } = ended(bench(), wish())
    const order = kinds(plan)
    expect(order.indexOf('permit')).toBeLessThan(order.indexOf('write'))
    expect([device.outcome, device.marks, device.permit, device.spent]).toEqual([
      'normal',
      ['service'],
      undefined,
      ['PM-1'],
    ])
    const { floors, data } = bench().device
    expect([device.floors, device.data]).toEqual([floors, data])
    expect(plan.expected.build).toBe('20-2638.9-HO')
    expect(reaches).toBe(true)
  })

  it('is taken with a permit for this very device, that has not run out, and asked for', () => {
    expect(says()).toEqual(
      expect.arrayContaining(['fit.permit.here.word', 'fit.permit.device.fits']),
    )
    const { permit: _, ...without } = wish()
    expect(judge(without).findings).toContainEqual(
      expect.objectContaining({ code: 'fit.permit.here.none', remedy: { kind: 'permit' } }),
    )
    expect(says({ permit: { ...permit, device: 'ALDER-ID-7' } })[0]).toBe('fit.permit.device.other')
    expect(says({ today: '2026-12-01' })[0]).toBe('fit.permit.day.over')
    expect(says({ today: '2026-11-30' })).toContain('fit.permit.day.fits')
    expect(says({ intent: 'update' })[0]).toBe('fit.package.kind.service')
    const planned = (at: Case) => {
      const made = makePlan({ at, mode: 'system', permission: true })
      return made.ok ? 'a plan' : made.refusal
    }
    expect(planned(without)).toEqual({ kind: 'no-permit' })
    const stock = caseOf(bench(), on, { intent: 'service' })
    expect(planned(stock)).toMatchObject({ rule: 'package.kind' })
  })

  it('is refused by the device without one, and so is a permit for another, of nobody’s, or used', () => {
    const loader = (permits?: readonly Permit[], more = {}): Bench => {
      const one = bench(permits)
      return { ...one, device: { ...one.device, mode: 'loader', ...more } }
    }
    const kernel = service.images.find(({ role }) => role === 'kernel')?.sha256 ?? ''
    const part = { partition: 'kernel', offset: 0, size: 4096, image: kernel } as const
    const write = { kind: 'begin', epoch: 1, ...part } as const
    const give = (of: Permit) => ({ kind: 'take-permit', epoch: 1, permit: of }) as const
    expect(refused(loader(), write)).toBe('no-permit')
    expect(refused(loader(), give(permit), write)).toBe('kept')
    expect(refused(loader(), give({ ...permit, device: 'X' }))).toBe('other-device')
    expect(refused(loader([]), give(permit))).toBe('not-granted')
    expect(refused(loader(), give({ ...permit, until: '2030-01-01' }))).toBe('not-granted')
    expect(refused(loader(undefined, { spent: ['PM-1'] }), give(permit))).toBe('spent')
    expect(refused(bench(), give(permit))).toBe('wrong-mode')
  })

  it('has its permit decided by the facts after a loss, and never given blind', () => {
    const command = { kind: 'permit', mode: 'loader', permit } as const
    const journal = [{ kind: 'intend', command: 0, epoch: 1 } as const]
    const { nature, device } = bench()
    const meets = (more: object) => {
      const facts = { ...factsOf(nature, { ...device, mode: 'loader' }), ...more }
      return reduce(takeUp(serial, 2, [command], journal).state, { kind: 'met', facts })
    }
    const [found] = meets({ permit: 'granted' }).orders
    expect(found).toMatchObject({ entry: { kind: 'done', evidence: { is: 'found' } } })
    expect(meets({}).orders).toEqual([{ kind: 'send', command }])
    const { permit: _, ...unseen } = factsOf(nature, { ...device, mode: 'loader' })
    const blind = reduce(takeUp(serial, 2, [command], journal).state, {
      kind: 'met',
      facts: unseen,
    })
    expect(blind.state.phase).toMatchObject({ why: { kind: 'undecided', what: 'permit' } })
    expect(begin(serial, 1, [command]).orders).toHaveLength(1)
  })

  it('cut anywhere ends as it should, or says what it leaves', () => {
    const { plan } = ended(bench(), wish())
    const classes = new Set(
      rehearseCuts(bench().nature, bench().device, plan).map(({ leaves }) => leaves),
    )
    expect([classes.has('dead'), classes.has('data-lost')]).toEqual([false, false])
  })
})
