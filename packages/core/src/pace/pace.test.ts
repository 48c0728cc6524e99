import { describe, expect, it } from 'vitest'
import { effectOf } from '../effect/effect.ts'
import { tarn } from '../testing/tarn.ts'
import {
  OWN_LEAST,
  chargeDrawn,
  chargeWith,
  drainOf,
  minutesOf,
  paceOf,
  silentLimit,
  sum,
} from './pace.ts'

const MIB = 1024 * 1024
const write = effectOf(tarn, { kind: 'write', partition: 'main', role: 'main', bytes: 3300 * MIB })
const firstStart = (wiped: boolean) => effectOf(tarn, { kind: 'first-start', wiped })

describe('the charge that must be there', () => {
  const needed = (
    family: typeof tarn,
    effects: Parameters<typeof chargeDrawn>[1],
    of: Parameters<typeof chargeWith>[1],
  ) => chargeWith(chargeDrawn(family, effects), of)
  const house = { batteryMargin: 20, batteryFloor: null }
  const restart = effectOf(tarn, { kind: 'restart' })
  const first = firstStart(false)

  it('is what is drained, the costliest of it once more, a way out and the margin', () => {
    const all = [write, restart, first]
    const drained = all.reduce((total, one) => total + drainOf(tarn, one), 0)
    const more = drainOf(tarn, first) + drainOf(tarn, restart)
    expect(drainOf(tarn, first)).toBeGreaterThan(drainOf(tarn, write))
    expect(needed(tarn, all, house)).toBe(Math.ceil(drained + more + 20))
  })

  it('follows the costliest step, not one that costs less', () => {
    const draining = (more: Partial<typeof tarn.drainPerMinute>) =>
      needed(
        { ...tarn, drainPerMinute: { ...tarn.drainPerMinute, ...more } },
        [write, first],
        house,
      )
    /* A tenth more for each of six minutes, twice for the costliest and once for the other. */
    expect(draining({ 'first-start': 1.6 }) - draining({ 'first-start': 0.6 })).toBe(12)
    expect(draining({ writing: 0.1 })).toBeLessThan(draining({}))
    expect(draining({ idle: 0.2001 })).toBe(draining({}))
  })

  it('is the house’s floor where that is higher, and nothing more where nothing drains', () => {
    expect(needed(tarn, [first], { ...house, batteryFloor: 60 })).toBe(60)
    const hands = effectOf(tarn, { kind: 'hands', seconds: 900 })
    expect(needed(tarn, [hands], house)).toBe(20)
  })
})

describe('pace', () => {
  it('of a write follows its bytes and the family’s rate', () => {
    expect(paceOf(tarn, write)).toMatchObject({ low: 300, high: 3300 / 9, source: 'family' })
    const half = { ...write, pace: { key: 'write' as const, bytes: 1650 * MIB } }
    expect(paceOf(tarn, half).low).toBe(150)
  })

  it('follows a family figure, and not one that has nothing to do with it', () => {
    const faster = {
      ...tarn,
      pace: { ...tarn.pace, write: { mibPerSecond: [20, 30] as [number, number] } },
    }
    expect(paceOf(faster, write).low).toBe(110)
    const quicker = {
      ...tarn,
      pace: { ...tarn.pace, restart: { seconds: [1, 2] as [number, number] } },
    }
    expect(paceOf(quicker, write)).toEqual(paceOf(tarn, write))
  })

  it('takes this bench’s own figures once there are enough of them', () => {
    const own = (n: number) => ({ write: { n, low: 5, high: 6 } })
    expect(paceOf(tarn, write, own(OWN_LEAST))).toMatchObject({
      source: 'own',
      low: 550,
      n: OWN_LEAST,
    })
    expect(paceOf(tarn, write, own(OWN_LEAST - 1)).source).toBe('family')
  })

  it('of a first start is longer after a wipe', () => {
    expect(paceOf(tarn, firstStart(false))).toMatchObject({ low: 180, high: 360 })
    expect(paceOf(tarn, firstStart(true))).toMatchObject({ low: 300, high: 540 })
  })
})

describe('charge', () => {
  it('is drained by minutes at the longest, by what is being done', () => {
    expect(drainOf(tarn, write)).toBeCloseTo((3300 / 9 / 60) * 0.35)
    expect(drainOf(tarn, firstStart(false))).toBeCloseTo(3.6)
    expect(drainOf(tarn, effectOf(tarn, { kind: 'hands', seconds: 600 }))).toBe(0)
  })
})

describe('ranges', () => {
  it('add up, and are told in whole minutes that hold them', () => {
    const total = sum([
      { low: 50, high: 70 },
      { low: 20, high: 60 },
    ])
    expect(total).toEqual({ low: 70, high: 130 })
    expect(minutesOf(total)).toEqual({ low: 1, high: 3 })
  })
})

describe('how long a phase may give no sign', () => {
  const restart = effectOf(tarn, { kind: 'restart' })
  const digest = effectOf(tarn, { kind: 'digest', bytes: 3300 * MIB })
  it('is the family’s figure, and never less than twenty seconds', () => {
    expect(silentLimit(tarn, write)).toBe(20)
    expect(silentLimit(tarn, digest)).toBe(80)
    const quick = { ...tarn, silentSeconds: { ...tarn.silentSeconds, digest: 3 } }
    expect(silentLimit(quick, digest)).toBe(20)
    expect(silentLimit(quick, restart)).toBe(40)
    expect(silentLimit(tarn, effectOf(tarn, { kind: 'ask' }))).toBe(20)
  })

  it('is this bench’s own once there is one, for what is silent throughout', () => {
    const own = { restart: { n: OWN_LEAST, low: 9, high: 55 } }
    expect(silentLimit(tarn, restart, own)).toBe(55)
    expect(silentLimit(tarn, write, { write: { n: OWN_LEAST, low: 1, high: 2 } })).toBe(20)
    expect(silentLimit(tarn, restart, { restart: { n: OWN_LEAST - 1, low: 9, high: 55 } })).toBe(40)
  })

  it('is no number for a first start, nor for hands', () => {
    expect(silentLimit(tarn, firstStart(false))).toBe(undefined)
    expect(silentLimit(tarn, effectOf(tarn, { kind: 'hands', seconds: 60 }))).toBe(undefined)
  })
})
