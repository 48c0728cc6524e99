/** Which facts are asked of a device: a device that does not start is not asked for what its system alone tells. */
import { describe, expect, it } from 'vitest'
import type { Family } from '../family/profile.ts'
import { alder } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import { askedFacts } from './needed.ts'

const STARTS = 'history.starts'
const said = (...starts: readonly ('runs' | 'stops' | 'silent')[]) => ({
  lines: new Map(starts.map((answer) => [STARTS, { topic: STARTS, answer, at: 0 }] as const)),
})
const OF_THE_SYSTEM = ['build', 'release', 'patchDate']
const dropped = (family: Family, lines: ReturnType<typeof said>) => {
  const asked = askedFacts(family, lines)
  return askedFacts(family, said()).filter((fact) => !asked.includes(fact))
}
/** The phones with another way of reading the build. */
const told = (modes: readonly string[], seconds = 5): Family => ({
  ...alder,
  facts: {
    ...alder.facts,
    build: [{ source: 'link', modes, where: 'asked', seconds }],
  } as Family['facts'],
})

describe('a device that does not start', () => {
  it('is not asked for what over the link only its system tells', () => {
    expect(dropped(alder, said('stops'))).toEqual(OF_THE_SYSTEM)
    expect(dropped(alder, said('silent'))).toEqual(OF_THE_SYSTEM)
    expect(dropped(alder, said('runs'))).toEqual([])
  })

  it('is asked for what another mode tells, and how long that takes does not matter', () => {
    expect(dropped(tarn, said('stops'))).toEqual([])
    expect(dropped(told(['loader', 'system']), said('stops'))).toEqual(['release', 'patchDate'])
    expect(dropped(told(['system'], 60), said('stops'))).toEqual(OF_THE_SYSTEM)
  })
})
