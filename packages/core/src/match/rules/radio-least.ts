/** The radio is not older than the package asks for: it is on it, or the package brings it. */
import type { Manifest } from '../../firmware/manifest.ts'
import { compareDotted } from '../../units/dotted.ts'
import { rule } from '../rule.ts'

export const radioLeast = rule({
  id: 'state.radio.least',
  overruled: 'nobody',
  needs: ['radioVersion'],
  alike: (manifest) => `${manifest.requires.minRadio} ${radioIn(manifest)}`,
  says: {
    fits: ['fits', 'here'],
    brings: ['fits', 'here', 'brings'],
    old: ['does-not-fit', 'here', 'least'],
    odd: ['cannot-tell', 'here', 'least'],
  },
  brought: ({ requires: { minRadio } }, other) =>
    minRadio !== undefined && isLeast(radioIn(other), minRadio),
  concerns: ({ shelved }) => shelved.manifest.requires.minRadio !== undefined,
  check: ({ radioVersion }, { shelved: { manifest } }) => {
    const [here, least] = [String(radioVersion), manifest.requires.minRadio ?? '']
    const apart = compareDotted(here, least)
    if (apart !== undefined && apart >= 0) return { say: 'fits', facts: { here } }
    const brings = radioIn(manifest)
    if (brings !== undefined && isLeast(brings, least))
      return { say: 'brings', facts: { here, brings } }
    return { say: apart === undefined ? 'odd' : 'old', facts: { here, least } }
  },
})

/** The version of the radio that a package writes; undefined: it writes none, or does not say which. */
const radioIn = ({ radioVersion, images }: Manifest): string | undefined =>
  images.some(({ role }) => role === 'modem') ? radioVersion : undefined

const isLeast = (version: string | undefined, least: string): boolean =>
  version !== undefined && (compareDotted(version, least) ?? -1) >= 0
