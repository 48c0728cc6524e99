/** What is installed from a memory card alone wants a card in it, of the house's or of the owner's. */
import type { Case, Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const card = rule({
  id: 'state.card',
  overruled: 'nobody',
  reads: ['lines', 'way'],
  says: { here: ['fits'], none: ['fits-if'] },
  concerns: (at) => at.lines !== undefined && byCardAlone(at),
  check: (_, { lines }) =>
    lines?.get('accessory.card')?.answer === 'here'
      ? { say: 'here', facts: {} }
      : { say: 'none', facts: {}, remedy: { kind: 'card' } },
})

/** That it is put in from a card; where no way is said: an increment that the family installs from nowhere else. */
function byCardAlone({ family, shelved: { manifest }, way }: Ground & Pick<Case, 'way'>): boolean {
  if (way !== undefined) return way === 'card'
  const ways = family.installs.filter(({ kinds }) => kinds.some((kind) => kind === manifest.kind))
  return (
    manifest.kind === 'incremental' && ways.length > 0 && ways.every(({ from }) => from === 'card')
  )
}
