/**
 * Versions of numbers between dots, as makers give them to radios: 3.9 is older than 3.10. Reads two texts; gives which
 * is the older one, or undefined where one of them is no such version.
 */
const DOTTED = /^\d{1,9}(?:\.\d{1,9}){0,7}$/

/** Less than 0: `a` is older. A part that is not there counts as 0. */
export function compareDotted(a: string, b: string): number | undefined {
  if (!DOTTED.test(a) || !DOTTED.test(b)) return a === b ? 0 : undefined
  const [ones, others] = [a, b].map((text) => text.split('.').map(Number)) as [number[], number[]]
  const length = Math.max(ones.length, others.length)
  for (let at = 0; at < length; at += 1) {
    const apart = (ones[at] ?? 0) - (others[at] ?? 0)
    if (apart !== 0) return apart
  }
  return 0
}
