import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { carriedIn } from '../testing/carrying.ts'
import { digestOf, newest } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import type { Evidence } from './least-write.ts'
import { fullWrite, installedWrite, leastWrite } from './least-write.ts'

/** The device of slip 0417 says by digest what stands on it: build 0ZC throughout. */
const roles = ['modem', 'kernel', 'rescue', 'main', 'support', 'variant']
const device = (more: readonly (readonly [string, Evidence])[] = []) =>
  new Map<string, Evidence>([
    ...roles.map(
      (role) => [role, { kind: 'digest', sha256: digestOf(`${role} H2.0ZC.r4`) }] as const,
    ),
    ...more,
  ])
const told = (evidence: ReadonlyMap<string, Evidence>) =>
  leastWrite(tarn, newest, evidence).map(
    ({ image, write, reason }) => `${image.role} ${write ? 'write' : 'leave'} ${reason.kind}`,
  )

describe('the least write', () => {
  it('leaves what the device proves to be there, and writes the rest in the family’s order', () => {
    expect(told(device())).toEqual([
      'modem write differs',
      'kernel write differs',
      'rescue leave same-digest',
      'variant leave same-digest',
      'support write differs',
      'main write differs',
    ])
  })

  it('writes whatever the device says nothing about', () => {
    expect(told(new Map()).every((one) => one.includes('write no-evidence'))).toBe(true)
  })

  it('takes a reported version where there is no digest, and says so', () => {
    const modem = [['modem', { kind: 'version', version: '4.0' }]] as const
    expect(told(device(modem))[0]).toBe('modem leave same-version')
    const other = [['modem', { kind: 'version', version: '3.9' }]] as const
    expect(told(device(other))[0]).toBe('modem write differs')
  })

  it('writes an owner’s own image by itself: no index is signed over it', () => {
    const there = newest.images.map(
      ({ partition, sha256 }) => [partition, { kind: 'digest', sha256 }] as const,
    )
    const own = carriedIn(newest, 'ITS-SERIAL')
    const written = (pack: Manifest, evidence: ReadonlyMap<string, Evidence>) =>
      leastWrite(tarn, pack, evidence).flatMap(({ image, write }) => (write ? [image.role] : []))
    expect(written(own, new Map(there))).toEqual(['kernel'])
    /* The maker's own goes with what is signed with it, and so does what is left of the set. */
    const other = { kind: 'digest', sha256: digestOf('another') } as const
    const less = (role: string) => new Map<string, Evidence>([...there, [role, other]])
    expect(written(newest, less('kernel'))).toEqual(['kernel', 'support', 'main'])
    expect(written(own, less('main'))).toEqual(['kernel', 'support', 'main'])
  })

  it('writes a signed set whole or not at all', () => {
    const same = (role: string) =>
      [role, { kind: 'digest', sha256: digestOf(`${role} H2.104.r4`) }] as const
    expect(told(device([same('kernel'), same('support')]))).toContain('kernel write together-with')
    const whole = told(device([same('kernel'), same('support'), same('main')]))
    expect(whole.filter((one) => one.includes('write'))).toEqual(['modem write differs'])
  })

  it('does not follow the other school, which writes everything', () => {
    expect(fullWrite(tarn, newest, new Map()).every(({ write }) => write)).toBe(true)
  })
})

describe('a part in two forms', () => {
  const variant = newest.images.filter(({ role }) => role === 'variant')
  const rest = newest.images.filter(({ role }) => role !== 'variant')
  const wiping = variant.map((one) => ({
    ...one,
    form: 'wiping' as const,
    file: 'variant-wiping.img',
    sha256: digestOf('variant that wipes'),
  }))
  const keeping = variant.map((one) => ({ ...one, form: 'keeping' as const }))
  const both = { ...newest, images: [...rest, ...wiping, ...keeping] }
  const alone = { ...newest, images: [...rest, ...wiping] }
  const of = (pack: typeof newest, decide: typeof leastWrite) =>
    decide(tarn, pack, device())
      .filter(({ image }) => image.role === 'variant')
      .map(({ image, write, reason }) => `${image.form ?? ''} ${String(write)} ${reason.kind}`)

  it('goes on in the one that keeps, and in the other only where there is none', () => {
    expect(of(both, leastWrite)).toEqual(['keeping false same-digest', 'wiping false wiping'])
    expect(of(both, fullWrite)).toEqual(['keeping true house', 'wiping false wiping'])
    expect(of(alone, leastWrite)).toEqual(['wiping true differs'])
    expect(installedWrite(tarn, both).filter(({ write }) => !write)).toMatchObject([
      { image: { form: 'wiping' } },
    ])
  })
})
