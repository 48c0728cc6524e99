/**
 * `plan --package ID`: the plan for one device with its figures, steps and what becomes of the data; ID may be a
 * route's name. `rehearse` says where it ends, and with `--cuts` what a cut in each step would leave.
 */
import type { PlanShown } from '@plain-slate/api'
import { failsWords, findingWords, planTitle, rangeWords, stepWords } from '@plain-slate/texts'
import type { Args } from './args.ts'
import { WANTED, WANTED_FLAGS, deviceOf, readArgs, wantedOf } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { serverOf } from './server.ts'

/** What a plan is asked with. */
export const askOf = async (args: Args) => ({
  ...(await deviceOf(args)),
  package: args.needed('package'),
  ...wantedOf(args),
})

export async function plan(args: readonly string[]): Promise<Outcome> {
  const shown = await planned(args)
  return { code: 0, text: planText(shown), json: shown }
}

export async function rehearse(args: readonly string[]): Promise<Outcome> {
  const shown = await planned(args)
  const { steps, atRisk, digest, reaches, fails, ends } = shown
  const end = reaches
    ? say('cli.rehearsed', { build: ends.build })
    : fails === null
      ? ''
      : failsWords(say, fails)
  const cuts = steps.map((step) => ({ step: step.number, kind: step.kind, worst: step.worst }))
  const lines = args.includes('--cuts')
    ? steps.map(
        (step) => `${number(step.number)} ${stepWords(say, step)}: ${say(`cut.${step.worst}`)}`,
      )
    : []
  const text = [planTitle(say, shown), end, ...lines].join('\n')
  return { code: reaches ? 0 : 1, text, json: { digest, reaches, fails, ends, atRisk, cuts } }
}

async function planned(args: readonly string[]): Promise<PlanShown> {
  const read = readArgs(args, WANTED, WANTED_FLAGS)
  const body = await askOf(read)
  return serverOf(read).call('plan', { body })
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
