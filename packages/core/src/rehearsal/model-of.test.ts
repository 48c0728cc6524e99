import { describe, expect, it } from 'vitest'
import { nature, device0417, plan0417 } from '../testing/twins.ts'
import { digestOf, newest, shelf } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import { factsOf } from '../twin/told.ts'
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
