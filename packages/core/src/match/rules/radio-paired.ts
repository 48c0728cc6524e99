/**
 * A loader that is raised alone leaves the radio behind: the build that is on it says up to which loader its radio
 * runs. Until a build that goes with it is put on, it starts without radio.
 */
import { rule } from '../rule.ts'
import { fullForSame } from '../shelf-index.ts'

export const radioPaired = rule({
  id: 'state.radio',
  overruled: 'lead',
  sees: ['build'],
  reads: ['shelf'],
  says: { fits: ['fits', 'brings', 'build'], apart: ['fits-if', 'brings', 'most', 'build'] },
  concerns: ({ shelved: { manifest } }) =>
    manifest.loaderVersion !== undefined && manifest.images.every(({ role }) => role === 'loader'),
  check: ({ build }, { shelved, shelf }) => {
    const [on] = fullForSame(shelf, shelved.manifest, build)
    if (on === undefined || build === undefined) return undefined
    const brings = shelved.manifest.loaderVersion ?? 0
    const most = on.manifest.requires.maxLoader
    return most !== undefined && brings > most
      ? { say: 'apart', facts: { brings, most, build } }
      : { say: 'fits', facts: { brings, build } }
  },
})
