/** The thread beside: a plan rehearsed on the twin of its device with every cut; the routes of a device searched, or a plan made otherwise. */
import { parentPort } from 'node:worker_threads'
import type {
  CutClass,
  DeviceFacts,
  DeviceModel,
  DeviceState,
  Family,
  Manifest,
  Move,
  Otherwise,
  Plan,
  ReadDevice,
  Shelved,
  StopReason,
} from '@plain-slate/core'
import {
  LABELS_MOST,
  factsOf,
  modelled,
  otherwise,
  rehearse,
  rehearseCuts,
  worstByStep,
} from '@plain-slate/core'
import type { Roads } from './search-roads.ts'
import { searchRoads } from './search-roads.ts'

export type ToRehearse = {
  readonly kind: 'rehearse'
  readonly family: Family
  readonly read: ReadDevice
  readonly manifests: readonly Manifest[]
  readonly plan: Plan
}
/** What was not read of a device and assumed: partitions, and facts with what was assumed of each. */
export type Assumed = {
  readonly parts: readonly string[]
  readonly facts: Readonly<Record<string, string | number>>
}
export type Rehearsed = {
  /** Where it stopped: at which command, and why; null: it came to its end. */
  readonly stopped: { readonly command: number; readonly why: StopReason } | null
  readonly assumed: Assumed
  /** The worst that a cut leaves, by the step's number. */
  readonly worst: readonly (readonly [number, CutClass])[]
  readonly end: DeviceModel
  /** What the device says of itself at the end. */
  readonly says: DeviceFacts
}
/** Routes from where a device stands; given up after so many ms with what was found. */
export type ToSearch = {
  readonly kind: 'search'
  readonly start: DeviceState
  readonly patience: number
}
/** Plans of the route in hand as they would be if the house had decided otherwise. */
export type ToTurn = {
  readonly kind: 'otherwise'
  readonly start: DeviceState
  readonly moves: readonly Move[]
  readonly aim: Shelved
}
export type Asked = ToRehearse | ToSearch | ToTurn
export type AnswerTo<What extends Asked> = What extends ToRehearse
  ? Rehearsed
  : What extends ToSearch
    ? Roads
    : readonly Otherwise[]

parentPort?.on('message', ({ id, what }: { readonly id: number; readonly what: Asked }) => {
  parentPort?.postMessage({ id, done: answered(what) })
})

function answered(what: Asked): AnswerTo<Asked> {
  if (what.kind === 'rehearse') return rehearsal(what)
  return what.kind === 'search' ? search(what) : otherwise(what.start, what.moves, what.aim)
}

function rehearsal({ family, read, manifests, plan }: ToRehearse): Rehearsed {
  const {
    nature: known,
    device,
    assumed: parts,
    assumedFacts: facts,
  } = modelled(family, read, manifests)
  /* Whether its maker granted a permit shows on the device alone: the plan's own is taken at its word. */
  const permits = plan.steps.flatMap((step) => (step.kind === 'permit' ? [step.permit] : []))
  const nature = { ...known, permits }
  const { device: end, state } = rehearse(nature, device, plan).end
  const { phase, next: command } = state
  return {
    worst: [...worstByStep(plan, rehearseCuts(nature, device, plan))],
    end,
    stopped: phase.kind === 'stopped' ? { command, why: phase.why } : null,
    says: factsOf(nature, end),
    assumed: { parts, facts },
  }
}

function search({ start, patience }: ToSearch): Roads {
  const late = performance.now() + patience
  return searchRoads(start, { most: LABELS_MOST, stop: () => performance.now() > late })
}
