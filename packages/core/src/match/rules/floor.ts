/**
 * The package is not below what the hardware still accepts: one rule for the whole, one for each part whose
 * floor a family keeps by itself. Never overruled.
 */
import type { Family } from '../../family/profile.ts'
import { generationFor } from '../../firmware/manifest.ts'
import type { Image } from '../../firmware/manifest.ts'
import type { PartRole } from '../../terms/device.ts'
import { floorFact } from '../../wire/facts.ts'
import type { Case, Rule } from '../rule.ts'

const WHOLE = ['fit.state.floor.fits', 'fit.state.floor.rises', 'fit.state.floor.below'] as const
const PART = [
  'fit.state.floor.part.fits',
  'fit.state.floor.part.rises',
  'fit.state.floor.part.below',
] as const

/** The rule of one floor. It does not concern a family that keeps no such floor, or a package without the part. */
function floorOf(role: PartRole | 'all'): Rule {
  const fact = floorFact(role)
  const [fits, rises, below] = role === 'all' ? WHOLE : PART
  return {
    id: role === 'all' ? 'state.floor' : `state.floor.${role}`,
    needs: [fact],
    final: true,
    codes: [fits, rises, below],
    check: (values, at) => {
      const image = imageUnder(at, role)
      if (image === undefined) return undefined
      const generation = generationFor(at.shelved.manifest, image.role)
      const here = Number(values[fact] ?? 0)
      const when = risesWhen(at.family, image.role)
      const facts = { here, generation, when, part: role }
      if (generation < here) return { verdict: 'does-not-fit', code: below, facts }
      if (generation === here) return { verdict: 'fits', code: fits, facts }
      return { verdict: 'fits', code: rises, facts, marks: [{ kind: 'irreversible' }] }
    },
  }
}

/** An image of the package that the floor is asked of: the lowest, where one floor is for the whole. */
function imageUnder({ family, shelved }: Case, role: PartRole | 'all'): Image | undefined {
  const { manifest } = shelved
  const isKept = (family.floors.kept === 'one') === (role === 'all')
  if (!isKept || (role !== 'all' && !isRuled(family, role))) return undefined
  const mine = manifest.images.filter((image) => role === 'all' || image.role === role)
  const generation = (image: Image) => generationFor(manifest, image.role)
  return [...mine].sort((a, b) => generation(a) - generation(b))[0]
}

const isRuled = ({ floors }: Family, role: PartRole): boolean =>
  floors.rules.some(({ roles }) => roles === 'any' || roles.includes(role))

/** The first moment at which the floor of a part rises. */
const risesWhen = ({ floors }: Family, role: PartRole): string =>
  floors.rules.find(({ roles }) => roles === 'any' || roles.includes(role))?.rises[0] ?? ''

export const FLOOR_RULES: readonly Rule[] = (['all', 'loader', 'modem', 'main'] as const).map(
  floorOf,
)
