/** What rules say of what others bring is so: no package that goes on before turns the word of a rule that says none does. */
import { expect, it } from 'vitest'
import { verdictOf } from '../match/rule.ts'
import { RULES } from '../match/rules.ts'
import type { Move } from '../plan/moves.ts'
import { moveName } from '../plan/moves.ts'
import { heldAgainst } from '../plan/plan.ts'
import { stateOf, worldBench } from '../testing/worlds.ts'
import { isTakeable } from '../verdict/verdict.ts'
import { effectOf, isMoved, waysOf, worldOf } from './world.ts'

const WORLDS = 60
const SILENT = RULES.filter((rule) => isMoved(rule) && rule.brought === undefined)

type World = ReturnType<typeof stateOf>
const word = (rule: (typeof RULES)[number], state: World, move: Move) => {
  const held = heldAgainst(state, move, true)
  const verdict = held && verdictOf(rule, held)
  return verdict === undefined || isTakeable(verdict)
}

/** Of every rule that shuts a move out at the beginning: whether some move opens it. */
function shutIn(seed: number) {
  const start = stateOf(worldBench(seed), { keepData: seed % 2 === 0 })
  const { allows } = worldOf({ start, isAim: () => true })
  const moves = start.at.shelf.flatMap((one) => waysOf(start.at, one))
  const states = moves
    .filter((move) => allows(start, move, false))
    .flatMap((move) => effectOf(start, move, false) ?? [])
  return moves.flatMap((move) =>
    RULES.filter((rule) => isMoved(rule) && !word(rule, start, move)).map((rule) => ({
      seed,
      rule,
      move: moveName(move),
      opens: states.some((state) => word(rule, state, move)),
    })),
  )
}

it(`no move opens what nobody is said to bring, from ${WORLDS} devices`, () => {
  const shut = Array.from({ length: WORLDS }, (_, index) => shutIn(index + 1)).flat()
  const silent = shut.filter(({ rule }) => SILENT.includes(rule))
  expect(silent.filter(({ opens }) => opens)).toEqual([])
  /* There were walls, and there were openings. */
  const opened = shut.filter(({ rule, opens }) => opens && !SILENT.includes(rule))
  expect(Math.min(silent.length, opened.length)).toBeGreaterThan(5)
})
