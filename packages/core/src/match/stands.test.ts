import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import type { Evidence } from '../difference/least-write.ts'
import { case0417 } from '../testing/cases.ts'
import { reading, without } from '../testing/devices.ts'
import { between, newest, onDevice, proven } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { better } from './judge.ts'
import { standsOn } from './stands.ts'

const mainOf = ({ images }: Manifest) => images.find(({ role }) => role === 'main')?.sha256 ?? ''
const silent = without('build', 'release')
/** A device that says no build, on which this main part stands. */
function wreck(sha256: string, shelf: readonly Manifest[] = [onDevice, between, newest]) {
  const evidence = new Map<string, Evidence>([['main', { kind: 'digest', sha256 }]])
  const identity = identify(tarn, silent)
  return case0417({ identity, evidence, shelf: shelf.map((one) => proven(one)), intent: 'restore' })
}

describe('what a device is of that cannot say it', () => {
  it('is told by the main part that stands on it', () => {
    expect(standsOn(wreck(mainOf(between)))).toEqual({
      build: between.build,
      release: between.release,
    })
    expect(standsOn(wreck(mainOf(newest))).build).toBe(newest.build)
  })

  it('is nobody’s where nothing was read, the image is unknown, or several builds share it', () => {
    const nobody = { build: undefined, release: undefined }
    expect(standsOn(wreck('f'.repeat(64)))).toEqual(nobody)
    expect(standsOn({ ...wreck(mainOf(newest)), evidence: new Map() })).toEqual(nobody)
    const twin = { ...newest, build: 'H2.105.r4' }
    expect(standsOn(wreck(mainOf(newest), [newest, twin]))).toEqual(nobody)
  })

  it('is its own word where it says one, whatever stands on it', () => {
    const at = wreck(mainOf(newest))
    const identity = identify(tarn, [
      ...silent,
      reading('build', 'H2.0ZC.r4'),
      reading('release', 4),
    ])
    expect(standsOn({ ...at, identity })).toEqual({ build: 'H2.0ZC.r4', release: 4 })
  })

  it('decides which build a restore begins with', () => {
    const at = wreck(mainOf(between))
    expect(better(at, between, newest)).toBeLessThan(0)
    expect(better(wreck(mainOf(newest)), between, newest)).toBeGreaterThan(0)
    const newestFirst = { ...at, house: { ...at.house, build: 'newest' } as const }
    expect(better({ ...newestFirst, evidence: new Map() }, between, newest)).toBeGreaterThan(0)
  })
})
