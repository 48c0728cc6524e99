/** The packages of a job's picked route, before a plan is made of them. */
import { raising } from '@plain-slate/core'
import type { ProvenPackage } from '../shelf/shelf.ts'
import { shelvedOf } from '../shelf/shelf.ts'
import type { JobAt } from './load.ts'

/** The packages of the picked route: the aim, and what raises the loader before it. */
export function routePackages({ picked, found, shelf, identity }: JobAt): readonly ProvenPackage[] {
  if (picked === undefined) return []
  const least = picked.manifest.requires.minLoader
  const standing = identity.loaderVersion
  const here = standing.kind === 'settled' ? Number(standing.value) : Infinity
  const at = found === undefined ? undefined : { ...found.at, shelved: shelvedOf(picked) }
  const first =
    at !== undefined && least !== undefined && here < least ? raising(at, least) : undefined
  const before = shelf.filter(({ manifest }) => manifest.id === first?.manifest.id)
  return [...before, picked]
}
