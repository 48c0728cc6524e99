/**
 * Names of entries: bytes to text without losing a difference, paths as they are compared, and which of
 * them are twins. Two names that an extraction could lay over each other are both refused, whichever came
 * first.
 */
import type { EntryRefusal } from '../limits.ts'

const utf8 = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true })

/** Bytes as text; where they are no UTF-8 each high byte is told as %HH, so that none becomes another. */
export function nameText(bytes: Uint8Array): string {
  try {
    return utf8.decode(bytes)
  } catch {
    return Array.from(bytes, (byte) =>
      byte < 0x80 ? String.fromCharCode(byte) : `%${byte.toString(16)}`,
    ).join('')
  }
}

/** A name without "." and empty segments: what it comes to when it is laid down. */
export const pathOf = (name: string): string =>
  name
    .split('/')
    .filter((segment) => segment !== '' && segment !== '.')
    .join('/')

/** A name with control and direction characters escaped as in JSON, so that it forges no line. */
export const shownName = (name: string): string =>
  name.replace(FORGING, (letter) => `\\u${letter.charCodeAt(0).toString(16).padStart(4, '0')}`)
// eslint-disable-next-line no-control-regex -- they are what is looked for
const FORGING = /[\u0000-\u001f\u007f-\u009f\u2028\u2029\u202a-\u202e\u2066-\u2069]/g

/**
 * Full case folding (Unicode, chapter 3.13) as far as case mapping gives it: ß and SS fold alike, each
 * letter by itself so that its neighbours do not count. The dotless i keeps apart from i, as there.
 */
export const folded = (path: string): string =>
  Array.from(path.normalize('NFD'), foldLetter).join('').normalize('NFD')

const foldLetter = (letter: string): string =>
  letter === 'ı' ? letter : letter.toLowerCase().toUpperCase().toLowerCase()

type Named = { readonly name: string; readonly folder: boolean }

/** Which entries are another's twin, by their place; the same folder told twice is none. */
export function twinsAmong(entries: readonly Named[]): ReadonlyMap<number, EntryRefusal> {
  const groups = new Map<string, number[]>()
  const paths = entries.map(({ name }) => pathOf(name))
  paths.forEach((path, at) => {
    const key = folded(path)
    const group = groups.get(key)
    if (group === undefined) groups.set(key, [at])
    else group.push(at)
  })
  const above = new Set(paths.flatMap(parentsOf))
  const twins = new Map<number, EntryRefusal>()
  for (const group of groups.values()) {
    const why = twinsIn(group.map((at) => ({ path: paths[at] ?? '', folder: isFolder(at) })))
    if (why !== undefined) for (const at of group) twins.set(at, why)
  }
  paths.forEach((path, at) => {
    if (!isFolder(at) && above.has(path)) twins.set(at, 'file-and-folder')
  })
  return twins

  function isFolder(at: number): boolean {
    return entries[at]?.folder === true
  }
}

function twinsIn(
  group: readonly { readonly path: string; readonly folder: boolean }[],
): EntryRefusal | undefined {
  if (group.length < 2) return undefined
  const folders = group.filter(({ folder }) => folder).length
  if (folders > 0 && folders < group.length) return 'file-and-folder'
  if (new Set(group.map(({ path }) => path)).size > 1) return 'case-twin'
  return folders === 0 ? 'duplicate' : undefined
}

const parentsOf = (path: string): readonly string[] =>
  path
    .split('/')
    .slice(0, -1)
    .map((_, depth, segments) => segments.slice(0, depth + 1).join('/'))
