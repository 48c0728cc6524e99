/** The modes in which a plan meets its device, and the drivers that these need, move with its steps. */
import { describe, expect, it } from 'vitest'
import { driversFor } from '../computer/drivers.ts'
import { fen } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import { handWays, modesMet } from './enters.ts'
import type { Step } from './step.ts'

const has = (id: string, version: number) => ({ drivers: [{ id, version }] })

describe('the ways that hands go', () => {
  const [chord] = tarn.ways.filter(({ to, hands }) => to === 'rescue' && hands)
  const menu = tarn.ways.find(({ to, how }) => to === 'normal' && how === 'menu')
  const steps = [
    { number: 1, kind: 'restart', to: 'off' },
    { number: 2, kind: 'enter', way: chord, answers: true },
    { number: 3, kind: 'first-start', to: 'normal', wiped: false, by: menu },
  ] as unknown as readonly Step[]

  it('are those into a mode, and the first start where hands start it', () => {
    expect(handWays(steps, 'normal')).toEqual([
      { step: 2, from: 'off', to: 'rescue' },
      { step: 3, from: 'rescue', to: 'normal' },
    ])
    const byItself = [...steps.slice(0, 2), { ...steps[2], by: undefined }] as readonly Step[]
    expect(handWays(byItself, 'normal').map(({ step }) => step)).toEqual([2])
  })
})

describe('the drivers of a plan', () => {
  const way = fen.ways.find(({ to }) => to === 'rescue')
  const steps = [
    { number: 1, kind: 'ready', what: 'cable', seconds: 1 },
    ...(way === undefined ? [] : [{ number: 2, kind: 'enter', way, answers: true }]),
    { number: 3, kind: 'slot', mode: 'loader', slot: 'b' },
    { number: 4, kind: 'restart', to: 'system' },
  ] as unknown as readonly Step[]

  it('are those of every mode that it meets its device in', () => {
    expect(modesMet(steps, 'system')).toEqual(['system', 'rescue', 'loader'])
    expect(modesMet(steps.slice(2, 3))).toEqual(['loader'])
    const needed = driversFor(fen, modesMet(steps, 'system'), has('fen', 3))
    expect(needed.map(({ driver, is: stands, modes }) => [driver.id, stands, modes])).toEqual([
      ['fen', 'there', ['system', 'loader']],
      ['fen-rescue', 'missing', ['rescue']],
    ])
    expect(driversFor(fen, ['loader'], has('fen', 3)).map(({ driver }) => driver.id)).toEqual([
      'fen',
    ])
  })
})
