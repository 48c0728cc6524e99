import { describe, expect, it } from 'vitest'
import { nature, device0417, plan0417 } from '../testing/twins.ts'
import { digestOf, newest, shelf } from '../testing/packages.ts'
import { alder, benchOf, packageOf } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import { factsOf } from '../twin/told.ts'
import { loaderVersionOn } from '../twin/parts.ts'
import { startOf } from '../twin/start.ts'
import { modelled } from './model-of.ts'
import { rehearse } from './rehearse.ts'

const manifests = shelf.map(({ manifest }) => manifest)
const facts = factsOf(nature(), device0417())
const read = (more = {}) => ({
  facts,
  table: undefined,
  digests: new Map<string, string>(),
  ...more,
})

describe('the model of a device that was only read', () => {
  it('starts as the device does, and ends the plan as the device would', () => {
    const made = modelled(tarn, read(), manifests)
    expect(startOf(tarn, made.device, made.nature.catalogue).outcome).toBe('normal')
    const { end } = rehearse(made.nature, made.device, plan0417())
    expect([end.state.phase.kind, factsOf(made.nature, end.device).build]).toEqual([
      'ended',
      newest.build,
    ])
  })

  it('of a build on no shelf is taken to be whole, and says what it assumed', () => {
    const made = modelled(tarn, read({ facts: { ...facts, build: 'H2.0Y0.r4' } }), manifests)
    expect(startOf(tarn, made.device, made.nature.catalogue).outcome).toBe('normal')
    expect(made.assumed).toContain('main')
  })

  it('follows a digest that was read: a kernel of another build loops', () => {
    const digests = new Map([['kernel', digestOf('kernel H2.0ZP.r4')]])
    const made = modelled(tarn, read({ digests }), manifests)
    expect(startOf(tarn, made.device, made.nature.catalogue).outcome).toBe('loop')
    expect(made.assumed).not.toContain('kernel')
  })
})

describe('the model of a device whose build the shelf has for another carrier', () => {
  const build = (name: string, carrier: string) => {
    const about = { model: 'CORV-5N', board: 'C', release: 20, patchDate: '2026-08-01' }
    const made = packageOf(alder, { ...about, build: name })
    return { ...made, targets: made.targets.map((one) => ({ ...one, carriers: [carrier] })) }
  }
  const [sold, open] = [build('20-2634.0-HS', 'S'), build('20-2634.0-HO', 'O')]
  const bench = benchOf({ family: alder, on: sold })
  const variantPart = { ...open, images: open.images.filter(({ role }) => role === 'variant') }
  const imageOf = (role: string) => open.images.find((one) => one.role === role)?.sha256 ?? ''
  const system = factsOf(bench.nature, bench.device)
  const model = (digests: readonly (readonly [string, string])[], family = alder) =>
    modelled(family, { facts: system, table: undefined, digests: new Map(digests) }, [
      open,
      variantPart,
    ])
  const starts = (...asked: Parameters<typeof model>) => {
    const { device, nature: of } = model(...asked)
    return startOf(of.family, device, of.catalogue)
  }
  const withVariant = ({ device, nature: of }: ReturnType<typeof model>) => {
    const { variant } = device.parts
    if (variant === undefined) throw new Error('no variant')
    const parts = { ...device.parts, variant: { ...variant, was: imageOf('variant') } }
    return startOf(of.family, { ...device, parts }, of.catalogue)
  }

  it('starts whichever of its parts were read, since rows of one build share them', () => {
    expect(starts([]).build?.build).toBe('20-2634.0-HS')
    const some = starts([['kernel', imageOf('kernel')]])
    expect([some.outcome, some.build?.build]).toEqual(['normal', '20-2634.0-HS'])
  })

  it('is of the other row once that one’s variant stands there, and says what of that it assumed', () => {
    expect(withVariant(model([])).build?.build).toBe('20-2634.0-HO')
    expect(model([]).assumed).toContain('main')
  })

  it('shares nothing that was read to be another, of another build, or in a family without rows', () => {
    expect(withVariant(model([['main', digestOf('another main')]])).build?.build).toBe(
      '20-2634.0-HS',
    )
    const without = { ...alder, adopts: [] }
    expect(starts([['kernel', imageOf('kernel')]], without).outcome).toBe('loop')
    const older = build('20-2633.0-HO', 'O')
    const kernel = older.images.find(({ role }) => role === 'kernel')?.sha256 ?? ''
    const read = { facts: system, table: undefined, digests: new Map([['kernel', kernel]]) }
    const strange = modelled(alder, read, [open, older])
    expect(startOf(alder, strange.device, strange.nature.catalogue).outcome).toBe('loop')
  })
})

describe('the model of a phone that tells another loader than its build brings', () => {
  const made = (build: string, loaderVersion: number) =>
    packageOf(alder, {
      model: 'CORV-5M',
      board: 'C',
      build,
      release: 20,
      patchDate: '2026-09-01',
      generation: 3,
      loaderVersion,
      requires: { minLoader: 29 },
    })
  const on = made('20-2636.0-HO', 31)
  const { device } = benchOf({ family: alder, on })
  const told = (loaderVersion: number) => {
    const facts = factsOf(benchOf({ family: alder, on }).nature, { ...device, loaderVersion })
    const read = { facts, table: undefined, digests: new Map<string, string>() }
    const model = modelled(alder, read, [on])
    return loaderVersionOn(model.device, model.nature.catalogue)
  }

  it('has the loader it tells, and that of its build where they are one', () => {
    expect([told(31), told(30)]).toEqual([31, 30])
  })
})
