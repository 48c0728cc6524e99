/** The model code is one that the package lists. One letter off is another device, and the classic mistake. */
import { rule } from '../rule.ts'
import { targetsOf, targetsText } from '../targets.ts'

export const model = rule({
  id: 'identity.model',
  overruled: 'two',
  needs: ['model'],
  alike: targetsText,
  says: {
    fits: ['fits', 'here'],
    sibling: ['does-not-fit', 'here', 'wanted'],
    not: ['does-not-fit', 'here', 'wanted'],
  },
  check: ({ model: here }, at) => {
    const models = [...new Set(targetsOf(at).map((target) => target.model))]
    if (models.some((one) => one === here)) return { say: 'fits', facts: { here } }
    const sibling = models.find((one) => isOneLetterOff(one, String(here)))
    return sibling === undefined
      ? { say: 'not', facts: { here, wanted: models.join(', ') } }
      : { say: 'sibling', facts: { here, wanted: sibling } }
  },
})

/** One letter changed, one more or one less. */
export function isOneLetterOff(a: string, b: string): boolean {
  const [short, long] = a.length <= b.length ? [a, b] : [b, a]
  if (a === b || long.length - short.length > 1) return false
  let at = 0
  while (at < short.length && short[at] === long[at]) at += 1
  return short.length === long.length
    ? short.slice(at + 1) === long.slice(at + 1)
    : short.slice(at) === long.slice(at + 1)
}
