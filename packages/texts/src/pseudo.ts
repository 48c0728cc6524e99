/**
 * A language nobody speaks: each sentence in brackets with accented vowels and a third longer. A text
 * on screen without brackets did not come through the catalogue, and one that no longer fits will not
 * fit in a longer tongue either. Parameters and plural arms' keywords stay as they are.
 */
const ACCENTS: Readonly<Record<string, string>> = {
  a: 'á',
  e: 'ë',
  i: 'ï',
  o: 'ô',
  u: 'ü',
  A: 'Å',
  E: 'É',
  O: 'Ø',
}

export const PSEUDO_OPEN = '⟦'
export const PSEUDO_CLOSE = '⟧'

/** Dresses every message of a catalogue. */
export function pseudo<Messages extends Readonly<Record<string, string>>>(
  messages: Messages,
): { readonly [Code in keyof Messages]: string } {
  const dressed = Object.entries(messages).map(([code, text]) => [code, dress(text)])
  return Object.fromEntries(dressed) as { readonly [Code in keyof Messages]: string }
}

function dress(text: string): string {
  const padding = '·'.repeat(Math.ceil(text.length / 3))
  return `${PSEUDO_OPEN}${accent(text)}${padding}${PSEUDO_CLOSE}`
}

/** Accents only what stands outside braces, where ICU keeps names and keywords. */
function accent(text: string): string {
  let depth = 0
  return Array.from(text, (letter) => {
    if (letter === '{') depth += 1
    if (letter === '}') depth -= 1
    return depth === 0 ? (ACCENTS[letter] ?? letter) : letter
  }).join('')
}
