/** The packages of a job's picked route, before a plan is made of them. */
import { packsOf, said } from '@plain-slate/core'
import type { ProvenPackage } from '../shelf/shelf.ts'
import type { JobAt } from './job-at.ts'
import { onceOf } from './kept.ts'

/** The packages of the picked route, in the order in which they go on. */
export const routePackages = onceOf(({ picked, shelf }): readonly ProvenPackage[] => {
  if (picked === undefined) return []
  return packsOf(picked.moves).flatMap(({ pack }) => shelf.find(({ key }) => key === pack) ?? [])
})

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
