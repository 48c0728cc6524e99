/** Where a slip's device hangs, or may hang: the port that told its serial, or the one that is left over for it. */
import type { DeviceFacts } from '@plain-slate/core'
import { familyOf } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { JobAt } from './job-at.ts'

export type AtPortSeen = { readonly port: string; readonly facts: DeviceFacts }

/** Ports that no other open slip claims, of its family where any is. */
export function freePorts(
  { families }: Pick<Workshop, 'families'>,
  { sights, others, family }: Pick<JobAt, 'sights' | 'others' | 'family'>,
): readonly AtPortSeen[] {
  const free = sights.flatMap(({ port, facts }) =>
    facts === null || others.has(facts.serial) ? [] : [{ port, facts }],
  )
  const own = free.filter(({ facts }) => familyOf(families, facts)?.id === family?.id)
  return own.length > 0 ? own : free
}

/**
 * Its own port; before any serial was read the only one of its family that is free, where that is of the model that its
 * slip names: two like devices are mixed up more easily than one is read twice.
 */
export function seenAt(workshop: Pick<Workshop, 'families'>, job: JobAt): AtPortSeen | undefined {
  if (job.sight !== undefined || job.serial !== undefined) return job.sight
  const [only, ...others] = freePorts(workshop, job)
  const named = job.slip.model === null || only?.facts.model === job.slip.model
  return others.length === 0 && named ? only : undefined
}
