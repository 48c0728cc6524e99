/** How much of an archive is taken in before it is called hostile; past any of these it is refused. */
export const LIMITS = {
  /** Entries of one archive. */
  entries: 50_000,
  /** A name, and all names together, in bytes. */
  nameBytes: 4096,
  namesBytes: 16 * 1024 * 1024,
  /** A pax header or a long name. */
  headerBytes: 1024 * 1024,
  /** All that comes out. */
  bytesOut: 64 * 1024 ** 3,
} as const

/** Why a whole archive is refused: nothing of it is used. */
export type ArchiveRefusal = {
  readonly entry: string
  /** Byte of the archive at which the refused thing begins. */
  readonly offset: number
  readonly rule:
    /** Not a tar at all: by its first bytes another kind of archive, or none that is known. */
    | 'zip'
    | 'gzip'
    | 'xz'
    | 'not-tar'
    | 'empty'
    | 'checksum'
    | 'truncated'
    | 'number'
    | 'too-many-entries'
    | 'name-too-long'
    | 'names-too-long'
    | 'header-too-long'
    | 'too-much'
    | 'pax'
    | 'sparse'
    | 'size-of-no-file'
}

/** Why one entry is refused: the package is never proven, the rest is listed and can be taken out. */
export const ENTRY_REFUSALS = [
  'climbs-out',
  'absolute-path',
  'link',
  'device',
  'duplicate',
  'case-twin',
  'file-and-folder',
  'no-name',
  'nul-in-name',
  'unknown-type',
  'folder-with-bytes',
] as const
export type EntryRefusal = (typeof ENTRY_REFUSALS)[number]
