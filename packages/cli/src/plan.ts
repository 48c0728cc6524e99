/**
 * `plan --port P2 --package ID`: the plan with its figures, steps and what becomes of the data.
 * `rehearse` says of the same plan what a cut in each step would leave, from its rehearsal.
 */
import type { PlanShown } from '@plain-slate/api'
import { findingWords, planTitle, rangeWords, stepWords } from '@plain-slate/texts'
import type { Args } from './args.ts'
import { WANTED, WANTED_FLAGS, readArgs, wantedOf } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { serverOf } from './server.ts'

/** What a plan is asked with. */
export const askOf = (args: Args) => ({
  port: args.needed('port'),
  package: args.needed('package'),
  ...wantedOf(args),
})

export async function plan(args: readonly string[]): Promise<Outcome> {
  const shown = await planned(args)
  return { code: 0, text: planText(shown), json: shown }
}

export async function rehearse(args: readonly string[]): Promise<Outcome> {
  const shown = await planned(args)
  const { steps, atRisk, digest } = shown
  const text = [
    planTitle(say, shown),
    ...steps.map(
      (step) => `${number(step.number)} ${stepWords(say, step)}: ${say(`cut.${step.worst}`)}`,
    ),
  ].join('\n')
  const cuts = steps.map((step) => ({ step: step.number, kind: step.kind, worst: step.worst }))
  return { code: 0, text, json: { digest, atRisk, cuts } }
}

function planned(args: readonly string[]): Promise<PlanShown> {
  const read = readArgs(args, WANTED, WANTED_FLAGS)
  const body = askOf(read)
  return serverOf(read.data).call('plan', { body })
}

const number = (one: number) => String(one).padStart(3)

function planText(shown: PlanShown): string {
  const { time, hands, needs, restarts, wayBackUntil } = shown
  return [
    planTitle(say, shown),
    say('plan.lede', {
      time: rangeWords(say, time),
      hands: rangeWords(say, hands),
      needs,
      restarts,
      back:
        wayBackUntil === null ? say('plan.back.none') : say('plan.back', { step: wayBackUntil }),
    }),
    ...shown.findings.map(
      (finding) => `  ${say(`verdict.${finding.verdict}`)}: ${findingWords('en-GB', finding)}`,
    ),
    ...shown.fates.map(({ name, fate }) => `  ${name}: ${say(`fate.${fate as 'kept'}`)}`),
    ...shown.steps.map(
      (step) =>
        `${number(step.number)} ${stepWords(say, step)} (${rangeWords(say, step.seconds)}${step.hands ? `, ${say('plan.hands')}` : ''})`,
    ),
  ].join('\n')
}
