/** The package's bytes are here, whole, and equal to the published digests. A refuted one never fits. */
import type { Rule } from '../rule.ts'

export const complete: Rule = {
  id: 'package.here',
  needs: [],
  final: true,
  codes: [
    'fit.package.here.proven',
    'fit.package.here.prove',
    'fit.package.here.fetch',
    'fit.package.here.refuted',
  ],
  check: (_, at) => {
    const facts = { title: at.shelved.manifest.title }
    switch (at.shelved.state) {
      case 'proven':
        return { verdict: 'fits', code: 'fit.package.here.proven', facts }
      case 'here':
        return { verdict: 'fits-if', code: 'fit.package.here.prove', facts, remedy: 'prove' }
      case 'known':
        return { verdict: 'fits-if', code: 'fit.package.here.fetch', facts, remedy: 'fetch' }
      case 'refuted':
        return { verdict: 'does-not-fit', code: 'fit.package.here.refuted', facts }
    }
  },
}
