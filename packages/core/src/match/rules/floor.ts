/** The package is not below what the hardware still accepts. Never overruled. */
import type { Rule } from '../rule.ts'

export const floor: Rule = {
  id: 'state.floor',
  needs: ['floor'],
  final: true,
  codes: ['fit.state.floor.fits', 'fit.state.floor.rises', 'fit.state.floor.below'],
  check: ({ floor: here }, at) => {
    const { generation } = at.shelved.manifest
    const facts = { here: Number(here), generation, when: at.family.floors.rises }
    if (generation < Number(here))
      return { verdict: 'does-not-fit', code: 'fit.state.floor.below', facts }
    if (generation === Number(here)) return { verdict: 'fits', code: 'fit.state.floor.fits', facts }
    const marks = [{ kind: 'irreversible' }] as const
    return { verdict: 'fits', code: 'fit.state.floor.rises', facts, marks }
  },
}
