/** Looking at what hangs on a port while no run holds it: its facts; in the loader its table and digests. */
import type { LookFound, Work } from '@plain-slate/api'
import type { DeviceFacts } from '@plain-slate/core'
import { LOOKING } from '@plain-slate/core'
import type { Address, Link } from '@plain-slate/link'
import { LinkLost, meet } from '@plain-slate/link'

const LEASE = { run: 'look', epoch: LOOKING } as const

/** Who answers at an address; null when nobody does. */
export async function whoIsAt(address: Address, secret: string): Promise<DeviceFacts | null> {
  const met = await meet(address, LEASE, secret)
  if (met?.kind !== 'met') return null
  met.link.close()
  return met.facts
}

/** Everything that can be read of the device there. */
export async function lookAt(
  address: Address,
  secret: string,
  digests: Work['looks'][number]['digests'],
): Promise<LookFound> {
  const nothing: LookFound = { facts: null, table: null, digests: [] }
  const met = await meet(address, LEASE, secret)
  if (met?.kind !== 'met') return nothing
  const { link, facts } = met
  try {
    if (facts.mode !== 'loader') return { ...nothing, facts }
    return { facts, table: await tableOver(link), digests: await digestsOver(link, digests) }
  } catch (error) {
    if (error instanceof LinkLost) return { ...nothing, facts }
    throw error
  } finally {
    link.close()
  }
}

async function tableOver(link: Link): Promise<LookFound['table']> {
  const { answer, payload } = await link.ask({ verb: 'table' })
  if (answer.answer !== 'table') return null
  const { sectorBytes, diskBytes } = answer
  let from = 0
  const ranges = answer.ranges.map(({ at, length }) => {
    const bytes = Buffer.from(payload.subarray(from, from + length)).toString('base64')
    from += length
    return { at, bytes }
  })
  return { sectorBytes, diskBytes, ranges }
}

async function digestsOver(
  link: Link,
  wanted: Work['looks'][number]['digests'],
): Promise<LookFound['digests']> {
  const found: LookFound['digests'] = []
  for (const { partition, size } of wanted) {
    const { answer } = await link.ask({ verb: 'digest', partition, from: 0, to: size })
    if (answer.answer === 'digest') found.push({ partition, size, sha256: answer.sha256 })
  }
  return found
}
