/** What a shell tells of an archive: refused entries by name and rule, what is odd, in lines. */
import { say } from './outcome.ts'

type Entry = { readonly name: string; readonly offset: number; readonly refused: string | null }
type Odd = {
  readonly endMark: boolean
  readonly behind: { readonly what: string; readonly offset: number } | null
}

/** One line a refused entry. Names are escaped by whoever read the archive. */
export const refusedLines = (entries: readonly Entry[]): readonly string[] =>
  entries.flatMap(({ name, offset, refused }) =>
    refused === null
      ? []
      : [say('cli.entry.refused', { name, offset, why: say(`entry.${refused as 'link'}`) })],
  )

/** Conditions that are said and refuse nothing. */
export const oddLines = ({ endMark, behind }: Odd): readonly string[] => [
  ...(endMark ? [] : [`  ${say('archive.end-mark')}`]),
  ...(behind === null
    ? []
    : [`  ${say(`archive.behind.${behind.what as 'bytes'}`, { offset: behind.offset })}`]),
]
