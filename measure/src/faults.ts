/**
 * The fault suite at length: a thousand faults, of every kind at every step, in several shops side by side.
 * What was tried, and what was lost. FAULTS=n tries another number, FAULT_SEED=n another course.
 */
import setup from '../../e2e/setup.ts'
import { cloneTemplate } from '../../e2e/bench.ts'
import { diceOf } from '../../e2e/faults/dice.ts'
import { FaultShop } from '../../e2e/faults/fault-shop.ts'
import { KINDS } from '../../e2e/faults/kinds.ts'
import type { Outcome } from '../../e2e/faults/round.ts'
import { playRound } from '../../e2e/faults/round.ts'
import type { Row } from './row.ts'

const WANTED = Number(process.env['FAULTS'] ?? 1000)
const SEED = Number(process.env['FAULT_SEED'] ?? 20261126)
const SHOPS = 2
/** Minutes after which no further round is begun; what was tried until then is told. */
const MINUTES = Number(process.env['FAULT_MINUTES'] ?? 120)
/** Faults to a round. */
const AT_ONCE = 6

export async function faults(): Promise<readonly Row[]> {
  const stop = await setup()
  const outcomes: Outcome[] = []
  const tried = () => outcomes.reduce((sum, one) => sum + one.tried.length, 0)
  const play = async (which: number): Promise<void> => {
    const superuser = process.env['E2E_SUPERUSER_URL'] ?? ''
    const shop = new FaultShop(await cloneTemplate('demo'), superuser)
    await shop.open()
    const late = Date.now() + MINUTES * 60_000
    for (let round = which; tried() < WANTED && Date.now() < late; round += SHOPS) {
      const seed = SEED + round
      const dice = diceOf(seed)
      const kinds = Array.from({ length: AT_ONCE }, () => dice.one(KINDS))
      const outcome = await playRound(shop, seed, kinds)
      outcomes.push(outcome)
      if (outcome.lost.length > 0) console.log(JSON.stringify(outcome))
    }
    await shop.close()
  }
  await Promise.all(Array.from({ length: SHOPS }, (_, which) => play(which)))
  await stop()
  return [...KINDS.map(({ name }) => rowOf(name, outcomes)), sumOf(outcomes)]
}

/** How often a kind was tried, at how many kinds of step, in how many rounds something was lost with it. */
function rowOf(name: string, outcomes: readonly Outcome[]): Row {
  const mine = outcomes.flatMap(({ tried }) => tried.filter(({ kind }) => kind === name))
  const during = [...new Set(mine.map((one) => one.during))].sort()
  const lost = mine.filter((one) => one.lost.length > 0).length
  return {
    what: `fault: ${name}`,
    measured: `${mine.length} tried (during ${during.join(', ')}), ${lost} in rounds that lost something`,
    limit: '0 lost',
  }
}

function sumOf(outcomes: readonly Outcome[]): Row {
  const count = (of: (one: Outcome) => number) => outcomes.reduce((sum, one) => sum + of(one), 0)
  const whole = outcomes.filter(({ lost }) => lost.length === 0).length
  return {
    what: `faults in all, seeds from ${SEED}`,
    measured: `${count(({ tried }) => tried.length)} in ${outcomes.length} runs with ${count(({ takeUps }) => takeUps)} take-ups; ${whole} runs ended as promised, ${count(({ notes }) => notes)} acknowledged notes`,
    limit: 'every run as promised, no note lost',
  }
}
