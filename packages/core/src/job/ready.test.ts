/** Each check of Ready moves with the one thing it rests on, and with nothing beside it. */
import { describe, expect, it } from 'vitest'
import type { Line } from '../terms/line.ts'
import { standingLines } from '../terms/line.ts'
import type { ReadyFacts } from './ready.ts'
import { checksOf, confirmationsOf } from './ready.ts'

const linesOf = (more: Readonly<Record<string, string>>, at = 200) =>
  standingLines(Object.entries(more).map(([topic, answer]): Line => ({ topic, answer, at })))
const SIGNED = {
  'ready.backup': 'done',
  'ready.battery': 'done',
  'ready.cable': 'done',
  'ready.permission': 'done',
  'ready.bench': 'done',
}
const plan = { takenAt: 100, stale: false, mode: 'normal', needs: 44 } as const
const facts = (more: Partial<ReadyFacts> = {}): ReadyFacts => ({
  plan,
  agent: true,
  port: 'P2',
  mode: 'normal',
  percent: 71,
  busy: false,
  cable: { name: 'C', runs: 40, losses: 0 },
  unproven: [],
  wiped: false,
  keepData: true,
  idleDrain: 0.2,
  lines: linesOf({}),
  ...more,
})
const broken = (more: Partial<ReadyFacts>) =>
  checksOf(facts(more))
    .filter(({ holds }) => !holds)
    .map(({ check }) => check)

describe('what the system sees', () => {
  it('holds where everything is as it should be', () => {
    expect(broken({})).toEqual([])
  })

  it.each<[string, Partial<ReadyFacts>, readonly string[]]>([
    ['a stale plan', { plan: { ...plan, stale: true } }, ['plan']],
    ['nobody at the ports', { agent: false }, ['agent']],
    ['a device that is not seen', { port: undefined }, ['seen', 'free']],
    ['a port with a run', { busy: true }, ['free']],
    ['too little charge', { percent: 43 }, ['battery']],
    ['enough charge', { percent: 44 }, []],
    ['a plan that needs more', { plan: { ...plan, needs: 80 } }, ['battery']],
    ['a package that is not proven', { unproven: ['loader 7'] }, ['package']],
    ['no cable', { cable: undefined }, ['cable']],
    ['a cable that drops', { cable: { name: 'E', runs: 5, losses: 2 } }, ['cable']],
    ['a cable of which little is known', { cable: { name: 'E', runs: 2, losses: 1 } }, []],
    ['a plan that wipes', { wiped: true }, ['wipe']],
    ['a wipe that was agreed', { wiped: true, lines: linesOf({ 'consent.wipe': 'yes' }) }, []],
    ['nothing that it rests on', { idleDrain: 9 }, []],
  ])('of %s', (_, more, checks) => {
    expect(broken(more)).toEqual(checks)
  })

  it('tells what fails from what could not be looked at', () => {
    const unseen = (more: Partial<ReadyFacts>) =>
      checksOf(facts(more))
        .filter(({ seen }) => !seen)
        .map(({ check }) => check)
    expect(unseen({})).toEqual([])
    expect(unseen({ percent: 3, busy: true })).toEqual([])
    const away = { port: undefined, mode: undefined, percent: undefined, cable: undefined }
    expect(unseen(away)).toEqual(['free', 'mode', 'battery', 'cable'])
    expect(unseen({ cable: undefined })).toEqual(['cable'])
  })

  it('lets nothing idle in the loader: there it may wait only when all is signed', () => {
    expect(broken({ mode: 'loader' })).toEqual(['mode'])
    expect(broken({ mode: 'loader', lines: linesOf(SIGNED) })).toEqual([])
  })
})

describe('what a person makes sure of', () => {
  const open = (more: Partial<ReadyFacts>) =>
    confirmationsOf(facts(more))
      .filter(({ signed }) => !signed)
      .map(({ topic }) => topic)

  it('is signed for this plan: an older signature is none', () => {
    expect(open({ lines: linesOf(SIGNED) })).toEqual([])
    expect(open({ lines: linesOf(SIGNED, 99) })).toEqual(Object.keys(SIGNED))
    expect(open({ lines: linesOf(SIGNED), plan: { ...plan, takenAt: 201 } })).toEqual(
      Object.keys(SIGNED),
    )
    expect(open({ lines: linesOf(SIGNED), plan: undefined })).toHaveLength(5)
  })

  it('asks for a backup where data must survive, and for cards where some came', () => {
    expect(open({ keepData: false })).not.toContain('ready.backup')
    expect(open({ lines: linesOf({ 'accessory.sim': 'here' }) })).toContain('ready.out')
    expect(open({ lines: linesOf({ 'accessory.case': 'here' }) })).not.toContain('ready.out')
  })
})
