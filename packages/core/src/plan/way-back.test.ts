import { describe, expect, it } from 'vitest'
import { judge } from '../match/judge.ts'
import { case0417 } from '../testing/cases.ts'
import { onDevice, proven } from '../testing/packages.ts'
import { wayBackOf } from './way-back.ts'

describe('the way back of a plan', () => {
  it('is the one that the rule of fit finds here, and none where that finds none', () => {
    const shelves = [
      [proven(onDevice)],
      [{ ...proven(onDevice), state: 'whole' as const }],
      [proven({ ...onDevice, generation: 4 })],
      [],
    ]
    const told = shelves.map((shelf) => {
      const at = case0417({ shelf })
      const said = judge(at).findings.find(({ rule }) => rule === 'promise.way-back')
      return [said?.code.split('.').at(-1), wayBackOf(at) !== undefined]
    })
    expect(told).toEqual([
      ['here', true],
      ['unvouched', false],
      ['none', false],
      ['none', false],
    ])
  })
})
