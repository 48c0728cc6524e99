/** Every line a spine says has its witness: what is changed alone moves exactly the stages named. */
import { describe, expect, it } from 'vitest'
import { STAGES } from '../terms/slip.ts'
import type { Line } from '../terms/line.ts'
import { TOPICS, standingLines } from '../terms/line.ts'
import type { Lines } from './intake.ts'
import {
  endedBy,
  haltOf,
  intakeTopics,
  mustBeSaid,
  thingsThere,
  thingsWanted,
  unsaid,
  wishOf,
} from './intake.ts'
import type { JobFacts } from './stages.ts'
import { UNPREPARED, handBackTopics, stillUndone } from './hand-back.ts'
import { careOf, stageAt, standingsOf } from './stages.ts'

const THINGS = ['tickets', 'settings']
const GOOD: Readonly<Record<string, string>> = {
  'owner.proof': 'shown',
  'owner.managed': 'not-managed',
  'owner.account': 'absent',
  'condition.cell': 'sound',
  'condition.wet': 'dry',
  'history.before': 'untouched',
  'consent.no-guarantee': 'yes',
  'survive.tickets': 'must',
  'survive.settings': 'may-go',
}
function linesOf(more: Readonly<Record<string, string>> = {}): Lines {
  const asked = mustBeSaid(THINGS)
  const usual = asked.map((topic) => [
    topic,
    GOOD[topic] ??
      (topic.startsWith('survive.')
        ? 'not-there'
        : topic.startsWith('accessory.')
          ? 'none'
          : 'works'),
  ])
  const all = { ...(Object.fromEntries(usual) as Record<string, string>), ...more }
  return standingLines(
    Object.entries(all)
      .filter(([, answer]) => answer !== '')
      .map(([topic, answer], at): Line => ({ topic, answer, at })),
  )
}
const AFTER = Object.fromEntries(
  TOPICS.filter(({ stage }) => stage === 'first-start').map(({ topic }) => [topic, 'works']),
)

const PREPARED = { permission: true, copies: true, restore: true, addons: true }

/** A job in which everything is done but what is named. */
function job(more: Partial<JobFacts> = {}, lines: Readonly<Record<string, string>> = {}): JobFacts {
  const done = Object.fromEntries(
    handBackTopics(linesOf(), PREPARED).map((topic) => [topic, 'done']),
  )
  return {
    prepared: PREPARED,
    closed: true,
    things: THINGS,
    asksRow: false,
    lighter: { open: 0, cured: undefined },
    lines: linesOf({ ...AFTER, ...done, ...lines }),
    known: { settled: 13, open: [] },
    route: { title: 'H2.104.r4', verdict: 'fits-if' },
    packages: 2,
    unproven: [],
    unpublished: [],
    overruled: false,
    written: { images: 5, of: 7, read: true },
    plan: { steps: 17, low: 1080, high: 1560, stale: false },
    ready: { open: 0, all: 6 },
    run: undefined,
    worse: [],
    decided: false,
    ...more,
  }
}
const WORSE = { what: 'function.screen', was: 'works', now: 'fails' }
const ended = { state: 'ended', step: 18, steps: 17 } as const
const is = (more: Partial<JobFacts>, lines?: Readonly<Record<string, string>>) =>
  Object.fromEntries(standingsOf(job(more, lines)).map(({ stage, is: state }) => [stage, state]))

describe('a slip', () => {
  it('whose work is done stands at its end', () => {
    const standings = standingsOf(job({ run: ended }))
    expect(new Set(standings.map((one) => one.is))).toEqual(new Set(['done']))
    expect(stageAt(standings)).toBe('hand-back')
  })

  it('that something lighter cured is spared all but the test after it and the hand back', () => {
    const cured = { open: 0, cured: 'restart' } as const
    const spared = standingsOf(job({ lighter: cured, known: undefined, route: undefined }))
    expect(spared.filter(({ says }) => says === 'cured').map(({ stage }) => stage)).toEqual([
      ...['readings', 'firmware', 'proof', 'compare', 'plan', 'ready', 'write'],
    ])
    expect(spared.find(({ stage }) => stage === 'write')?.facts).toEqual({ by: 'restart' })
    expect(is({ lighter: cured }, { 'after.screen': '' })).toMatchObject({ 'first-start': 'open' })
    const written = is({ lighter: cured, run: { ...ended, state: 'stopped' } })
    expect(written['write']).toBe('open')
    expect(is({ lighter: { open: 1, cured: undefined } })['intake']).toBe('open')
  })

  it.each<[string, Partial<JobFacts>, Readonly<Record<string, string>>, string, string]>([
    ['a thing that was not asked', {}, { 'survive.tickets': '' }, 'intake', 'open'],
    ['a variant that nobody named', { asksRow: true }, {}, 'intake', 'open'],
    [
      'one that was named',
      { asksRow: true, run: undefined },
      { 'want.row': 'HI/O' },
      'write',
      'open',
    ],
    ['a device nobody knows', { known: undefined }, {}, 'readings', 'open'],
    ['a fact that is missing', { known: { settled: 12, open: ['board'] } }, {}, 'readings', 'open'],
    ['no route', { route: undefined }, {}, 'firmware', 'open'],
    ['a thing nobody asked about', {}, { 'survive.photos': '' }, 'intake', 'open'],
    ['a package not whole', { unproven: ['loader 7'] }, {}, 'proof', 'open'],
    ['a package nobody vouches for', { unpublished: ['x'] }, {}, 'proof', 'open'],
    ['nothing read of it', { written: { images: 7, of: 7, read: false } }, {}, 'compare', 'open'],
    ['no plan', { plan: undefined }, {}, 'plan', 'open'],
    ['a check that does not hold', { ready: { open: 1, all: 6 } }, {}, 'ready', 'open'],
    ['no run', {}, {}, 'write', 'open'],
    ['a run under way', { run: { state: 'under-way', step: 9, steps: 17 } }, {}, 'write', 'open'],
    ['a test not made again', { run: ended }, { 'after.touch': '' }, 'first-start', 'open'],
    ['something worse', { run: ended, worse: [WORSE] }, {}, 'first-start', 'open'],
    ['a permission not withdrawn', { run: ended }, { 'undo.permission': '' }, 'hand-back', 'open'],
    ['a slip not closed', { run: ended, closed: false }, {}, 'hand-back', 'open'],
  ])('with %s stands there, and what comes after waits for it', (_, more, lines, stage, state) => {
    const standings = standingsOf(job(more, lines))
    expect(stageAt(standings)).toBe(stage)
    const at = STAGES.findIndex((one) => one === stage)
    expect(standings[at]?.is).toBe(state)
    expect(standings.slice(0, at).every((one) => one.is === 'done')).toBe(true)
    for (const later of standings.slice(at + 1))
      expect(later).toMatchObject({ is: 'waits', facts: { stage } })
  })

  it('says of the packages what is so, also after a lead took one that nobody vouches for', () => {
    const says = (more: Partial<JobFacts>) => standingsOf(job(more))[3]?.says
    expect(says({})).toBe('proof.done')
    const unpublished = ['x']
    expect(says({ unpublished })).toBe('proof.unpublished')
    for (const run of [undefined, ended])
      expect(says({ unpublished, overruled: true, run })).toBe('proof.overruled')
    expect(says({ overruled: true })).toBe('proof.done')
  })

  it('says what is to be done again where it was done and no longer holds', () => {
    const stale = { plan: { steps: 17, low: 1, high: 2, stale: true } }
    expect(is(stale).plan).toBe('again')
    expect(is({ ...stale, known: { settled: 12, open: ['board'] } }).plan).toBe('again')
    expect(is({ route: { title: 'x', verdict: 'does-not-fit' } }).firmware).toBe('again')
    expect(is({ ...stale, run: ended }).plan).toBe('done')
  })

  it('takes nothing written before back once the run has begun', () => {
    const after: Partial<JobFacts> = {
      run: ended,
      known: { settled: 3, open: ['board'] },
      unproven: ['x'],
      ready: { open: 2, all: 6 },
      route: { title: 'x', verdict: 'does-not-fit' },
    }
    expect(stageAt(standingsOf(job(after)))).toBe('hand-back')
  })

  it('goes on after something worse once somebody decided', () => {
    expect(is({ run: ended, worse: [WORSE], decided: true })['first-start']).toBe('done')
    expect(is({ run: ended, worse: [WORSE] })['first-start']).toBe('open')
  })

  it('reads accepted where nothing was read of the device and everything is written', () => {
    const unread = { written: { images: 7, of: 7, read: false } }
    expect(is(unread, { 'compare.unread': 'write-all' }).compare).toBe('done')
  })
})

describe('intake', () => {
  it.each([
    ['condition.cell', 'damaged', 'cell'],
    ['owner.account', 'nobody', 'account'],
    ['owner.proof', 'not-shown', 'proof'],
    ['owner.managed', 'not-agreed', 'managed'],
    ['condition.wet', 'wet', 'wet'],
    ['consent.no-guarantee', 'no', 'guarantee'],
  ])('is halted by %s: %s, and by no answer beside it', (topic, answer, halt) => {
    expect(haltOf(linesOf({ [topic]: answer }))).toBe(halt)
    expect(haltOf(linesOf({ 'function.screen': 'fails', 'history.before': 'tried' }))).toBe(
      undefined,
    )
    expect(is({}, { [topic]: answer }).intake).toBe('halted')
  })

  it('is no question once a run has begun: what it passed stays passed, and is read from the run', () => {
    const run = { run: { state: 'ended', step: 9, steps: 8 } } as const
    for (const lines of [
      { 'condition.wet': 'wet' },
      { 'survive.photos': '' },
      { 'survive.photos': 'may-go' },
    ]) {
      const { intake, readings, firmware } = is(run, lines)
      expect([intake, readings, firmware]).toEqual(['done', 'done', 'done'])
    }
    expect(is({ ...run, lighter: { open: 1, cured: undefined } }).intake).toBe('done')
    expect(is({ ...run, known: undefined }).readings).toBe('done')
  })

  it('ends the slip for a damaged cell and an account nobody can open, for nothing else', () => {
    expect(endedBy('condition.cell', 'damaged')).toBe('stopped')
    expect(endedBy('owner.account', 'nobody')).toBe('declined')
    expect(endedBy('owner.account', 'owner-able')).toBe(undefined)
    expect(endedBy('condition.wet', 'wet')).toBe(undefined)
  })

  it('keeps the data where one thing must survive, or nobody asked about one', () => {
    expect(wishOf(THINGS, linesOf())).toBe('must')
    const none = { 'survive.tickets': 'may-go' }
    expect(wishOf(THINGS, linesOf(none))).toBe('may-go')
    expect(wishOf(THINGS, linesOf({ ...none, 'survive.photos': 'must' }))).toBe('must')
    expect(wishOf(THINGS, linesOf({ ...none, 'survive.photos': '' }))).toBe('must')
    expect(wishOf(THINGS, new Map())).toBe('must')
    const one = standingLines([{ topic: 'survive.photos', answer: 'not-there', at: 1 }])
    expect(wishOf(THINGS, one)).toBe('must')
  })

  it('asks about every thing that people lose, and for no wipe that nothing needs', () => {
    expect(unsaid(THINGS, linesOf())).toEqual([])
    expect(unsaid(THINGS, linesOf({ 'survive.esim': '' }))).toEqual(['survive.esim'])
    expect(unsaid(THINGS, linesOf({ 'survive.tickets': 'may-go' }))).toEqual([])
  })

  it('counts a thing as there unless somebody said that it is not', () => {
    expect(thingsThere(THINGS, linesOf())).toEqual(THINGS)
    expect(thingsThere(THINGS, linesOf({ 'survive.photos': 'may-go' }))).toContain('photos')
    expect(thingsThere(THINGS, linesOf({ 'survive.photos': '' }))).toContain('photos')
    expect(thingsWanted(THINGS, linesOf({ 'survive.photos': 'may-go' }))).toEqual(['tickets'])
  })

  it('asks for the family’s own things first', () => {
    expect(intakeTopics(THINGS)[0]?.topic).toBe('survive.tickets')
    /* A thing of the family's that everybody is asked about is asked once. */
    const topics = intakeTopics(['photos', 'settings']).map(({ topic }) => topic)
    expect(topics).toEqual([...new Set(topics)])
    expect(topics[0]).toBe('survive.photos')
  })
})

describe('a hand back', () => {
  it('asks for what came with the device, and closes without the copy being deleted', () => {
    const asks = (lines: Readonly<Record<string, string>> = {}) =>
      handBackTopics(linesOf(lines), UNPREPARED)
    expect(asks({ 'accessory.sim': 'here' })).toEqual(['back.sim', 'back.told'])
    expect(asks()).toEqual(['back.told'])
    expect(asks({ 'ready.backup': 'opens' })).toEqual(asks())
  })

  it('puts back what was to be put back, and add-ons where some were put off', () => {
    const asks = (more: Partial<typeof UNPREPARED>) =>
      handBackTopics(linesOf(), { ...UNPREPARED, ...more })
    expect(asks({ restore: true })).toEqual(['back.backup', 'back.told'])
    expect(asks({ addons: true })).toEqual(['back.addons', 'back.told'])
  })

  it('undoes what was prepared and nothing else, and again what a later look needed', () => {
    const undone = (more: Partial<typeof UNPREPARED>) =>
      handBackTopics(linesOf(), { ...UNPREPARED, ...more }).filter((one) => one.startsWith('undo'))
    expect(undone({})).toEqual([])
    expect(undone({ permission: true })).toEqual(['undo.permission', 'undo.key'])
    expect(undone({ copies: true })).toEqual(['undo.copies'])
    const lines = [
      { topic: 'undo.key', at: 100 },
      { topic: 'back.told', at: 100 },
    ]
    const stand = (lookedAt: number | undefined) =>
      stillUndone(lines, lookedAt).map(({ topic }) => topic)
    expect(stand(undefined)).toEqual(['undo.key', 'back.told'])
    expect(stand(100)).toEqual(['undo.key', 'back.told'])
    expect(stand(101)).toEqual(['back.told'])
  })

  it('leaves a copy as a due item: the owner’s word, then its deletion', () => {
    const care = (more: Readonly<Record<string, string>>) => careOf(linesOf(more))
    expect(care({})).toBe('none')
    expect(care({ 'ready.backup': 'not-wanted' })).toBe('none')
    expect(care({ 'ready.backup': 'opens' })).toBe('ask-owner')
    expect(care({ 'ready.backup': 'opens', 'care.well': 'all-well' })).toBe('delete-copy')
    expect(
      care({ 'ready.backup': 'opens', 'care.well': 'all-well', 'care.backup': 'deleted' }),
    ).toBe('none')
  })
})
