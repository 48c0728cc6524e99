/** What a master technician says of a handheld, each as a run on the twin. */
import { describe, expect, it } from 'vitest'
import type { Plan } from '../plan/plan.ts'
import { makePlan } from '../route/make-plan.ts'
import { coursesOf } from '../plan/strip.ts'
import { tarn } from '../testing/tarn.ts'
import type { Bench } from '../testing/families.ts'
import { ended, kinds } from '../testing/told.ts'
import { pack, proven } from '../testing/packages.ts'
import { case0417 } from '../testing/cases.ts'
import { device0417, nature } from '../testing/twins.ts'
import { catalogueOf } from '../twin/images.ts'
import type { DeviceModel } from '../twin/state.ts'
import { rehearse, rehearseCuts } from './rehearse.ts'

/** What the wall shows of each partition, course by course. */
const wallOf = (plan: Plan): readonly string[] =>
  coursesOf(
    plan,
    tarn,
    tarn.partitions.map(({ name }) => name),
    () => ({ low: 1, high: 2 }),
  ).flatMap(({ bricks }) => bricks.map(({ partition, fate }) => `${partition} ${fate}`))

describe('a handheld', () => {
  const tarnBench = (more: Partial<DeviceModel> = {}): Bench => ({
    family: case0417().family,
    nature: nature(),
    device: device0417(more),
    shelf: [],
  })
  const older = proven(pack({ build: 'H2.0Y0.r4', release: 3, patchDate: '2026-01-01' }))
  const withOlder = (keepData: boolean) => ({
    ...case0417({ shelved: older, keepData, intent: 'downgrade' }),
    shelf: [...case0417().shelf, older],
  })
  const known = (): Bench => {
    const bench = tarnBench()
    const catalogue = new Map([...bench.nature.catalogue, ...catalogueOf([older.manifest])])
    return { ...bench, nature: { ...bench.nature, catalogue } }
  }

  it('whose package erases ends with no readable item, and counts none', () => {
    const wiping = pack({
      build: 'H2.0ZP.r4',
      patchDate: '2026-07-01',
      effects: { erases: ['customer'] },
    })
    const at = case0417({ shelved: proven(wiping), keepData: false })
    const { plan, device, fates, reaches } = ended(tarnBench(), at)
    expect(device.data).toMatchObject({ form: 'none', items: 0, bytes: 0 })
    expect(device.parts['customer']?.map).toEqual([
      { from: 0, to: device.parts['customer']?.blocks, kind: 'erased' },
    ])
    expect(wallOf(plan)).toContain('customer erased')
    expect(fates.map(({ fate, why }) => [fate, why])).toContainEqual(['wiped', 'erased'])
    expect(reaches).toBe(true)
  })

  it('that goes back a release starts empty, and without the erase would loop', () => {
    const bench = known()
    const { plan, device, fates, reaches } = ended(bench, withOlder(false))
    expect(kinds(plan)).toContain('erase')
    expect([device.outcome, device.data.form, device.data.items]).toEqual(['normal', 'none', 0])
    expect(wallOf(plan)).toContain('customer erased')
    expect(fates[0]).toMatchObject({ fate: 'wiped', why: 'back' })
    expect(reaches).toBe(true)
    const steps = plan.steps.filter(({ kind }) => kind !== 'erase')
    const bare = rehearse(bench.nature, bench.device, { ...plan, steps }).end.device
    expect([bare.outcome, bare.data.form]).toEqual(['loop', 'readable'])
  })

  it('whose data must survive gets no plan that goes back', () => {
    const made = makePlan({ at: withOlder(true), mode: 'normal', permission: true })
    expect(made.ok || made.refusal).toMatchObject({ kind: 'not-takeable', rule: 'promise.data' })
  })

  it('loses data to a cut only once they are erased', () => {
    const bench = known()
    const { plan } = ended(bench, withOlder(false))
    const lost = rehearseCuts(bench.nature, bench.device, plan).filter(
      ({ leaves }) => leaves === 'data-lost',
    )
    const erasing = plan.steps.filter(({ kind }) => kind === 'erase').map(({ number }) => number)
    expect(lost.length).toBeGreaterThan(0)
    expect(lost.every((one) => one.step >= Math.min(...erasing))).toBe(true)
  })
})
