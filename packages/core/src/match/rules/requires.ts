/** Everything that it asks for by itself is understood: what nobody here can read is not passed over. */
import type { Ground } from '../rule.ts'
import { rule } from '../rule.ts'

const UNDERSTOOD: readonly string[] = [
  'exactBuild',
  'minLoader',
  'maxLoader',
  'minRadio',
  'minRelease',
  'leastRelease',
  'untouchedSystem',
  'openLock',
  'card',
  'permitKind',
]

export const requires = rule({
  id: 'package.requires',
  overruled: 'nobody',
  says: { odd: ['cannot-tell', 'names'] },
  concerns: (at) => odd(at).length > 0,
  check: (_, at) => ({ say: 'odd', facts: { names: odd(at).join(', ') } }),
})

const odd = ({ shelved }: Ground): readonly string[] =>
  Object.keys(shelved.manifest.requires).filter((name) => !UNDERSTOOD.includes(name))
