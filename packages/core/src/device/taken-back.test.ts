/** A reading that somebody mistyped counts no more once it is taken back, and nothing else changes with it. */
import { expect, it } from 'vitest'
import { readings0417, reading } from '../testing/devices.ts'
import { tarn } from '../testing/tarn.ts'
import { identify, settled, toldOf } from './identity.ts'
import type { KeptReading } from './taken-back.ts'
import { standingOne, standingReadings } from './taken-back.ts'

const mistyped = reading('floor', 55, 'screen', 1000)
const back: KeptReading = { ...reading('floor', 55, 'screen', 2000), takesBack: true }
const floor = (...more: readonly KeptReading[]) =>
  settled(identify(tarn, standingReadings([...readings0417(), ...more])), 'floor')
const before = floor()

it('takes a mistyped floor off the highest, which would stand for ever', () => {
  expect(floor(mistyped)).toBe(55)
  expect(floor(mistyped, back)).toBe(before)
  expect(floor(mistyped, back, reading('floor', 55, 'screen', 3000))).toBe(55)
})

it('takes back what was put down before it, of this value and this source alone', () => {
  const others = [
    reading('floor', 56, 'screen', 1500),
    reading('floor', 57, 'rescue', 1500),
    reading('carrier', 55, 'screen', 1500),
  ]
  for (const other of others) expect(standingReadings([mistyped, other, back])).toEqual([other])
  expect(standingReadings([back, mistyped])).toEqual([mistyped])
})

it('finds the one that is meant as it is shown', () => {
  expect(standingOne([mistyped], { fact: 'floor', value: '55', source: 'screen' })).toBe(mistyped)
  expect(standingOne([mistyped], { fact: 'floor', value: '5', source: 'screen' })).toBe(undefined)
  expect(toldOf(identify(tarn, [mistyped]), 'floor')).toBe(55)
})
