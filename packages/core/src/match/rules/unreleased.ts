/** A build that its maker has not released, or gives to a few before its release, goes on with a lead's word beside the owner's. */
import type { Manifest } from '../../firmware/manifest.ts'
import { rule } from '../rule.ts'

/** Whether a build is not yet meant for everybody. A preview is: whoever wants it takes it. */
export const isEarly = ({ channel }: Pick<Manifest, 'channel'>): boolean =>
  channel === 'pilot' || channel === 'unreleased'

export const unreleased = rule({
  id: 'package.unreleased',
  overruled: 'lead',
  says: { held: ['does-not-fit'], early: ['does-not-fit'] },
  concerns: ({ shelved }) => isEarly(shelved.manifest),
  check: (_, { shelved }) => ({
    say: shelved.manifest.channel === 'pilot' ? 'early' : 'held',
    facts: {},
  }),
})
