/**
 * The model code is one that the package lists. One letter off is another device, and the classic mistake; where the
 * chipset is another too it is said at once, since that one is never overruled.
 */
import { rule } from '../rule.ts'
import { targetsOf, targetsText } from '../targets.ts'

export const model = rule({
  id: 'identity.model',
  overruled: 'two',
  needs: ['model'],
  sees: ['chipset'],
  alike: targetsText,
  says: {
    fits: ['fits', 'here'],
    sibling: ['does-not-fit', 'here', 'wanted'],
    stranger: ['does-not-fit', 'here', 'wanted', 'chipset'],
    not: ['does-not-fit', 'here', 'wanted'],
  },
  check: ({ model: here, chipset }, at) => {
    const targets = targetsOf(at)
    const models = [...new Set(targets.map((target) => target.model))]
    if (models.some((one) => one === here)) return { say: 'fits', facts: { here } }
    const sibling = models.find((one) => isOneLetterOff(one, String(here)))
    if (sibling === undefined) return { say: 'not', facts: { here, wanted: models.join(', ') } }
    const theirs = targets.filter((one) => one.model === sibling).map((one) => one.chipset)
    const [other] = chipset === undefined || theirs.includes(String(chipset)) ? [] : theirs
    return other === undefined
      ? { say: 'sibling', facts: { here, wanted: sibling } }
      : { say: 'stranger', facts: { here, wanted: sibling, chipset: other } }
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
