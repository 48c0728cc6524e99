/** What the find box lists: the server's hits and the commands of this page, in one order. */
import type { Hit } from '@plain-slate/api'

export type Command = { readonly id: string; readonly title: string; readonly act: () => void }

export type Finding = { readonly id: string; readonly title: string; readonly detail: string } & (
  | { readonly kind: Hit['kind']; readonly to: string }
  | { readonly kind: 'command'; readonly act: () => void }
)

/** Where a hit leads, by kind; a new kind of hit is one more arm. */
function findingOf(hit: Hit): Finding {
  switch (hit.kind) {
    case 'slip':
      return {
        kind: 'slip',
        id: `slip-${hit.number}`,
        title: hit.number,
        detail: [hit.title, hit.detail].filter((part) => part !== '').join(' · '),
        to: `/slips/${hit.number}`,
      }
    case 'person':
      return {
        kind: 'person',
        id: `person-${hit.id}`,
        title: hit.title,
        detail: hit.detail,
        to: `/book?by=${hit.id}`,
      }
    case 'package':
      return {
        kind: 'package',
        id: `package-${hit.id}`,
        title: hit.title,
        detail: hit.detail,
        to: `/shelf/${hit.id}`,
      }
    case 'device':
      return {
        kind: 'device',
        id: `device-${hit.title}`,
        title: hit.title,
        detail: hit.detail,
        to: `/bench/${hit.port}`,
      }
  }
}

/** Hits first, then commands whose every typed word begins one of their words. */
export function findings(hits: readonly Hit[], commands: readonly Command[], q: string): Finding[] {
  const typed = wordsOf(q)
  const fitting = commands.filter(({ title }) =>
    typed.every((part) => wordsOf(title).some((word) => word.startsWith(part))),
  )
  const asFinding = ({ id, title, act }: Command): Finding => ({
    kind: 'command',
    id: `command-${id}`,
    title,
    detail: '',
    act,
  })
  return [...hits.map(findingOf), ...fitting.map(asFinding)]
}

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '')
