/**
 * Sums files as coreutils writes them: "<hex>  <name>" a line, "*" before the name for binary, a
 * backslash before the line where the name is escaped. Reads text; gives lines and what is none.
 */
export type SumKind = 'md5' | 'sha-1' | 'sha-256' | 'sha-512'

export type Sum = { readonly kind: SumKind; readonly hex: string; readonly name: string }
export type Sums = { readonly sums: readonly Sum[]; readonly badLines: readonly number[] }

const KIND_BY_LENGTH: Readonly<Record<number, SumKind>> = {
  32: 'md5',
  40: 'sha-1',
  64: 'sha-256',
  128: 'sha-512',
}

/** Reads a sums file; empty lines and lines that begin with # do not count. */
export function readSums(text: string): Sums {
  const sums: Sum[] = []
  const badLines: number[] = []
  text.split(/\r?\n/).forEach((line, index) => {
    if (line === '' || line.startsWith('#')) return
    const sum = readLine(line)
    if (sum === undefined) badLines.push(index + 1)
    else sums.push(sum)
  })
  return { sums, badLines }
}

function readLine(line: string): Sum | undefined {
  const escaped = line.startsWith('\\')
  const match = /^([0-9a-fA-F]+) [ *](.+)$/.exec(escaped ? line.slice(1) : line)
  const [, hex = '', name = ''] = match ?? []
  const kind = KIND_BY_LENGTH[hex.length]
  if (kind === undefined) return undefined
  return { kind, hex: hex.toLowerCase(), name: escaped ? unescaped(name) : name }
}

const unescaped = (name: string): string =>
  name.replace(/\\([\\n])/g, (_, letter: string) => (letter === 'n' ? '\n' : '\\'))

/** One line of a sums file. */
export function sumLine({ hex, name }: Sum): string {
  const odd = /[\\\n]/.test(name)
  const told = odd ? name.replaceAll('\\', '\\\\').replaceAll('\n', '\\n') : name
  return `${odd ? '\\' : ''}${hex}  ${told}\n`
}
