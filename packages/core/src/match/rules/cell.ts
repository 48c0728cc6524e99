/** A swollen, hot, wet or dented cell is not charged and not written on, whoever says that it is. */
import { WORD_FACTS } from '../../terms/device.ts'
import { rule } from '../rule.ts'

/** All that may be said of a cell but that it is sound, or sound and old. */
const UNSOUND = WORD_FACTS.batteryHealth.filter((one) => one !== 'sound' && one !== 'aged')

export const cell = rule({
  id: 'state.cell',
  overruled: 'nobody',
  reads: ['identity'],
  says: { damaged: ['does-not-fit'] },
  check: (_, { identity: { batteryHealth } }) => {
    const claims = batteryHealth.kind === 'missing' ? [] : batteryHealth.claims
    const unsound = claims.some(({ value }) => UNSOUND.some((one) => one === value))
    return unsound ? { say: 'damaged', facts: {} } : undefined
  },
})
