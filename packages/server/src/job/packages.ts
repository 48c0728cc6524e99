/** The packages of a job's picked route, before a plan is made of them. */
import { raising, said, settled } from '@plain-slate/core'
import type { ProvenPackage } from '../shelf/shelf.ts'
import { shelvedOf } from '../shelf/shelf.ts'
import type { JobAt } from './job-at.ts'

/** The packages of the picked route: the aim, and what raises the loader before it. */
export function routePackages({ picked, found, shelf, identity }: JobAt): readonly ProvenPackage[] {
  if (picked === undefined) return []
  const least = picked.manifest.requires.minLoader
  const standing = settled(identity, 'loaderVersion')
  const here = standing === undefined ? Infinity : Number(standing)
  const at = found === undefined ? undefined : { ...found.at, shelved: shelvedOf(picked) }
  const first =
    at !== undefined && least !== undefined && here < least ? raising(at, least) : undefined
  const before = shelf.filter(({ key }) => key === first?.key)
  return [...before, picked]
}

/** Everything its own manifest and sums say holds. */
export const isWhole = ({ proof }: ProvenPackage): boolean =>
  proof.state === 'whole' || proof.state === 'published'

/** A digest from outside vouches for it. */
export const isPublished = ({ proof }: ProvenPackage): boolean => proof.state === 'published'

/** A lead's word that a package may go on though nobody outside vouches for it, by its key. */
export const isOverruled = ({ lines }: Pick<JobAt, 'lines'>, key: string): boolean =>
  said(lines, 'overrule.unpublished')?.split(', ').includes(key) ?? false

/** Whether nothing of the route lacks both a digest from outside and a lead's word. */
export const isVouchedFor = (job: JobAt): boolean =>
  routePackages(job).every((one) => isPublished(one) || isOverruled(job, one.key))
