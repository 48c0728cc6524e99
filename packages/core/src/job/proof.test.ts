import { describe, expect, it } from 'vitest'
import { facts0417 } from '../testing/devices.ts'
import type { Expected } from '../plan/step.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import { nextPatchDay, provenFacts } from './proof.ts'

const now = facts0417({
  mode: 'normal',
  build: 'H2.104.r4',
  release: 5,
  patchDate: '2026-10-01',
  loaderVersion: 7,
  floor: 6,
})
const WAS: Readonly<Record<string, string>> = {
  build: 'H2.0ZC.r4',
  bootLock: 'closed',
  serial: 'TRN4490077F31',
  region: 'HI',
}
const prove = (more: Partial<DeviceFacts> | undefined, expect: Partial<Expected> = {}) =>
  provenFacts({
    expected: { build: 'H2.104.r4', release: 5, loaderVersion: 7, floor: 6, ...expect },
    patchDate: '2026-10-01',
    was: (fact) => WAS[fact],
    now: more === undefined ? undefined : { ...now, ...more },
  })
const not = (more: Partial<DeviceFacts>) =>
  prove(more)
    .filter(({ holds }) => holds === false)
    .map(({ fact }) => fact)

describe('the facts after a first start', () => {
  it('hold when the device says what was promised, and is what it was otherwise', () => {
    expect(not({})).toEqual([])
  })

  it.each([
    [{ build: 'H2.0ZC.r4' }, 'build'],
    [{ patchDate: '2026-06-01' }, 'patchDate'],
    [{ floor: 5 }, 'floor'],
    [{ bootLock: 'open' as const }, 'bootLock'],
    [{ serial: 'OTHER-1' }, 'serial'],
    [{ outcome: 'loop' as const }, 'outcome'],
  ])('do not hold when one of them is another: %o', (more, fact) => {
    expect(not(more)).toEqual([fact])
  })

  it('hold of a lock that was to be closed when it is, and of floors by part where those are kept', () => {
    const of = (fact: string, more: Partial<DeviceFacts>, expected: Partial<Expected>) =>
      prove(more, expected).find((one) => one.fact === fact)?.holds
    expect(of('bootLock', { bootLock: 'closed' }, { bootLock: 'closed' })).toBe(true)
    expect(of('bootLock', { bootLock: 'open' }, { bootLock: 'closed' })).toBe(false)
    expect(of('floorMain', { floorMain: 3 }, { floorMain: 3 })).toBe(true)
    expect(of('floorMain', { floorMain: 2 }, { floorMain: 3 })).toBe(false)
    expect(prove({}).map(({ fact }) => fact)).not.toContain('floorMain')
  })

  it('stay as they are whatever is not promised', () => {
    expect(not({ batteryPercent: 3, returns: 2 })).toEqual([])
  })

  it('are neither held nor not while nobody asked the device', () => {
    expect(new Set(prove(undefined).map(({ holds }) => holds))).toEqual(new Set([undefined]))
  })
})

describe('the next patch', () => {
  it('is looked for so many days after this one', () => {
    expect(nextPatchDay('2026-10-01', 90)).toBe('2026-12-30')
  })
})
