/**
 * The least write: which images of a package must go on, and which may be left alone because the
 * device itself shows that they are there. Reads the package's images, evidence from the device and the
 * groups that go together; gives a decision with its reason per image, in the family's write order.
 * Package held against package proves nothing about a device, and is never evidence here.
 */
import type { Family } from '../family/profile.ts'
import { rolesCarried } from '../firmware/carried.ts'
import { isOtherForm } from '../firmware/forms.ts'
import type { Image, Manifest } from '../firmware/manifest.ts'
import type { PartRole } from '../terms/device.ts'
import type { LoaderStays } from './loader-stays.ts'
import { loaderStays } from './loader-stays.ts'

/** What the device says of a partition: a digest of the image's range, or a version it reports. */
export type Evidence =
  | { readonly kind: 'digest'; readonly sha256: string }
  | { readonly kind: 'version'; readonly version: string }

export type Reason =
  /** Left alone: the device's own digest, or the version it reports, is the image's. */
  | { readonly kind: 'same-digest' }
  | { readonly kind: 'same-version'; readonly version: string }
  /** The loader that is there is newer, or does for the package. */
  | { readonly kind: 'loader-stays'; readonly why: LoaderStays; readonly here: number }
  /** What is there is its owner's own, and is kept. */
  | { readonly kind: 'own' }
  /** The other form of its part leaves the customer's data, and goes on in its place. */
  | { readonly kind: 'wiping' }
  /** Written. */
  | { readonly kind: 'differs' }
  | { readonly kind: 'no-evidence' }
  /** The house writes every image. */
  | { readonly kind: 'house' }
  /** The device writes the whole package by itself. */
  | { readonly kind: 'installed' }
  | { readonly kind: 'together-with'; readonly role: PartRole }

export type ImageDecision = {
  readonly image: Image
  readonly write: boolean
  readonly reason: Reason
}

/**
 * The version of the loader that is on the device, and parts of its owner's own that are kept; `closes`: the lock is closed over
 * what is there then, and a version speaks for no bytes.
 */
export type Here = {
  readonly loader?: number
  readonly own?: readonly PartRole[]
  readonly closes?: boolean
}

const left = (image: Image): ImageDecision => ({ image, write: false, reason: { kind: 'own' } })

/** Those that are decided on, and beside them what is left out for another form of its part. */
const others = ({ images }: Manifest): readonly ImageDecision[] =>
  images
    .filter((image) => isOtherForm(images, image))
    .map((image) => ({ image, write: false, reason: { kind: 'wiping' } }))

/** Decides on every image; `evidence` is by partition. */
export function leastWrite(
  family: Family,
  pack: Manifest,
  evidence: ReadonlyMap<string, Evidence>,
  { loader, own = [], closes = false }: Here = {},
): readonly ImageDecision[] {
  const why = loader === undefined ? undefined : loaderStays(family, pack, loader)
  const alone = inWriteOrder(family, pack).map((image): ImageDecision => {
    if (own.includes(image.role)) return left(image)
    const decided = decide(pack, image, evidence.get(image.partition))
    return decided.write
      ? (staying(image, evidence, { why, here: loader, closes }) ?? decided)
      : decided
  })
  return [...together(groupsOf(family, pack), alone), ...others(pack)]
}

/** Everything, written by the device itself. */
export function installedWrite(family: Family, pack: Manifest): readonly ImageDecision[] {
  const reason = { kind: 'installed' } as const
  return [
    ...inWriteOrder(family, pack).map((image) => ({ image, write: true, reason })),
    ...others(pack),
  ]
}

/** A loader that is left alone; one of the same version is looked at: where its digest was read and differs it goes on. */
function staying(
  image: Image,
  evidence: ReadonlyMap<string, Evidence>,
  {
    why,
    here,
    closes,
  }: {
    readonly why: LoaderStays | undefined
    readonly here: number | undefined
    readonly closes: boolean
  },
): ImageDecision | undefined {
  if (image.role !== 'loader' || why === undefined || here === undefined) return undefined
  const found = evidence.get(image.partition)
  const isRead = found?.kind === 'digest'
  const isAnother = isRead ? found.sha256 !== image.sha256 : closes
  if (why === 'same' && isAnother) return undefined
  return { image, write: false, reason: { kind: 'loader-stays', why, here } }
}

/**
 * Writes everything, whatever the device shows: the other school. A loader that is kept once is not risked for the same
 * again, and an older one never goes on.
 */
export function fullWrite(
  family: Family,
  pack: Manifest,
  evidence: ReadonlyMap<string, Evidence>,
  { loader, own = [], closes = false }: Here = {},
): readonly ImageDecision[] {
  const stays = loader === undefined ? undefined : loaderStays(family, pack, loader)
  const why = stays === 'enough' ? undefined : stays
  const decided = inWriteOrder(family, pack).map((image): ImageDecision => {
    if (own.includes(image.role)) return left(image)
    const reason = { kind: 'house' } as const
    return staying(image, evidence, { why, here: loader, closes }) ?? { image, write: true, reason }
  })
  return [...decided, ...others(pack)]
}

function inWriteOrder(family: Family, { images }: Manifest): readonly Image[] {
  const rank = ({ role }: Image) => {
    const at = family.writeOrder.indexOf(role)
    return at < 0 ? family.writeOrder.length : at
  }
  return images.filter((image) => !isOtherForm(images, image)).sort((a, b) => rank(a) - rank(b))
}

function decide(pack: Manifest, image: Image, found: Evidence | undefined): ImageDecision {
  if (found === undefined) return { image, write: true, reason: { kind: 'no-evidence' } }
  if (found.kind === 'digest') {
    const same = found.sha256 === image.sha256
    return { image, write: !same, reason: { kind: same ? 'same-digest' : 'differs' } }
  }
  const version = versionOf(pack, image.role)
  if (version === undefined) return { image, write: true, reason: { kind: 'no-evidence' } }
  return version === found.version
    ? { image, write: false, reason: { kind: 'same-version', version } }
    : { image, write: true, reason: { kind: 'differs' } }
}

/** The version a package gives to a part, where it gives one. */
function versionOf(pack: Manifest, role: PartRole): string | undefined {
  if (role === 'modem') return pack.radioVersion
  if (role === 'loader')
    return pack.loaderVersion === undefined ? undefined : String(pack.loaderVersion)
  return undefined
}

/**
 * Parts that go together or not at all: the family's signed set and whatever the package says. An owner's own image that
 * was carried over is signed with nothing: it goes on by itself.
 */
function groupsOf(family: Family, pack: Manifest): readonly (readonly PartRole[])[] {
  const own: readonly PartRole[] = rolesCarried(pack)
  return [family.signedSet, ...pack.together].map((roles) =>
    roles.filter((role) => !own.includes(role)),
  )
}

/** A loader does not go back, nor on again, whatever it goes together with. */
const isNeverPulled = ({ reason }: ImageDecision): boolean =>
  reason.kind === 'loader-stays' && reason.why !== 'enough'

/** Where one of a group is written, all of it is; repeated until nothing changes. */
function together(
  groups: readonly (readonly PartRole[])[],
  decisions: readonly ImageDecision[],
): readonly ImageDecision[] {
  const next = decisions.map((one) => {
    if (one.write || isNeverPulled(one)) return one
    const group = groups.find((roles) => roles.includes(one.image.role))
    const cause = decisions.find(
      ({ write, image }) => write && group?.includes(image.role) === true,
    )
    if (cause === undefined) return one
    return {
      ...one,
      write: true,
      reason: { kind: 'together-with', role: cause.image.role } as const,
    }
  })
  const settledNow = next.every((one, index) => one.write === decisions[index]?.write)
  return settledNow ? next : together(groups, next)
}
