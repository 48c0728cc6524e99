/** What is installed from a memory card alone wants a card in it, of the house's or of the owner's. */
import type { Manifest } from '../../firmware/manifest.ts'
import type { Case, Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const card = rule({
  id: 'state.card',
  overruled: 'nobody',
  reads: ['lines', 'way'],
  says: { here: ['fits'], none: ['fits-if'], never: ['does-not-fit'] },
  concerns: (at) => isNever(at) || (at.lines !== undefined && byCardAlone(at)),
  check: (_, { lines, family, shelved }) => {
    if (isNever({ family, shelved })) return { say: 'never', facts: {} }
    return lines?.get('accessory.card')?.answer === 'here'
      ? { say: 'here', facts: {} }
      : { say: 'none', facts: {}, remedy: { kind: 'card' } }
  },
})

/** That it is put in from a card; where no way is said: an increment that the family installs from nowhere else. */
function byCardAlone({ family, shelved: { manifest }, way }: Ground & Pick<Case, 'way'>): boolean {
  if (way !== undefined) return way === 'card'
  if (manifest.requires.card === true) return true
  const ways = waysOf({ family, shelved: { manifest } })
  return (
    manifest.kind === 'incremental' && ways.length > 0 && ways.every(({ from }) => from === 'card')
  )
}

const waysOf = ({
  family,
  shelved: { manifest },
}: Pick<Ground, 'family'> & { shelved: { manifest: Manifest } }) =>
  family.installs.filter(({ kinds }) => kinds.some((kind) => kind === manifest.kind))

/** It asks for a card, and no device of the family installs its kind from one. */
const isNever = (at: Ground): boolean =>
  at.shelved.manifest.requires.card === true && waysOf(at).every(({ from }) => from !== 'card')
