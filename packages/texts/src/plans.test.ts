import { describe, expect, it } from 'vitest'
import type { StepSaid } from '@plain-slate/core'
import { ORDER_CODES } from '@plain-slate/core'
import { orderWords, passedWords, planTitle, rangeWords, runTitle, whyWords } from './plans.ts'
import type { PlanSaid, RunSaid } from './plans.ts'
import { speaker } from './say.ts'
import { stepWords } from './steps.ts'

const say = speaker('en-GB')
const step = (kind: StepSaid['kind'], facts: object = {}) =>
  ({ number: 1, kind, facts }) as StepSaid & { readonly number: number }
const plan = (more: Partial<PlanSaid> = {}): PlanSaid =>
  ({ steps: [step('meet')], fates: [], atRisk: {}, fails: null, ...more }) as PlanSaid
const run = (more: Partial<RunSaid> = {}): RunSaid =>
  ({
    state: 'running',
    word: 'hands-off',
    why: null,
    against: null,
    short: null,
    low: null,
    stopBy: null,
    step: 1,
    steps: [step('restart', { to: 'the loader' })],
    ...more,
  }) as RunSaid

describe('a time', () => {
  it('is a range, its low end rounded down and its high end up', () => {
    expect(rangeWords(say, { low: 9.9, high: 14.1 })).toBe('9 to 15 s')
    expect(rangeWords(say, { low: 1440, high: 1961 })).toBe('24 to 33 min')
    expect(rangeWords(say, { low: 30, high: 30 })).toBe('30 s')
  })
  it('that has passed is one figure', () => {
    expect([passedWords(say, 48.4), passedWords(say, 600)]).toEqual(['48 s', '10 min'])
  })
})

describe('a step in words', () => {
  it('counts its pieces only where there are several', () => {
    const facts = { partition: 'main', piece: 3, pieces: 11, mib: 320 }
    expect(stepWords(say, step('write', facts))).toBe('Write main, piece 3 of 11, 320 MiB')
    expect(stepWords(say, step('write', { ...facts, pieces: 1 }))).toBe('Write main, 320 MiB')
  })
  it('says how the loader is reached in the family’s own words', () => {
    const facts = { to: 'the loader', say: 'Hold both triggers.' }
    expect(stepWords(say, step('enter', facts))).toBe('Into the loader: Hold both triggers.')
  })
  it('warns where a first start wipes', () => {
    expect(stepWords(say, step('first-start', { wiped: 'true', say: '' }))).toContain('gone')
    expect(stepWords(say, step('first-start', { wiped: 'false', say: '' }))).toBe('First start')
  })
})

describe('a plan’s headline', () => {
  it('names the worst: seconds that kill, then what can be repaired', () => {
    const atRisk = { dead: 5.2, redo: 420, 'loop-data-safe': 50 }
    expect(planTitle(say, plan({ atRisk }))).toBe(
      '1 step, data kept: 6 s that could kill it, 8 min that could be repaired',
    )
  })
  it('follows the fate of the data and stays when something harmless changes', () => {
    const wiped = plan({ fates: [{ fate: 'wiped' }] })
    expect(planTitle(say, wiped)).toContain('data wiped')
    expect(planTitle(say, plan({ atRisk: { unaffected: 900 } }))).toBe(planTitle(say, plan()))
  })
})

describe('the order of a plan', () => {
  it('has a sentence for each reason there is', () => {
    const facts = { first: 'a', title: 'b', least: 7, build: 'c', roles: 'd' }
    const said = ORDER_CODES.map((code) => orderWords(say, { code, facts }))
    expect(new Set(said).size).toBe(ORDER_CODES.length)
  })
})

describe('a run’s headline', () => {
  it('tells a run nobody drives from a device that does not answer', () => {
    expect(runTitle(say, run({ word: 'in-doubt', ownerless: true }))).toContain('nobody drives')
    expect(runTitle(say, run({ word: 'in-doubt', ownerless: false }))).toContain('does not answer')
  })
  it('says why it stopped, with whose serial', () => {
    const why = { code: 'wrong-device', facts: { serial: 'TRN4490081C04' } }
    expect(runTitle(say, run({ word: 'stopped', state: 'stopped', why }))).toContain(
      'TRN4490081C04',
    )
  })
  it('says that its device has too little charge, where somebody’s word does not say more', () => {
    const short = { charge: 12, needs: 31 }
    const title = (more: Partial<RunSaid>) =>
      runTitle(say, run({ word: 'stopped', short, ...more }))
    expect(title({})).toBe('Held for its charge: 12 %')
    expect(title({ short: { charge: 9, needs: 31 } })).toContain('9 %')
    /* Charged since, or not seen: why it was stopped is told all the same. */
    const low = { charge: 8, needs: 30 }
    expect(title({ short: null, low })).toBe('Stopped for its charge: it had 8 %')
    expect(title({ low })).toContain('12 %')
    expect(title({ short: null })).toContain('somebody asked')
    expect(title({ short: null, stopBy: 'Tavi Renn' })).toBe('Stopped: Tavi Renn asked for it')
    expect(title({ against: { topic: 'condition.wet' } })).not.toContain('12 %')
    expect(title({ why: { code: 'refused', facts: { code: 'floor' } } })).not.toContain('12 %')
  })

  it('says that something was said against it, where nothing worse stopped it', () => {
    const against = { topic: 'condition.wet' }
    const title = (more: Partial<RunSaid>) =>
      runTitle(say, run({ word: 'stopped', state: 'stopped', ...more }))
    expect(title({ against })).toBe('Held: something was said against the work')
    expect(title({ against, why: { code: 'refused', facts: { code: 'floor' } } })).not.toContain(
      'Held',
    )
    expect(title({})).not.toContain('Held')
  })
  it('has words for each reason there is', () => {
    const reasons = [
      { code: 'asked', facts: {} },
      { code: 'superseded', facts: {} },
      { code: 'refused', facts: { code: 'floor' } },
      { code: 'not-equal', facts: { partition: 'main' } },
      {
        code: 'not-as-promised',
        facts: { build: 'H2.0ZC.r4', loader: 6, floor: 5, outcome: 'loop' },
      },
    ]
    const said = reasons.map((why) => whyWords(say, why))
    expect(new Set(said).size).toBe(reasons.length)
    expect(said[4]).toContain('restarts over and over')
    expect(said[4]).toContain('loader 6, floor 5')
    const untold = { build: 'H2.0ZC.r4', loader: '', floor: '', outcome: 'loop' }
    expect(whyWords(say, { code: 'not-as-promised', facts: untold })).toMatch(
      /^it says build H2.0ZC.r4, and/,
    )
  })
})
