/**
 * One sequential read of an archive: its own SHA-256 and those of every entry in the same pass. Reads a
 * stream of bytes; gives the listing with digests, or the refusal, and reports how far it is as it goes.
 */
import { createHash } from 'node:crypto'
import type { Hash } from 'node:crypto'
import type { ArchiveRefusal } from './limits.ts'
import { sideHash } from './side-hash.ts'
import type { Behind, TarEntry, TarOutput } from './tar/decode.ts'
import { tarDecoder } from './tar/decode.ts'
import { pathOf, twinsAmong } from './tar/names.ts'

/** `name` is the path it comes to; that of a refused one is as it stands in the archive. */
export type ProvenEntry = TarEntry & { readonly sha256: string }

export type Listing = {
  readonly sha256: string
  readonly bytes: number
  readonly entries: readonly ProvenEntry[]
  /** False: the end mark is missing, which is a condition, no refusal. */
  readonly endMark: boolean
  /** What stands behind the end mark: a condition too. */
  readonly behind: Behind | undefined
}

export type Reading =
  | { readonly ok: true; readonly listing: Listing }
  | {
      readonly ok: false
      readonly refusal: ArchiveRefusal
      readonly entries: readonly ProvenEntry[]
    }

/** Reads a tar; `onProgress` is told bytes read so far. Entries before a refusal are listed with it. */
export async function readTar(
  source: AsyncIterable<Uint8Array>,
  onProgress: (bytes: number) => void = () => undefined,
): Promise<Reading> {
  const whole = sideHash()
  const decoder = tarDecoder()
  const taken = takings()
  let bytes = 0
  try {
    for await (const chunk of source) {
      await whole.update(chunk)
      bytes += chunk.length
      taken.take(decoder.push(chunk))
      onProgress(bytes)
    }
    taken.take(decoder.end())
    const { refusal, ...told } = taken.result()
    if (refusal !== undefined) return { ok: false, refusal, entries: told.entries }
    return { ok: true, listing: { sha256: await whole.digest(), bytes, ...told } }
  } finally {
    await whole.abandon()
  }
}

type Taken = Pick<Listing, 'entries' | 'endMark' | 'behind'> & {
  readonly refusal: ArchiveRefusal | undefined
}

/** Gathers a decoder's output: one running digest at a time, since entries follow each other. */
function takings(): {
  readonly take: (outputs: readonly TarOutput[]) => void
  readonly result: () => Taken
} {
  const entries: ProvenEntry[] = []
  let refusal: ArchiveRefusal | undefined
  let end: Pick<Listing, 'endMark' | 'behind'> = { endMark: false, behind: undefined }
  let current: { readonly entry: TarEntry; readonly hash: Hash } | undefined
  const one = (output: TarOutput): void => {
    switch (output.kind) {
      case 'entry':
        current = { entry: output.entry, hash: createHash('sha256') }
        return
      case 'bytes':
        current?.hash.update(output.bytes)
        return
      case 'entry-end':
        if (current !== undefined)
          entries.push({ ...current.entry, sha256: current.hash.digest('hex') })
        current = undefined
        return
      case 'end':
        end = { endMark: output.endMark, behind: output.behind }
        return
      case 'refused':
        refusal = output.refusal
    }
  }
  return {
    take: (outputs) => outputs.forEach(one),
    result: () => ({ entries: usedOf(entries), refusal, ...end }),
  }
}

/** Files by the path they come to, and whatever is refused; twins are known only when all names are. */
function usedOf(entries: readonly ProvenEntry[]): readonly ProvenEntry[] {
  const twins = twinsAmong(entries)
  return entries.flatMap((entry, at) => {
    const refused = entry.refused ?? twins.get(at)
    if (refused !== undefined) return [{ ...entry, refused }]
    return entry.folder ? [] : [{ ...entry, name: pathOf(entry.name) }]
  })
}
