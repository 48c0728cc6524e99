/** Planning for the device at a port: judged, planned, folded, rehearsed with its cuts. */
import { createHash } from 'node:crypto'
import type { Candidate, PlanShown } from '@plain-slate/api'
import type { CutClass, Json, NoPlan, Plan, Result } from '@plain-slate/core'
import {
  candidates,
  canonical,
  fold,
  judge,
  makePlan,
  ok,
  refuse,
  rehearseCuts,
  worstByStep,
} from '@plain-slate/core'
import { isCode, sayAny } from '@plain-slate/texts'
import type { House } from '../house.ts'
import type { Refusal } from '../refusal.ts'
import { shelvedOf } from '../shelf/shelf.ts'
import type { AtPort, Wanted } from './case.ts'
import { caseAt, modelledAt } from './case.ts'
import { findingOf, stepsOf, withoutPlace } from './shown.ts'

/** Every package that could be the aim, in order, with every reason. */
export async function fitAt(
  house: House,
  port: string,
  wanted: Wanted,
): Promise<Result<Candidate[], Refusal>> {
  const found = await caseAt(house, port, wanted)
  if (!found.ok) return found
  return ok(
    candidates(found.value.at).map(({ shelved, verdict, findings }) => ({
      package: shelved.manifest.id,
      title: shelved.manifest.title,
      build: shelved.manifest.build,
      verdict,
      findings: findings.map(findingOf),
    })),
  )
}

export type PlanAsked = Wanted & { readonly port: string; readonly package: string }
export type Planned = {
  readonly plan: Plan
  readonly shown: PlanShown
  readonly steps: ReturnType<typeof stepsOf>
  readonly found: AtPort
}

/** A plan, or why there is none. */
export async function planAt(house: House, asked: PlanAsked): Promise<Result<Planned, Refusal>> {
  const { port } = asked
  const found = await caseAt(house, port, asked)
  if (!found.ok) return found
  const pack = found.value.shelf.find(({ manifest }) => manifest.id === asked.package)
  if (pack === undefined) return refuse({ code: 'package.unknown', facts: { id: asked.package } })
  const at = { ...found.value.at, shelved: shelvedOf(pack) }
  const made = makePlan({ at, mode: found.value.facts.mode, permission: true })
  if (!made.ok) {
    const facts = { title: pack.manifest.title, why: whyNone(made.refusal) }
    return refuse({ code: 'plan.none', facts })
  }
  const plan = made.value
  const { nature, device } = modelledAt(found.value)
  const worst = worstByStep(plan, rehearseCuts(nature, device, plan))
  const steps = stepsOf(plan, at.family, worst)
  const folds = fold(plan, at)
  const { verdict, findings } = judge(at)
  const shown: PlanShown = {
    package: asked.package,
    title: pack.manifest.title,
    serial: plan.serial,
    port,
    verdict,
    findings: findings.map(findingOf),
    steps: steps.map(withoutPlace),
    time: { ...folds.time },
    hands: { ...folds.hands },
    needs: folds.needs,
    restarts: folds.restarts,
    fates: folds.fates.map((fate) => ({ ...fate })),
    writes: writesOf(plan),
    wayBackUntil: folds.wayBackUntil ?? null,
    atRisk: atRiskOf(steps),
    digest: digestOf(plan),
    scale: pack.manifest.scale,
  }
  return ok({ plan, shown, steps, found: found.value })
}

/** Why there is no plan, as the second half of a sentence. */
function whyNone(refusal: NoPlan): string {
  if (refusal.kind !== 'not-takeable') return sayAny('en-GB', `plan.none.${refusal.kind}`, {})
  const { code, facts } = refusal
  return isCode(code) ? sayAny('en-GB', code, facts) : code
}

const writesOf = (plan: Plan): PlanShown['writes'] =>
  plan.packages.flatMap(({ manifest, decisions }) =>
    decisions.map(({ image, write, reason }) => {
      const { kind, ...facts } = reason
      return {
        partition: image.partition,
        write,
        reason: kind,
        facts,
        bytes: image.size * manifest.scale,
      }
    }),
  )

/** Seconds at the longest in which a cut would leave each class. */
function atRiskOf(steps: Planned['steps']): PlanShown['atRisk'] {
  const sums: Partial<Record<CutClass, number>> = {}
  for (const { worst, seconds } of steps) sums[worst] = (sums[worst] ?? 0) + seconds.high
  return sums
}

/** SHA-256 of the plan's canonical JSON: equal plans are equal byte by byte. */
export const digestOf = (plan: Plan): string =>
  createHash('sha256')
    .update(canonical(JSON.parse(JSON.stringify(plan)) as Json))
    .digest('hex')
