/** Every answer that would make another plan of the route in hand is told, and none that would not. */
import { describe, expect, it } from 'vitest'
import { USUAL_HOUSE } from '../match/house.ts'
import type { Unheld } from '../match/rule.ts'
import { planOf } from '../plan/plan.ts'
import { case0417 } from '../testing/cases.ts'
import { alder, benchOf, caseOf, packageOf } from '../testing/families.ts'
import { open } from '../testing/judged.ts'
import { bestMoves } from './make-plan.ts'
import { otherwise } from './otherwise.ts'

const build = (name: string) =>
  packageOf(alder, { model: 'CORV-5N', board: 'C', build: name, release: 20 })
const bench = benchOf({ family: alder, on: open, shelf: [build('20-2638.0-HO')] })

function tell(more: Partial<Unheld> = {}) {
  const [aim] = bench.shelf.filter(({ build: name }) => name === '20-2638.0-HO')
  if (aim === undefined) throw new Error('no aim')
  const { shelved, ...at } = caseOf(bench, aim, more)
  const start = { at, mode: bench.device.mode, permission: bench.device.permission }
  const moves = bestMoves(start, shelved)
  return { start, moves, others: otherwise(start, moves, shelved) }
}
const questions = (more: Partial<Unheld> = {}) =>
  tell(more).others.map(({ question, answer }) => `${question} ${answer}`)

describe('otherwise', () => {
  it('tells what moves the plan, and of data only where they need not survive', () => {
    const kept = questions({ keepData: true })
    expect(kept).toContain('restarts every')
    expect(kept.filter((one) => /^(data|reset|build|source|cards|digests)/.test(one))).toEqual([])
    const lost = questions({ keepData: false })
    expect(lost).toEqual(expect.arrayContaining(['data new', 'reset always']))
  })

  it('tells the other answer of what the house has decided', () => {
    const house = { ...USUAL_HOUSE, data: 'new' as const }
    const told = questions({ keepData: false, house })
    expect(told).toContain('data keep')
    expect(told).not.toContain('data new')
    /* What is wiped on the way is not wiped once more. */
    expect(told).not.toContain('reset always')
  })

  it('gives the very plan that a house of that answer makes, by the name of its route', () => {
    const { start, others } = tell({ keepData: false })
    for (const { question, answer, route, plan } of others) {
      const house = { ...start.at.house, [question]: answer }
      const made = planOf({ ...start, at: { ...start.at, house } }, plan.moves)
      expect(made.ok && made.value).toEqual(plan)
      expect(route).toBe(others.find((one) => one.plan === plan)?.route)
    }
    expect(others.find(({ question }) => question === 'reset')?.route).toMatch(/ > do reset$/)
  })

  it('writes everything on the lead handheld where the house does', () => {
    const { shelved, ...at } = case0417()
    const start = { at, mode: 'normal', permission: true }
    const others = otherwise(start, bestMoves(start, shelved), shelved)
    const steps = (question: string) =>
      others.find((one) => one.question === question)?.plan.steps.length ?? 0
    const now = planOf(start, bestMoves(start, shelved))
    expect(steps('writes')).toBeGreaterThan(now.ok ? now.value.steps.length : Infinity)
  })

  it('tells nothing of a route of which no plan comes', () => {
    const { start, moves } = tell()
    const [aim] = start.at.shelf
    if (aim === undefined) throw new Error('no aim')
    const unread = { ...start, at: { ...start.at, shelf: [] } }
    expect(otherwise(unread, moves, aim)).toEqual([])
  })
})
