/** What the rules of floors share: which image a floor is asked of, when it rises. */
import type { Family } from '../../family/profile.ts'
import type { Image } from '../../firmware/manifest.ts'
import { generationFor } from '../../firmware/manifest.ts'
import type { PartRole } from '../../terms/device.ts'
import type { LoaderStays } from '../../difference/loader-stays.ts'
import { loaderStays } from '../../difference/loader-stays.ts'
import { floorFact } from '../../wire/facts.ts'
import { isInstalled } from '../installed.ts'
import type { Case, Ground } from '../rule.ts'
import { rule } from '../rule.ts'

/**
 * The package is not below what the hardware still accepts of a part, or of the whole. It does not concern a
 * family that keeps no such floor, or a package without the part.
 */
export function floorOf<const Id extends string>(id: Id, role: PartRole | 'all') {
  const fact = floorFact(role)
  return rule({
    id,
    overruled: 'nobody',
    needs: [fact],
    sees: ['loaderVersion'],
    reads: ['way'],
    alike: ({ kind, generation, generations, loaderVersion, requires: { minLoader }, images }) =>
      JSON.stringify([
        kind,
        generation,
        generations,
        loaderVersion,
        minLoader,
        images.map((one) => one.role),
      ]),
    says: {
      fits: ['fits', 'here', 'generation'],
      rises: ['fits', 'here', 'generation', 'when'],
      below: ['does-not-fit', 'here', 'generation'],
    },
    concerns: (at) => imagesUnder(at, role).length > 0,
    check: (values, at) => {
      const written = imagesUnder(at, role).filter(
        (one) => !staysBehind(at, one, values.loaderVersion),
      )
      const generationOf = ({ role: of }: Image) => generationFor(at.shelved.manifest, of)
      const [lowest] = [...written].sort((a, b) => generationOf(a) - generationOf(b))
      if (lowest === undefined) return undefined
      const here = Number(values[fact])
      const generation = generationOf(lowest)
      if (generation < here) return { say: 'below', facts: { here, generation } }
      /* A floor that is kept for the whole rises to the highest part that raises it, were it the loader alone. */
      const [raises] = written
        .filter((image) => isRuled(at.family, image.role) && generationOf(image) > here)
        .sort((a, b) => generationOf(b) - generationOf(a))
      if (raises === undefined) return { say: 'fits', facts: { here, generation } }
      return {
        say: 'rises',
        facts: { here, generation: generationOf(raises), when: risesWhen(at.family, raises.role) },
        marks: [{ kind: 'irreversible' }],
      }
    },
  })
}

/** Images of the package that the floor is asked of: all of them, where one floor is for the whole. */
function imagesUnder({ family, shelved }: Ground, role: PartRole | 'all'): readonly Image[] {
  const isKept = (family.floors.kept === 'one') === (role === 'all')
  if (!isKept || (role !== 'all' && !isRuled(family, role))) return []
  return shelved.manifest.images.filter((image) => role === 'all' || image.role === role)
}

/** Of the same version it goes on where its bytes are another's: its floor is asked. */
const STAYS: readonly (LoaderStays | undefined)[] = ['older', 'enough']

/** A loader that does not go on is asked nothing; what a device installs by itself goes on whole. */
const staysBehind = (
  { family, shelved, way }: Ground & Pick<Case, 'way'>,
  { role }: Image,
  here: string | number | undefined,
): boolean =>
  role === 'loader' &&
  here !== undefined &&
  !isInstalled(shelved.manifest, way) &&
  STAYS.includes(loaderStays(family, shelved.manifest, Number(here)))

const isRuled = ({ floors }: Family, role: PartRole): boolean =>
  floors.rules.some(({ roles }) => roles === 'any' || roles.includes(role))

/** The first moment at which the floor of a part rises. */
const risesWhen = ({ floors }: Family, role: PartRole): string =>
  floors.rules.find(({ roles }) => roles === 'any' || roles.includes(role))?.rises[0] ?? ''
