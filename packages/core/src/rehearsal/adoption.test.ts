/** What a master technician says of a phone whose owner wants another carrier's variant, as runs on the twin. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { candidates, judge } from '../match/judge.ts'
import type { Case } from '../match/rule.ts'
import { makePlan } from '../route/make-plan.ts'
import type { Bench } from '../testing/families.ts'
import { alder, benchOf, caseOf, fen, packageOf } from '../testing/families.ts'
import { ended, kinds } from '../testing/told.ts'
import { said } from '../testing/judged.ts'
import { proven } from '../testing/packages.ts'

describe('a phone that is to be another carrier’s', () => {
  const build = (name: string, carrier: string, more: Partial<Manifest> = {}): Manifest => {
    const made = packageOf(alder, {
      model: 'CORV-5N',
      board: 'C',
      build: name,
      release: 20,
      patchDate: '2026-08-01',
      ...more,
    })
    const targets = made.targets.map((one) => ({ ...one, carriers: [carrier] }))
    return { ...made, targets }
  }
  const sold = build('20-2634.0-HS', 'S')
  const open = build('20-2634.0-HO', 'O')
  /* All but the variant is the same image in both rows. */
  const images = open.images.map((image) =>
    image.role === 'variant'
      ? image
      : (sold.images.find(({ role }) => role === image.role) ?? image),
  )
  const whole: Manifest = { ...open, images }
  const part: Manifest = {
    ...whole,
    id: 'variant HO',
    kind: 'part',
    together: [],
    images: whole.images.filter(({ role }) => role === 'variant'),
  }
  const bench = (): Bench => {
    const made = benchOf({ family: alder, on: sold, shelf: [whole, part] })
    const { device } = made
    return { ...made, device: { ...device, fused: { ...device.fused, carrier: 'S' } } }
  }
  const wish = (more: Partial<Case> = {}, aim: Manifest = part): Case =>
    caseOf(bench(), aim, { intent: 'variant-change', keepData: true, ...more })
  const found = (rule: string, at: Case) => judge(at).findings.find((one) => one.rule === rule)
  const carrier = (at: Case) => found('identity.carrier', at)

  it('takes it up in place: one part is written, the data stay, and updates come for it', () => {
    const { plan, device, fates, reaches } = ended(bench(), wish())
    expect(plan.steps.flatMap((step) => (step.kind === 'write' ? [step.image.role] : []))).toEqual([
      'variant',
    ])
    expect([device.outcome, device.limits, device.data.form]).toEqual(['normal', [], 'readable'])
    expect(fates.every(({ fate }) => fate === 'kept')).toBe(true)
    expect(plan.expected.build).toBe('20-2634.0-HO')
    expect(reaches).toBe(true)
  })

  it('takes it up from new where nothing must survive: all of the customer’s is erased', () => {
    const { plan, device, fates, reaches } = ended(bench(), wish({ keepData: false }))
    expect(kinds(plan)).toContain('erase')
    expect(device.data).toMatchObject({ form: 'none', items: 0 })
    expect(fates[0]).toMatchObject({ fate: 'wiped', why: 'adopted' })
    expect(reaches).toBe(true)
  })

  it('is told what it gets, and follows what is wanted, the row and the family', () => {
    expect(carrier(wish())).toMatchObject({
      verdict: 'fits-if',
      code: 'fit.identity.carrier.adopts',
    })
    expect(carrier(wish({ keepData: false }))?.code).toBe('fit.identity.carrier.anew')
    expect(carrier(wish({ intent: 'update' }))).toMatchObject({
      verdict: 'does-not-fit',
      code: 'fit.identity.carrier.not',
      facts: { here: 'S', wanted: 'O' },
    })
    expect(carrier(wish({ family: { ...alder, adopts: ['from-new'] } }))?.verdict).toBe(
      'does-not-fit',
    )
    const abroad = { ...part, targets: part.targets.map((one) => ({ ...one, region: 'ML' })) }
    expect(found('identity.region', wish({}, abroad))?.code).toBe('fit.identity.region.not')
    expect(carrier(wish({}, abroad))).toBeUndefined()
    /* To be used there, it takes up that row with its radio: a lead decides, and what it gets is told of that row. */
    const used = (region: string, more: Partial<Case> = {}) =>
      said({ 'use.region': region }, wish(more, abroad))
    const region = (at: Case) => found('identity.region', at)
    expect(region(used('ML'))).toMatchObject({
      verdict: 'does-not-fit',
      code: 'fit.identity.region.moves',
      overruled: 'lead',
    })
    for (const other of [used('EX'), used('here'), used('ML', { intent: 'update' })])
      expect(region(other)?.code).toBe('fit.identity.region.not')
    expect(found('promise.network', used('ML'))?.facts).toEqual({ carrier: 'S' })
    expect(found('promise.network', used('here'))).toBeUndefined()
    const whole = { ...open, images, targets: abroad.targets }
    const row = said({ 'use.region': 'ML' }, wish({}, whole))
    expect(found('promise.updates', row)).toMatchObject({ facts: { row: 'ML/O' } })
    expect(carrier(wish({}, build('20-2634.0-HS', 'S')))?.code).toBe('fit.identity.carrier.fits')
    expect(found('promise.network', wish())?.facts).toEqual({ carrier: 'S' })
    expect(found('promise.network', wish({ intent: 'update' }))).toBeUndefined()
    expect(fen.adopts).toEqual([])
  })

  it('may want the part alone, which is an aim for nobody else', () => {
    const shelf = [whole, part].map(proven)
    const aims = (intent: Case['intent']) =>
      candidates({ ...wish({ intent }), shelf }).map(({ shelved }) => shelved.manifest.kind)
    expect(aims('variant-change').sort()).toEqual(['full', 'part'])
    expect(aims('update')).toEqual(['full'])
  })

  it('gets no updates where its system is not made for the row', () => {
    const alone = {
      ...part,
      images: part.images.map((one) => ({ ...one, sha256: 'f'.repeat(64) })),
    }
    const other = benchOf({ family: alder, on: sold, shelf: [alone] })
    const at = caseOf(other, alone, { intent: 'variant-change', keepData: true })
    const fused = { ...other.device.fused, carrier: 'S' }
    const made = makePlan({
      at: { ...at, identity: wish().identity },
      mode: 'system',
      permission: true,
    })
    if (!made.ok) throw new Error(JSON.stringify(made.refusal))
    const here = { ...other, device: { ...other.device, fused } }
    const { device, reaches } = ended(here, { ...at, identity: wish().identity })
    expect([device.limits, reaches]).toEqual([['no-updates'], false])
  })
})
