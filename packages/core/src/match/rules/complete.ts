/**
 * The package's bytes are here, whole, and equal to a digest from outside. One that nobody outside vouches
 * for wants a digest, or a lead's word at Ready. A refuted one never fits.
 */
import type { Rule } from '../rule.ts'

export const complete: Rule = {
  id: 'package.here',
  needs: [],
  final: true,
  codes: [
    'fit.package.here.published',
    'fit.package.here.whole',
    'fit.package.here.fetch',
    'fit.package.here.refuted',
  ],
  check: (_, at) => {
    const facts = { title: at.shelved.manifest.title }
    switch (at.shelved.state) {
      case 'published':
        return { verdict: 'fits', code: 'fit.package.here.published', facts }
      case 'whole':
        return { verdict: 'fits-if', code: 'fit.package.here.whole', facts, remedy: 'publish' }
      case 'known':
        return { verdict: 'fits-if', code: 'fit.package.here.fetch', facts, remedy: 'fetch' }
      case 'refuted':
        return { verdict: 'does-not-fit', code: 'fit.package.here.refuted', facts }
    }
  },
}
