/**
 * A line of builds: whose devices it is for, how large its images are, which build came after which. What a
 * package of it is made from follows from this and from its build.
 */
import type { Manifest, PartRole } from '@plain-slate/core'
import type { Origin } from './content.ts'

export type Line = {
  /** Names its images apart from those of other lines. */
  readonly key: string
  readonly family: string
  readonly maker: string
  /** MiB of each image at real size; a package's scale divides them. */
  readonly imageMib: Readonly<Partial<Record<PartRole, number>>>
  /** What a full package holds. */
  readonly full: readonly PartRole[]
  /** Builds in their order; a package holds its own and shares with those before. */
  readonly builds: readonly string[]
  readonly targets: Manifest['targets']
  /** Of every package of the line, where it does not say otherwise. */
  readonly usual: Pick<Manifest, 'generation' | 'together'>
  /** A loader is of its own version, and not of a build. */
  readonly loaderByVersion: boolean
  /** Names of partitions that are not called by their role. */
  readonly partitions?: Readonly<Partial<Record<PartRole, string>>>
  /** The line of another row: all but the variant part are its images, build for build. */
  readonly rowOf?: Line
}

export type PackageDraft = {
  readonly line: Line
  readonly build: string
  readonly more: Partial<Manifest> & Pick<Manifest, 'release' | 'patchDate'>
  readonly roles: readonly PartRole[]
  /** Volumes beyond the first, with the parts that lie in each. */
  readonly volumes: readonly (readonly PartRole[])[]
  /** Its variant part comes in a keeping and a wiping form. */
  readonly forms?: true
  /** Share of the archive that is left of a damaged one. */
  readonly truncatedTo?: number
  /** True when only the first volume came: the rest is still to be fetched. */
  readonly firstOnly?: boolean
}

/** What an image of a part in a build is made from. */
export function originOf(line: Line, role: PartRole, build: string, loader?: number): Origin {
  const board = line.key
  const like = line.rowOf?.builds[line.builds.indexOf(build)]
  if (line.rowOf !== undefined && like !== undefined && role !== 'variant')
    return originOf(line.rowOf, role, like, loader)
  if (role === 'loader' && line.loaderByVersion)
    return { role, board, line: [`loader ${loader ?? 0}`] }
  return { role, board, line: line.builds.slice(0, line.builds.indexOf(build) + 1) }
}

/** A part that its owner changed: of the build it was made from, and of nobody's signature. */
export const modifiedOrigin = (line: Line, role: PartRole, build: string): Origin => ({
  ...originOf(line, role, build),
  changed: true,
})

export const draftOf = (
  line: Line,
  build: string,
  more: PackageDraft['more'],
  also: Partial<PackageDraft> = {},
): PackageDraft => ({ line, build, more, roles: line.full, volumes: [], ...also })

/** The id of a draft's package. */
export const idOfDraft = ({ line, build, more }: PackageDraft): string =>
  more.id ?? `${line.family}-${build}`
