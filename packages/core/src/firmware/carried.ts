/**
 * An image that an owner brings, carried over into a package in place of its own: what it may be, of which package it was
 * made, and the package with it. Reads manifests and how many blocks of images are equal; gives manifests. Nothing of it
 * is ever stock, and nothing of it is for another device.
 */
import type { Result } from '../result/result.ts'
import { ok, refuse } from '../result/result.ts'
import type { Image, Manifest } from './manifest.ts'
import { CARRIED_ROLES } from './manifest.ts'

export type CarriedRole = (typeof CARRIED_ROLES)[number]
const isCarriedRole = (role: string): role is CarriedRole =>
  CARRIED_ROLES.some((one) => one === role)

/** Of a hundred blocks that are not empty, how many must be the package's own. */
export const LEAST_EQUAL = 50

/** The role that an entry of an archive is an image of, by its name; undefined: it is none that may be carried over. */
export function roleOfFile(name: string): CarriedRole | undefined {
  const role = /^(?:.*\/)?([a-z]+)\.img$/.exec(name)?.[1] ?? ''
  return isCarriedRole(role) ? role : undefined
}

/** How much of an image of a package an owner's image still is. `equal` of `blocks` that are not empty. */
export type Likeness = {
  readonly package: string
  readonly build: string
  readonly equal: number
  readonly blocks: number
}

/** Whole percent, rounded down: 100 is the image itself. */
export const percentOf = ({ equal, blocks }: Likeness): number =>
  blocks === 0 ? 0 : Math.floor((equal * 100) / blocks)

export type NotCarried =
  /** It is more another package's than this one's: made from that one, or its very image. */
  | {
      readonly why: 'other'
      readonly build: string
      readonly percent: number
      readonly here: number
    }
  /** It is so little of this one that nothing shows of what it was made. */
  | { readonly why: 'unlike'; readonly here: number }

/** Whether an image was made from this package: more of it is this one's than any other's, and enough of it. */
export function madeFrom(
  likenesses: readonly Likeness[],
  base: string,
): Result<{ readonly percent: number }, NotCarried> {
  const own = likenesses.find((one) => one.package === base)
  const here = own === undefined ? 0 : percentOf(own)
  const [best] = likenesses
    .filter(({ build }) => build !== own?.build)
    .sort((a, b) => percentOf(b) - percentOf(a))
  if (best !== undefined && percentOf(best) > here)
    return refuse({ why: 'other', build: best.build, percent: percentOf(best), here })
  return here < LEAST_EQUAL ? refuse({ why: 'unlike', here }) : ok({ percent: here })
}

/** An image that is carried over: where it lies, and how much of it is the package's own. */
export type Carried = {
  readonly role: CarriedRole
  readonly file: string
  readonly size: number
  readonly sha256: string
  readonly percent: number
}

/** A package with images of an owner in place of its own, for that owner's device alone. */
export function withCarried(
  base: Manifest,
  own: readonly Carried[],
  from: {
    readonly archive: { readonly file: string; readonly sha256: string }
    readonly serial: string
  },
): Manifest {
  const { archive, serial } = from
  const roles = own.map(({ role }) => role).join('+')
  const images = base.images.map((image): Image => {
    const mine = own.find(({ role }) => role === image.role)
    if (mine === undefined) return image
    const { file, size, sha256 } = mine
    return { ...image, archive: archive.file, file, size, storedSize: size, sha256 }
  })
  return {
    ...base,
    id: `${base.id}+${roles}.${archive.sha256.slice(0, 8)}`,
    title: `${base.title} with its owner’s ${own.map(({ role }) => role).join(' and ')}`,
    archives: [...base.archives, archive],
    images,
    carried: {
      serial,
      images: own.map(({ role, sha256, percent }) => ({ role, sha256, percent })),
    },
  }
}

/** Roles of a package that are its owner's own. */
export const rolesCarried = ({ carried }: Pick<Manifest, 'carried'>): readonly CarriedRole[] =>
  carried?.images.map(({ role }) => role) ?? []

/** Whether an image of a package is its owner's. */
export const isCarried = (
  { carried }: { readonly carried?: Manifest['carried'] | undefined },
  sha256: string,
): boolean => carried?.images.some((one) => one.sha256 === sha256) === true
