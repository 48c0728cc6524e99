/** Which driver a mode needs and how it stands moves with the family's list and with what the computer tells. */
import { describe, expect, it } from 'vitest'
import { alder, fen } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import { driverOf, driversFor, isHeard } from './drivers.ts'

const has = (id: string, version: number) => ({ drivers: [{ id, version }] })
const is = (version: number | undefined) =>
  driversFor(
    alder,
    ['transfer'],
    version === undefined ? { drivers: [] } : has('alder-transfer', version),
  ).map((one) => one.is)

describe('a driver', () => {
  it('is there, old, too old or missing by its version alone', () => {
    expect([undefined, 2, 3, 5, 6].map(is).flat()).toEqual([
      'missing',
      'too-old',
      'old',
      'old',
      'there',
    ])
  })

  it('is of the modes that its family names, and of none that says nothing', () => {
    expect(driverOf(fen, 'rescue')?.id).toBe('fen-rescue')
    expect(driverOf(fen, 'loader')?.id).toBe('fen')
    expect(driverOf(fen, 'off')).toBe(undefined)
    expect(driverOf({ ...fen, drivers: [] }, 'rescue')).toBe(undefined)
    const mute = { ...tarn, drivers: tarn.drivers.map((one) => ({ ...one, modes: ['off'] })) }
    expect(driverOf(mute, 'off')).toBe(undefined)
  })

  it('that is missing or too old leaves its modes unheard, and no others', () => {
    const told = has('fen', 3)
    expect([isHeard(fen, 'loader', told), isHeard(fen, 'rescue', told)]).toEqual([true, false])
    expect(isHeard(fen, 'rescue', has('fen-rescue', 1))).toBe(false)
    expect(isHeard(fen, 'rescue', has('fen-rescue', 2))).toBe(true)
    expect(isHeard(fen, 'rescue', has('tarn', 4))).toBe(false)
    expect(isHeard({ ...fen, drivers: [] }, 'rescue', { drivers: [] })).toBe(true)
  })
})
