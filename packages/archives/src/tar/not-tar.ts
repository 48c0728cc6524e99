/** What the first bytes of a file are when they are no tar header. Reads bytes; gives the rule they break. */
import type { ArchiveRefusal } from '../limits.ts'

const KINDS: readonly (readonly [ArchiveRefusal['rule'], readonly number[]])[] = [
  /* APPNOTE.TXT 4.3.7: a local file header; RFC 1952, 2.3.1; the .xz file format, 2.1.1.1. */
  ['zip', [0x50, 0x4b, 0x03, 0x04]],
  ['gzip', [0x1f, 0x8b]],
  ['xz', [0xfd, 0x37, 0x7a, 0x58, 0x5a, 0x00]],
]

/** POSIX.1-1988: "ustar" in the header; then it is a tar whose first header was damaged. */
const USTAR = { at: 257, magic: [0x75, 0x73, 0x74, 0x61, 0x72] } as const

/** Names the kind by its first bytes; nothing at all is empty, anything unknown is no tar. */
export function kindOfBytes(bytes: Uint8Array): ArchiveRefusal['rule'] {
  if (bytes.length === 0) return 'empty'
  if (USTAR.magic.every((byte, at) => bytes[USTAR.at + at] === byte)) return 'checksum'
  const known = KINDS.find(([, magic]) => magic.every((byte, at) => bytes[at] === byte))
  return known?.[0] ?? 'not-tar'
}
