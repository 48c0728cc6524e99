/**
 * What becomes of the customer's data: wiped when the package erases its partition, there but unreadable
 * when its keys hang on something that goes back, kept otherwise.
 */
import type { Answer, Case, Rule, Values } from '../rule.ts'

export type Fate = 'kept' | 'unreadable' | 'wiped'

export const dataFate: Rule = {
  id: 'promise.data',
  needs: ['release', 'patchDate'],
  final: false,
  codes: ['fit.promise.data.kept', 'fit.promise.data.unreadable', 'fit.promise.data.wiped'],
  check: (values, at) => {
    const fate = fateOf(values, at)
    const code = `fit.promise.data.${fate}`
    const facts = { here: values.release ?? '', release: at.shelved.manifest.release }
    if (fate === 'kept') return { verdict: 'fits', code, facts } satisfies Answer
    return at.keepData
      ? { verdict: 'does-not-fit', code, facts }
      : { verdict: 'fits-if', code, facts, remedy: 'consent' }
  },
}

/** The fate of what lies on the customer's partition. */
export function fateOf({ release, patchDate }: Values, { family, shelved }: Case): Fate {
  const { manifest } = shelved
  const theirs = family.partitions.filter(({ role }) => role === 'customer')
  if (theirs.some(({ name }) => manifest.effects.erases.includes(name))) return 'wiped'
  if (manifest.kind === 'part') return 'kept'
  const { hangOn } = family.dataKeys
  const back =
    (hangOn.includes('release') && manifest.release < Number(release)) ||
    (hangOn.includes('patchDate') && manifest.patchDate < String(patchDate))
  return back ? 'unreadable' : 'kept'
}
