/** What a plan rests on and how it changed, in words. */
import type { Say } from './say.ts'

/** What changed since a plan was taken, in words. */
export function changeWords(
  say: Say,
  { what, from, to }: { readonly what: string; readonly from: string; readonly to: string },
): string {
  const [kind = '', name = ''] = what.split(/\.(.*)/s)
  const value = (text: string) => (text === '' ? say('plan.change.none') : text)
  return say('plan.change', { what: nameOf(), from: value(from), to: value(to) })

  function nameOf(): string {
    switch (kind) {
      case 'fact':
        return say(`fact.${name as 'board'}`)
      case 'evidence':
        return say('plan.change.evidence', { partition: name })
      case 'package':
        return say('plan.change.package', { title: name })
      case 'mode':
      case 'family':
      case 'table':
      case 'keepData':
      case 'intent':
      case 'route':
      case 'house':
        return say(`plan.change.${kind}`)
      default:
        return say('plan.change.other')
    }
  }
}

/** All changes: the first, and how many more. */
export function changesWords(
  say: Say,
  changes: readonly { readonly what: string; readonly from: string; readonly to: string }[],
): string {
  const [first] = changes
  if (first === undefined) return say('plan.change.other')
  const what = changeWords(say, first)
  const n = changes.length - 1
  return n === 0 ? what : say('plan.change.more', { what, n })
}
