/** The six places, their keys and addresses; the House is reached from the person's mark. */
import type { PlainCode } from '@plain-slate/texts'

export type Place = {
  readonly name: 'counter' | 'slips' | 'shelf' | 'bench' | 'book'
  readonly key: string
  readonly path: string
  readonly label: PlainCode
}

export const PLACES: readonly Place[] = [
  { name: 'counter', key: 'c', path: '/counter', label: 'place.counter' },
  { name: 'slips', key: 'l', path: '/slips', label: 'place.slips' },
  { name: 'shelf', key: 'h', path: '/shelf', label: 'place.shelf' },
  { name: 'bench', key: 'b', path: '/bench', label: 'place.bench' },
  { name: 'book', key: 'k', path: '/book', label: 'place.book' },
]

/** Cuts a label around its key letter, to underline it: "Slips", "l" → ["S", "l", "ips"]. */
export function aroundKey(label: string, key: string): readonly [string, string, string] {
  const at = label.toLowerCase().indexOf(key)
  if (at < 0) return [label, '', '']
  return [label.slice(0, at), label.slice(at, at + 1), label.slice(at + 1)]
}
