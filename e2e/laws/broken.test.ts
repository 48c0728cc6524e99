/** Each law is broken once on purpose, and seen; and once held, so that none cries at everything. */
import type { Job, Ready, RunShown } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import type { Act } from './act.ts'
import { KINDS } from './law-shop.ts'
import type { Told } from './law-shop.ts'
import { LAWS } from './laws.ts'
import type { Asked, Step } from './laws.ts'
import type { Memory, View } from './memory.ts'
import { newMemory } from './memory.ts'

const NOW = 1_000_000_000
const TAKEN: Told = { status: 200, body: {} }
const REFUSED: Told = {
  status: 409,
  body: { code: 'slip.ended', sentence: 'It is over.', kept: 'Nothing.', remedy: 'Open it.' },
}
const SAID: readonly (readonly [string, string])[] = [
  ['owner.proof', 'shown'],
  ['owner.managed', 'agreed'],
  ['owner.account', 'absent'],
  ['condition.cell', 'sound'],
  ['condition.wet', 'dry'],
  ['history.before', 'untouched'],
  ['consent.no-guarantee', 'yes'],
  ['function.screen', 'works'],
  ['survive.photos', 'not-there'],
]
const SIGNED = ['ready.battery', 'ready.cable'] as const
const row = (topic: string): Ready['signed'][number] => ({
  ...{ topic, answers: ['done'], answer: 'done', signed: true, ended: null },
  ...{ facts: {}, by: 'Tavi Renn', at: null },
})

/** A slip that is ready, with everything said in order. */
function memory(change: (memory: Memory) => void = () => undefined): Memory {
  const [kind] = KINDS
  if (kind === undefined) throw new Error('no kind')
  const made = newMemory(kind, 'S', 'P1')
  made.number = '0437'
  made.plan = { digest: 'd', act: 10, at: NOW - 2000 }
  for (const [topic, answer] of SAID) made.words.push({ topic, answer, act: 1, at: NOW - 3000 })
  for (const topic of SIGNED) made.words.push({ topic, answer: 'done', act: 11, at: NOW - 1000 })
  change(made)
  return made
}
const view = (more: Partial<View> = {}): View => ({
  state: 'open',
  job: undefined,
  ready: { signed: SIGNED.map(row) } as unknown as Ready,
  run: undefined,
  alive: [],
  claims: [],
  ...more,
})
const step = (more: Partial<Step> = {}): Step => ({
  memory: memory(),
  before: view(),
  act: { do: 'start', who: 'Tavi' },
  told: TAKEN,
  view: view(),
  now: NOW,
  hangs: 'P1',
  ...more,
})
const asked = (says: string, at: Step): Asked => {
  const law = LAWS.find((one) => one.says.startsWith(says))
  if (law === undefined) throw new Error(`no law ${says}`)
  return law.ask(at)
}
const said = (topic: string, answer: string, act = 12, at = NOW - 500) =>
  memory(({ words }) => void words.push({ topic, answer, act, at }))
const alive = (more: Partial<View['alive'][number]> = {}) => [
  {
    id: 'r',
    slip: '0437',
    serial: 'S',
    state: 'running',
    against: null,
    slipState: 'open',
    ...more,
  },
]
const stages = (is: string) =>
  ({
    run: 'r',
    stages: [
      { stage: 'intake', is, says: 'intake.open' },
      { stage: 'write', is: 'done', says: '' },
    ],
  }) as unknown as Job

describe('law 2, of a second slip', () => {
  it('sees a device that two open slips claim', () => {
    const act = { do: 'deed', who: 'Tavi', deed: 'second', n: 1 } as const
    const claims = (...slips: string[]) =>
      asked(
        'a device is claimed',
        step({
          act,
          memory: memory(({ others }) => void others.push('0438')),
          view: view({ claims: slips }),
        }),
      )
    expect(claims('0437', '0438')).toMatchObject({ broken: expect.any(String) })
    expect(claims('0437')).toBe('held')
  })
})

describe('law 7', () => {
  it('sees what was taken of nobody, and asks nothing of what somebody did', () => {
    const acted = (who: 'nobody' | 'Tavi', told: Told) =>
      asked('who has no name', step({ act: { do: 'note', who, text: 'a note' }, told }))
    expect(acted('nobody', TAKEN)).toMatchObject({ broken: expect.any(String) })
    expect(acted('nobody', REFUSED)).toBe('held')
    expect(acted('Tavi', TAKEN)).toBe('no chance')
  })
})

describe('law 1', () => {
  const entered = (more: Partial<Step>) => asked('a run is entered', step(more))
  it('has no chance where everything may be', () => {
    expect(entered({})).toBe('no chance')
  })
  it.each<[string, Partial<Step>]>([
    ['a wet port', { memory: said('condition.wet', 'wet') }],
    ['a trainee', { act: { do: 'start', who: 'Juno' } }],
    ['a slip that waits', { before: view({ state: 'waiting' }) }],
    ['a device at another port', { hangs: 'P2' }],
    ['a signature that is old', { now: NOW + 14 * 3_600_000 }],
    ['a plan that nobody took', { memory: memory((one) => (one.plan = undefined)) }],
    ['a question nobody asked', { memory: memory(({ words }) => void words.splice(0, 1)) }],
    [
      'a withdrawal between signature and start',
      {
        memory: memory(({ words }) => {
          words.push({ topic: 'condition.wet', answer: 'wet', act: 12, at: NOW - 500 })
          words.push({ topic: 'condition.wet', answer: 'dry', act: 13, at: NOW - 400 })
        }),
      },
    ],
    ['a wipe nobody agreed to', { memory: memory((one) => (one.fates = ['wiped'])) }],
  ])('sees a run that was entered over %s', (_, more) => {
    expect(entered(more)).toMatchObject({ broken: expect.any(String) })
    expect(entered({ ...more, told: REFUSED })).toBe('held')
  })
})

describe('law 2', () => {
  const lives = (more: Partial<Step>) => asked('while a run lives', step(more))
  it('sees a slip that is over under its run, and two runs of one device', () => {
    expect(lives({ view: view({ alive: alive({ slipState: 'stopped' }) }) })).toHaveProperty(
      'broken',
    )
    const two = [...alive(), ...alive({ id: 's', slip: '0438' })]
    expect(lives({ view: view({ alive: two }) })).toHaveProperty('broken')
    const act: Act = { do: 'state', who: 'Tavi', state: 'stopped', reason: '' }
    const held = view({ alive: alive() })
    expect(lives({ act, before: held, view: held })).toBe('held')
  })
})

describe('law 3', () => {
  const held = memory((one) => (one.heldSince = 12))
  it('sees a word that stands nowhere, and one that stands on the run alone', () => {
    const stands = (against: unknown, page: unknown) =>
      asked(
        'what is said against',
        step({
          memory: held,
          view: view({ alive: alive({ against }), run: { against: page } as unknown as RunShown }),
        }),
      )
    expect(stands(null, null)).toHaveProperty('broken')
    expect(stands({}, null)).toHaveProperty('broken')
    expect(stands({}, {})).toBe('held')
  })
  it('sees a run that is taken up all the same', () => {
    const up = (told: Told) =>
      asked(
        'a run that a word holds',
        step({
          ...{ memory: held, told, before: view({ alive: alive() }) },
          act: { do: 'run', who: 'Tavi', word: 'take-up' },
        }),
      )
    expect(up(TAKEN)).toHaveProperty('broken')
    expect(up(REFUSED)).toBe('held')
  })
})

it('law 4 sees a word that holds though it ended', () => {
  const ended = memory(({ words }) => {
    words.push({ topic: 'condition.wet', answer: 'wet', act: 12, at: NOW - 500 })
  })
  expect(asked('what ended', step({ memory: ended }))).toHaveProperty('broken')
  const unsigned = { signed: SIGNED.map((one) => ({ ...row(one), signed: false })) }
  const shown = view({ ready: unsigned as unknown as Ready })
  expect(asked('what ended', step({ memory: ended, view: shown }))).toBe('held')
  expect(asked('what ended', step())).toBe('no chance')
})

it('law 5 sees a slip that closed over an open stage without a reason', () => {
  const act: Act = { do: 'state', who: 'Tavi', state: 'closed', reason: '' }
  const before = view({ job: stages('open') })
  expect(asked('a slip closes', step({ act, before }))).toHaveProperty('broken')
  expect(asked('a slip closes', step({ act, before, told: REFUSED }))).toBe('held')
  const reason = { ...act, reason: 'fetched' }
  expect(asked('a slip closes', step({ act: reason, before }))).toBe('no chance')
})

it('law 6 sees a stage that is open though its run has passed it', () => {
  const at = (is: string) =>
    asked('what a run has passed', step({ view: view({ job: stages(is) }) }))
  expect(at('open')).toHaveProperty('broken')
  expect(at('done')).toBe('held')
})

it('law 23 sees an id, a digest’s brace, a truth value', () => {
  const refusal = (sentence: string): Told => ({
    status: 404,
    body: { code: 'run.unknown', sentence, kept: '', remedy: '' },
  })
  const told = (sentence: string) => asked('no internal word', step({ told: refusal(sentence) }))
  expect(told('There is no run 0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0001.')).toHaveProperty('broken')
  expect(told('It is true.')).toHaveProperty('broken')
  expect(told('There is no such run.')).toBe('held')
})
