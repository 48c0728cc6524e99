/** Nothing of the package goes to calibration, identity or the customer's data. Never overruled. */
import type { Rule } from '../rule.ts'

export const neverWritten: Rule = {
  id: 'layout.never',
  needs: [],
  final: true,
  codes: ['fit.layout.never.touched'],
  check: (_, at) => {
    const { images, effects } = at.shelved.manifest
    const untouchable = at.family.partitions.filter(({ role }) => at.family.never.includes(role))
    const touched = untouchable.find(
      ({ name, role }) =>
        images.some((image) => image.partition === name || image.role === role) ||
        (!at.family.wipe.includes(role) && effects.erases.includes(name)),
    )
    if (touched === undefined) return undefined
    const facts = { partition: touched.name }
    return { verdict: 'does-not-fit', code: 'fit.layout.never.touched', facts }
  },
}
