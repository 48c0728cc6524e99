/**
 * One run of the demo's past, made by running the twin: from a seed come how fast the device is and where
 * its cable comes out. What it was made from is kept with it, so that anybody can run it again and find
 * the same journal.
 */
import { createHash } from 'node:crypto'
import type {
  CutClass,
  DeviceFacts,
  Fault,
  Json,
  PlacedStep,
  Plan,
  RunMade,
} from '@plain-slate/core'
import {
  canonical,
  chances,
  flatten,
  makePlan,
  modelled,
  placedSteps,
  rehearseCuts,
  runWithFaults,
  worstByStep,
} from '@plain-slate/core'
import type { AtPort } from '@plain-slate/server'
import { caseOf, familyOf, shelvedNamed } from './devices.ts'

export type PastRun = {
  readonly plan: Plan
  readonly at: AtPort
  readonly made: RunMade
  readonly steps: readonly PlacedStep<CutClass>[]
  readonly recipe: Json
  readonly journalDigest: string
}

/** Plans of like devices leave the same after a cut: what does is found once. */
const known = new Map<string, ReadonlyMap<number, CutClass>>()

export type PastAsked = {
  readonly seed: number
  readonly facts: DeviceFacts
  readonly package: string
  readonly faults: readonly Fault[]
  /** 0 to 1: how slow it is within the family's ranges. */
  readonly pick?: number
  /** Whether the customer's data had to survive; they had, when left out. */
  readonly keepData?: boolean
}

/** Runs it. */
export function pastRun({
  seed,
  facts,
  package: id,
  faults,
  pick: wanted,
  keepData = true,
}: PastAsked): PastRun {
  const shelved = shelvedNamed(id)
  const family = familyOf(shelved)
  const at = caseOf(facts, keepData ? 'update' : 'downgrade', keepData, family)
  const planned = makePlan({ at: { ...at.at, shelved }, mode: facts.mode, permission: true })
  if (!planned.ok) throw new Error(`no plan for ${id}: ${JSON.stringify(planned.refusal)}`)
  const plan = planned.value
  const pick = wanted ?? Math.round(chances(seed)() * 1000) / 1000
  const catalogue = [
    ...plan.packages.map(({ manifest }) => manifest),
    ...(plan.wayBack === undefined ? [] : [shelvedNamed(plan.wayBack).manifest]),
  ]
  const { nature, device } = modelled(family, at.read, catalogue, pick)
  const key = `${id} ${facts.build ?? ''} ${facts.loaderVersion} ${facts.mode} ${facts.floor}`
  const worst = known.get(key) ?? worstByStep(plan, rehearseCuts(nature, device, plan))
  known.set(key, worst)
  const made = runWithFaults(nature, device, plan, faults)
  const recipe = { seed, pick, faults, facts, catalogue } as unknown as Json
  return {
    plan,
    at,
    made,
    steps: placedSteps(plan, family, worst, 'unaffected'),
    recipe: JSON.parse(JSON.stringify(recipe)) as Json,
    journalDigest: digestOfJson(made.journal),
  }
}

/** SHA-256 of something's canonical JSON. */
export const digestOfJson = (value: unknown): string =>
  createHash('sha256')
    .update(canonical(JSON.parse(JSON.stringify(value)) as Json))
    .digest('hex')

export const commandsOf = (plan: Plan) => flatten(plan).commands
