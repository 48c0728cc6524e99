import { describe, expect, it } from 'vitest'
import { device0417, nature, plan0417 } from '../testing/twins.ts'
import { chances } from '../units/chances.ts'
import { runWithFaults } from './faults.ts'
import { flatten } from './rehearse.ts'

const plan = plan0417()
const run = (faults: Parameters<typeof runWithFaults>[3], pick = 0.5) =>
  runWithFaults(nature({ pick }), device0417(), plan, faults)

describe('a whole run with faults', () => {
  it('ends as promised, without any, with one and with several', () => {
    for (const faults of [
      [],
      [{ piece: 3, kind: 'cable' as const }],
      [
        { piece: 1, kind: 'computer' as const },
        { piece: 6, kind: 'cable' as const },
      ],
    ]) {
      const { phase, losses, journal } = run(faults)
      expect(phase).toEqual({ kind: 'ended' })
      expect(losses).toBe(faults.length)
      expect(journal.filter(({ kind }) => kind === 'done')).toHaveLength(
        flatten(plan).commands.length,
      )
    }
  })

  it('is the same for the same, to the journal’s last time', () => {
    const faults = [{ piece: 4, kind: 'cable' as const }]
    expect(run(faults).journal).toEqual(run(faults).journal)
    expect(run(faults, 0.9).journal).not.toEqual(run(faults, 0.1).journal)
    expect(run([]).journal).not.toEqual(run(faults).journal)
  })

  it('has chances that a seed names for ever', () => {
    const three = (seed: number) =>
      [1, 2, 3].map(
        (
          (next) => () =>
            next()
        )(chances(seed)),
      )
    expect(three(7)).toEqual(three(7))
    expect(three(7)).not.toEqual(three(8))
  })
})
