/**
 * Ready: what is seen by the system and what a person makes sure of, before a write may be started. Reads
 * what is known of port, device, packages and lines; gives each check with whether it holds and why. All
 * of them must hold; nothing waits in the loader meanwhile, where a battery only drains.
 */
import type { Mode } from '../terms/device.ts'
import { ACCESSORIES } from '../terms/line.ts'
import type { Lines } from './intake.ts'
import { said } from './intake.ts'

export const CHECKS = [
  'plan',
  'agent',
  'seen',
  'free',
  'mode',
  'battery',
  'package',
  'cable',
  'wipe',
] as const
export type CheckName = (typeof CHECKS)[number]

export type Check = {
  readonly check: CheckName
  readonly holds: boolean
  /** Whether there was anything to look at: its device at a port, a cable hung on that. */
  readonly seen: boolean
  readonly facts: Readonly<Record<string, string | number>>
}

/** A person's part: signed by a line younger than the plan. */
export type Confirmation = {
  readonly topic: string
  readonly signed: boolean
}

export type ReadyFacts = {
  readonly plan:
    | {
        readonly takenAt: number
        readonly stale: boolean
        readonly mode: Mode
        readonly needs: number
      }
    | undefined
  readonly agent: boolean
  readonly port: string | undefined
  readonly mode: Mode | undefined
  readonly percent: number | undefined
  readonly busy: boolean
  readonly cable:
    { readonly name: string; readonly runs: number; readonly losses: number } | undefined
  /** Titles of packages of the plan that are not proven. */
  readonly unproven: readonly string[]
  readonly wiped: boolean
  readonly keepData: boolean
  /** Percent a minute that it drains in the loader. */
  readonly idleDrain: number
  readonly lines: Lines
}

/** More losses than this of the runs on a cable, and it is not a good one. */
const LOSSES_MOST = 0.2
/** Fewer runs than this say nothing of a cable. */
const RUNS_LEAST = 3

/** What the system sees by itself. */
export function checksOf(at: ReadyFacts): readonly Check[] {
  const { plan, cable } = at
  const bad =
    cable !== undefined && cable.runs >= RUNS_LEAST && cable.losses / cable.runs > LOSSES_MOST
  const port = at.port ?? ''
  const seen = at.port !== undefined
  type Asked = Omit<Check, 'seen'> & { readonly seen?: boolean; readonly asked?: boolean }
  const all: readonly Asked[] = [
    { check: 'plan', holds: plan !== undefined && !plan.stale, facts: {} },
    { check: 'agent', holds: at.agent, facts: {} },
    { check: 'seen', holds: seen, facts: { port } },
    { check: 'free', holds: seen && !at.busy, seen, facts: { port } },
    {
      check: 'mode',
      seen,
      holds: at.mode !== undefined && (at.mode !== 'loader' || isSigned(at)),
      facts: { mode: at.mode ?? '', drain: at.idleDrain },
    },
    {
      check: 'battery',
      seen: at.percent !== undefined,
      holds: (at.percent ?? 0) >= (plan?.needs ?? 0),
      facts: { here: at.percent ?? 0, needed: plan?.needs ?? 0 },
    },
    {
      check: 'package',
      holds: at.unproven.length === 0,
      facts: { unproven: at.unproven.join(', ') },
    },
    {
      check: 'cable',
      seen: cable !== undefined,
      holds: cable !== undefined && !bad,
      facts: { cable: cable?.name ?? '', runs: cable?.runs ?? 0, losses: cable?.losses ?? 0 },
    },
    {
      check: 'wipe',
      holds: said(at.lines, 'consent.wipe') === 'yes',
      facts: {},
      asked: at.wiped,
    },
  ]
  return all
    .filter(({ asked }) => asked !== false)
    .map(({ check, holds, seen: looked = true, facts }) => ({ check, holds, seen: looked, facts }))
}

const isSigned = (at: ReadyFacts): boolean => confirmationsOf(at).every(({ signed }) => signed)

/** What a person makes sure of, for this plan. A signature given before the plan was taken is none. */
export function confirmationsOf({
  plan,
  keepData,
  lines,
}: Pick<ReadyFacts, 'plan' | 'keepData' | 'lines'>): readonly Confirmation[] {
  const out = ACCESSORIES.some(
    (one) => one !== 'case' && said(lines, `accessory.${one}`) === 'here',
  )
  const asked = [
    ...(keepData ? ['ready.backup'] : []),
    'ready.battery',
    'ready.cable',
    'ready.permission',
    ...(out ? ['ready.out'] : []),
    'ready.bench',
  ]
  return asked.map((topic) => ({
    topic,
    signed: plan !== undefined && (lines.get(topic)?.at ?? -1) >= plan.takenAt,
  }))
}
