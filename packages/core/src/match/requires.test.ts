/** What a package asks for by itself moves what is said of it; on a device that has it, it fits. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import { manifestSchema } from '../firmware/manifest.ts'
import { case0417 } from '../testing/cases.ts'
import { of, saysOf, shows, service, permit } from '../testing/judged.ts'
import { digestOf, newest, proven } from '../testing/packages.ts'
import { compareDotted } from '../units/dotted.ts'
import type { Case } from './rule.ts'

const asks = (requires: Manifest['requires'], at: Case = of({})): Case => ({
  ...at,
  shelved: proven({ ...newest, requires }),
})

describe('what a package asks for', () => {
  it('a radio is told by its numbers, not by its letters', () => {
    const [nine, ten] = [shows(['radioVersion', '3.9']), shows(['radioVersion', '3.10'])]
    const says = (at: Case) =>
      saysOf('state.radio.least', {
        ...at,
        shelved: proven({ ...newest, radioVersion: '1.0', requires: { minRadio: '3.10' } }),
      })
    expect([says(nine), says(ten)]).toEqual(['does-not-fit old', 'fits fits'])
    expect([compareDotted('3.9', '3.10'), compareDotted('3.1', '3.1.0')]).toEqual([-1, 0])
    expect([compareDotted('3.b', '3.b'), compareDotted('3.b', '3.1')]).toEqual([0, undefined])
  })

  it('a radio that it brings counts where it writes one', () => {
    const least = { requires: { minRadio: '3.9' }, radioVersion: '4.0' }
    const at = shows(['radioVersion', '3.1'])
    const bare = newest.images.filter(({ role }) => role !== 'modem')
    const says = (more: Partial<Manifest>) =>
      saysOf('state.radio.least', { ...at, shelved: proven({ ...newest, ...least, ...more }) })
    expect([says({}), says({ images: bare })]).toEqual(['fits brings', 'does-not-fit old'])
  })

  it('the least release has one meaning under both of its names, and the higher of two counts', () => {
    const says = (requires: Manifest['requires']) => saysOf('state.step', asks(requires))
    expect(says({ minRelease: 4 })).toBe(says({ leastRelease: 4 }))
    expect(says({ minRelease: 5 })).toBe(says({ leastRelease: 5 }))
    expect(says({ minRelease: 4, leastRelease: 5 })).toBe('does-not-fit skips')
  })

  it('an untouched system is that of the build on it, of which a digest may differ', () => {
    const evidence = new Map([['kernel', { kind: 'digest', sha256: digestOf('own') } as const]])
    const says = (requires: Manifest['requires'], more: Partial<Case> = {}) =>
      saysOf('state.untouched', { ...asks(requires), ...more })
    expect(says({ untouchedSystem: true })).toBe('fits fits')
    expect(says({ untouchedSystem: true }, { evidence })).toBe('does-not-fit changed')
    expect(says({ untouchedSystem: false }, { evidence })).toBe(undefined)
  })

  it('a permit of a kind that was not asked for permits nothing', () => {
    const asking = (permitKind: string, scope: string) => {
      const at = service({ permit: { ...permit, scope } })
      const manifest = { ...at.shelved.manifest, requires: { permitKind } }
      return { ...at, shelved: { ...at.shelved, manifest } }
    }
    expect(saysOf('permit.kind', asking('pilot', 'pilot'))).toBe('fits fits')
    expect(saysOf('permit.kind', asking('pilot', 'service'))).toBe('does-not-fit other')
    /* No package of service, and it asks all the same. */
    const plain = asks({ permitKind: 'pilot' }, case0417())
    expect(saysOf('permit.here', plain)).toBe('fits-if none')
    expect(saysOf('permit.here', asks({}, case0417()))).toBe(undefined)
  })

  it('that nobody here can read is still not passed over, and a value of the wrong kind is no manifest', () => {
    expect(saysOf('package.requires', asks({ moonPhase: 3 }))).toBe('cannot-tell odd')
    const known = {
      minRadio: '1',
      minRelease: 1,
      untouchedSystem: true,
      openLock: false,
      card: false,
    }
    expect(saysOf('package.requires', asks({ ...known, permitKind: 'pilot' }))).toBe(undefined)
    const reads = (requires: object) => manifestSchema.safeParse({ ...newest, requires }).success
    expect([reads({ card: true }), reads({ card: 'yes' }), reads({ permitKind: 'a b' })]).toEqual([
      true,
      false,
      false,
    ])
  })
})
