/** A swollen, hot, wet or dented cell is not charged and not written on. Never overruled. */
import type { Rule } from '../rule.ts'

export const cell: Rule = {
  id: 'state.cell',
  needs: [],
  final: true,
  codes: ['fit.state.cell.damaged'],
  check: (_, at) => {
    const health = at.identity.batteryHealth
    const damaged =
      health.kind !== 'missing' && health.claims.some(({ value }) => value === 'damaged')
    return damaged ? { verdict: 'does-not-fit', code: 'fit.state.cell.damaged' } : undefined
  },
}
