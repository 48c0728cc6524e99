/**
 * A plan as it was made: the decision and the figures it was made with, as data. It is kept so, and shown
 * afresh from it: pictures, sums and words are never stored.
 */
import type { PlanShown } from '@plain-slate/api'
import type {
  CutClass,
  Family,
  Folds,
  ItemFate,
  Judgement,
  OwnFigures,
  PlacedStep,
  Plan,
} from '@plain-slate/core'
import { atRisk, orderOf, placedSteps } from '@plain-slate/core'
import { isCode, speaker } from '@plain-slate/texts'
import type { Assumed } from './rehearsals.ts'
import { stripShown, wallShown } from './pictures.ts'
import { findingOf, stepShown } from './shown.ts'

export type MadePlan = {
  readonly plan: Plan
  readonly port: string
  readonly folds: Folds
  readonly judged: Pick<Judgement, 'verdict' | 'findings'>
  /** The worst that a cut leaves, by the step's number. */
  readonly worst: readonly (readonly [number, CutClass])[]
  /** How its rehearsal ended, and whether that is what it promises. */
  readonly ends: PlanShown['ends']
  readonly reaches: boolean
  /** Where its rehearsal fails; null: it ends as it promises. */
  readonly fails: PlanShown['fails']
  /** What was not read of the device and assumed for the rehearsal. */
  readonly assumed: Assumed
  /** This bench's own figures when it was made; without them the family's. */
  readonly own: OwnFigures
  /** The device's partitions in their order, at model size. */
  readonly partitions: PlanShown['wall']['partitions']
  /** Title of the package with which it can go back; null: the shelf holds none. */
  readonly wayBack: string | null
  /** Percent under which its house begins nothing; null: it has no such floor. */
  readonly floor: number | null
}

/** Its steps, each with its seconds and the place of its first command. */
export const stepsOf = (
  { plan, worst, own }: Pick<MadePlan, 'plan' | 'worst' | 'own'>,
  family: Family,
): readonly PlacedStep<CutClass>[] => placedSteps(plan, family, new Map(worst), 'unaffected', own)

/** The plan as a page shows it. `digest`: of the plan itself. */
export function showPlan(made: MadePlan, family: Family, digest: string): PlanShown {
  const { plan, folds, judged, own } = made
  const aim = plan.packages.at(-1)
  const steps = stepsOf(made, family)
  return {
    package: aim?.key ?? '',
    title: aim?.manifest.title ?? '',
    serial: plan.serial,
    port: made.port,
    verdict: judged.verdict,
    findings: judged.findings.map(findingOf),
    steps: steps.map(stepShown),
    order: orderOf(plan, family).map(({ code, facts }) => ({ code, facts: { ...facts } })),
    time: { ...folds.time },
    hands: { ...folds.hands },
    needs: folds.needs,
    draws: folds.draws,
    floor: made.floor,
    restarts: folds.restarts,
    fates: fatesShown(folds.fates),
    writes: writesOf(plan),
    wayBackUntil: folds.wayBackUntil ?? null,
    wayBack: made.wayBack,
    atRisk: atRisk(steps),
    reaches: made.reaches,
    fails: made.fails,
    ends: made.ends,
    assumed: { parts: [...made.assumed.parts], facts: { ...made.assumed.facts } },
    strip: stripShown(plan, family, steps),
    wall: wallShown(plan, family, made.partitions, steps),
    ownRuns: own.write?.n ?? 0,
    digest,
    scale: aim?.manifest.scale ?? 1,
  }
}

/** What becomes of each thing, with what it is called. */
export const fatesShown = (fates: readonly ItemFate[]): PlanShown['fates'] =>
  fates.map((fate) => ({ ...fate, name: thingName(fate) }))

const say = speaker('en-GB')

/** What a thing is called: by its family, or, where that has no place for it, as it is asked for. */
const thingName = ({ item, name }: ItemFate): string => {
  const code = `topic.survive.${item}`
  return name === '' && isCode(code) ? say(code as 'topic.survive.photos') : name || item
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
