/**
 * Text that came from outside: what cannot be kept, printed or compared by eye. Reads a string; says whether
 * it is legible, or gives it with every such character shown as one.
 */

/** Control characters but tab and line breaks: NUL is refused by the tables, the others by the eye. */
const CONTROL = /(?![\t\n\r])\p{Cc}/u
const REPLACEMENT = '\ufffd'

/** Whether a text can be kept: no control character, and no half of a surrogate pair. */
export const isLegible = (text: string): boolean => !CONTROL.test(text) && text.isWellFormed()

/**
 * The text with every illegible character and line break shown as U+FFFD. It equals no text that was
 * legible, so nothing that is compared with it holds by mistake.
 */
export const shownLegible = (text: string): string =>
  text.toWellFormed().replaceAll(/\p{Cc}/gu, REPLACEMENT)

/** Characters that people take for each other, as one. */
const oneOfAlikes = (text: string): string =>
  text.toUpperCase().replaceAll('O', '0').replaceAll(/[IL]/gu, '1').replaceAll('S', '5')

/** Whether two ids differ in nothing but case and characters that are taken for each other. */
export const looksAlike = (a: string, b: string): boolean => oneOfAlikes(a) === oneOfAlikes(b)

/**
 * Of two ids that look alike, the first place at which they differ, from 1, and what each has there. Undefined: they do
 * not look alike, or are the same.
 */
export function alikeAt(
  a: string,
  b: string,
): { readonly at: number; readonly says: string; readonly is: string } | undefined {
  if (!looksAlike(a, b)) return undefined
  const at = [...a].findIndex((one, index) => one !== b[index])
  return at < 0 ? undefined : { at: at + 1, says: a[at] ?? '', is: b[at] ?? '' }
}
