/** A swollen, hot, wet or dented cell is not charged and not written on, whoever says that it is. */
import { rule } from '../rule.ts'

export const cell = rule({
  id: 'state.cell',
  overruled: 'nobody',
  reads: ['identity'],
  says: { damaged: ['does-not-fit'] },
  check: (_, { identity: { batteryHealth } }) => {
    const damaged =
      batteryHealth.kind !== 'missing' &&
      batteryHealth.claims.some(({ value }) => value === 'damaged')
    return damaged ? { say: 'damaged', facts: {} } : undefined
  },
})
