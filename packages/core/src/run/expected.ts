/**
 * Whether a device is what was promised, by what it says of itself. Reads the promise and its facts; a fact
 * that its mode does not show is neither held nor broken.
 */
import type { Expected, Ids } from '../plan/step.ts'
import type { DeviceFacts } from '../wire/facts.ts'

const PROMISED = [
  'build',
  'release',
  'loaderVersion',
  'floor',
  'floorLoader',
  'floorModem',
  'floorMain',
  'bootLock',
  'slot',
] as const

/** It starts and waits for no hand, cannot do less than was promised, and shows nothing else than was promised; its build it shows. */
export function isAsExpected(expected: Expected, facts: DeviceFacts): boolean {
  const limits = facts.limits ?? []
  const foreseen = expected.limits ?? []
  return (
    facts.outcome === 'normal' &&
    facts.asks === undefined &&
    facts.build !== undefined &&
    limits.every((limit) => foreseen.includes(limit)) &&
    PROMISED.every((fact) => {
      const [wanted, here] = [expected[fact], facts[fact]]
      return wanted === undefined || here === undefined || here === wanted
    })
  )
}

const IDS = ['model', 'board', 'chipset'] as const

/** The first id in which a device is not the plan's; one that its mode does not show is not compared. */
export function otherId(
  ids: Ids,
  facts: DeviceFacts,
):
  | { readonly fact: (typeof IDS)[number]; readonly here: string; readonly planned: string }
  | undefined {
  for (const fact of IDS) {
    const [planned, here] = [ids[fact], facts[fact]]
    if (planned !== undefined && here !== undefined && here !== planned)
      return { fact, here, planned }
  }
  return undefined
}
