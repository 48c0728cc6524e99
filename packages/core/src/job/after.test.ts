/** What First start and the customer's paper say, each moved by the one thing it rests on. */
import { describe, expect, it } from 'vitest'
import type { Line } from '../terms/line.ts'
import { FUNCTIONS, standingLines } from '../terms/line.ts'
import type { AfterFacts } from './first-start.ts'
import { isDecided, worseAfter } from './first-start.ts'
import type { PaperFacts, PaperRun } from './paper.ts'
import { paperOf } from './paper.ts'

const linesOf = (more: Readonly<Record<string, string>>, at = 100) =>
  standingLines(
    Object.entries({
      ...Object.fromEntries(
        FUNCTIONS.flatMap((one) => [
          [`function.${one}`, 'works'],
          [`after.${one}`, 'works'],
        ]),
      ),
      'after.data': 'as-promised',
      ...more,
    }).map(([topic, answer]): Line => ({ topic, answer, at })),
  )
const tally = { items: 214, bytes: 900, opens: true }
const after = (
  more: Partial<AfterFacts> = {},
  lines: Readonly<Record<string, string>> = {},
): AfterFacts => ({
  lines: linesOf(lines),
  facts: [
    { fact: 'build', holds: true },
    { fact: 'outcome', holds: true },
  ],
  tally: { before: tally, after: tally },
  promised: 'kept',
  readAt: 90,
  ...more,
})
const worse = (more: Partial<AfterFacts>, lines?: Readonly<Record<string, string>>) =>
  worseAfter(after(more, lines)).map(({ what, was, now }) => [what, was, now].join(' ').trim())

describe('the first start', () => {
  it('is as promised where nothing is worse than at Intake', () => {
    expect(worse({})).toEqual([])
    expect(worse({}, { 'function.radio': 'fails', 'after.radio': 'fails' })).toEqual([])
    expect(worse({}, { 'function.radio': 'fails' })).toEqual([])
  })

  it('is worse by each test that fails now, and by one that was not made again', () => {
    const all = Object.fromEntries(FUNCTIONS.map((one) => [`after.${one}`, 'fails']))
    expect(worse({}, all)).toHaveLength(FUNCTIONS.length)
    expect(worse({}, { 'after.screen': 'fails' })).toEqual(['function.screen works fails'])
    expect(worse({}, { 'after.screen': 'untested' })).toEqual(['function.screen works untested'])
    expect(worse({}, { 'function.screen': 'untested', 'after.screen': 'untested' })).toEqual([])
    expect(worse({}, { 'function.screen': 'untested', 'after.screen': 'fails' })).toEqual([
      'function.screen untested fails',
    ])
  })

  it('is worse by what the tally counts, against the fate that was promised', () => {
    const counted = (items: number, opens = true) => ({
      tally: { before: tally, after: { ...tally, items, opens } },
    })
    expect(worse(counted(213))).toEqual(['tally 214 213'])
    expect(worse(counted(215))).toEqual([])
    expect(worse(counted(214, false))).toEqual(['opens opens closed'])
    expect(worse({ ...counted(3), promised: 'wiped' })).toEqual(['tally 0 3'])
    expect(worse({ ...counted(0), promised: 'wiped' })).toEqual([])
    expect(worse({ ...counted(214, false), promised: 'unreadable' })).toEqual([])
  })

  it('is worse by a fact that is not the promised one, and by a device nobody asked', () => {
    expect(worse({ facts: [{ fact: 'build', holds: false }] })).toEqual(['fact.build'])
    expect(worse({ facts: [{ fact: 'build', holds: undefined }] })).toEqual(['unasked'])
    expect(worse({}, { 'after.data': 'not-as-promised' })).toEqual(['data kept not-as-promised'])
  })

  it('is decided on by a word that is younger than everything it is about', () => {
    const decided = (at: number, more: Partial<AfterFacts> = {}) => {
      const lines = new Map(linesOf({ 'after.screen': 'fails' }))
      const topic = 'decided.first-start'
      return isDecided({
        ...after(more),
        lines: lines.set(topic, { topic, answer: 'accepted', at }),
      })
    }
    expect(isDecided(after())).toBe(false)
    expect(decided(100)).toBe(true)
    expect(decided(99)).toBe(false)
    expect(decided(150, { readAt: 160 })).toBe(false)
  })
})

const part = (partition: string, kept: number, more: object = {}) => ({
  partition,
  image: partition,
  bytes: 10,
  kept,
  doubt: 0,
  readBack: kept === 10,
  role: partition === 'loader' ? ('loader' as const) : undefined,
  ...more,
})
const run = (more: Partial<PaperRun> = {}): PaperRun => ({
  ended: true,
  step: 18,
  steps: 17,
  parts: [part('kernel', 10), part('main', 10)],
  ...more,
})
const stopped = (...parts: PaperRun['parts']) => run({ ended: false, step: 9, parts })
const paper = (more: Partial<PaperFacts> = {}) =>
  paperOf({
    runs: [run()],
    fates: [{ item: 'tickets', name: 'stored tickets', fate: 'kept' }],
    was: { floors: { floor: 5 }, loader: 6 },
    now: { floors: { floor: 5 }, loader: 6 },
    bears: [],
    after: after(),
    ...more,
  })

describe('the paper', () => {
  it('says that nothing was written only where no journal says otherwise', () => {
    expect(paper({ runs: [] }).done).toEqual({ kind: 'nothing' })
    expect(paper({ runs: [stopped(part('main', 0))] }).done).toEqual({ kind: 'nothing' })
    expect(paper({ runs: [stopped(part('main', 0, { doubt: 4 }))] }).done).toMatchObject({
      kind: 'broken-off',
      part: ['main'],
    })
  })

  it('says what cured it where nothing was written, and what works no more', () => {
    const cured = (lines: object, runs: PaperFacts['runs'] = []) =>
      paper({ runs, after: after({}, { 'lighter.restart': 'cured', ...lines }) })
    expect(cured({})).toMatchObject({
      done: { kind: 'cured', by: 'restart' },
      worse: [],
      things: [],
    })
    expect(cured({ 'after.screen': 'fails' }).worse.map(({ what }) => what)).toEqual([
      'function.screen',
    ])
    expect(cured({ 'after.data': 'not-as-promised' }).worse).toHaveLength(1)
    expect(cured({ 'lighter.restart': 'no-cure' }).done).toEqual({ kind: 'nothing' })
    expect(cured({}, [run()]).done).toEqual({ kind: 'ended' })
  })

  it('names what is new and what is half written of a run that stopped, an earlier one too', () => {
    const half = stopped(part('loader', 10), part('kernel', 10), part('main', 4))
    expect(paper({ runs: [half] }).done).toEqual({
      kind: 'broken-off',
      step: 9,
      steps: 17,
      whole: ['loader', 'kernel'],
      part: ['main'],
    })
    expect(paper({ runs: [half, stopped(part('main', 0))] }).done).toMatchObject({
      part: ['main'],
    })
    expect(paper({ runs: [half, stopped(part('main', 10))] }).done).toMatchObject({ part: [] })
    expect(paper({ runs: [half, run()] }).done).toEqual({ kind: 'ended' })
  })

  it('says of each thing how it was found, not what was planned', () => {
    const found = (more: Partial<PaperFacts>) => paper(more).things[0]?.found
    expect(found({})).toBe('as-promised')
    expect(found({ after: after({}, { 'after.data': 'not-as-promised' }) })).toBe('not-as-promised')
    const fewer = { before: tally, after: { ...tally, items: 1 } }
    expect(found({ after: after({ tally: fewer }) })).toBe('not-as-promised')
    expect(found({ runs: [stopped(part('main', 4))] })).toBe('unseen')
    expect(paper({ runs: [] }).things).toEqual([])
    const photos = [{ item: 'photos', name: '', fate: 'unpromised' as const }]
    expect(found({ fates: photos })).toBe('unseen')
  })

  it('tells a floor that rose and a loader that was raised, in a stopped job too', () => {
    expect(paper().marks).toEqual([])
    expect(paper({ now: { floors: { floor: 6 }, loader: 6 } }).marks).toEqual(['floor'])
    expect(paper({ now: { floors: { floor: 5 }, loader: 7 } }).marks).toEqual(['loader'])
    const [was, now] = [2, 3].map((floorMain) => ({ floors: { floorMain }, loader: 6 }))
    expect(was && paper({ was, now }).marks).toEqual(['floor'])
    expect(paper({ runs: [stopped(part('loader', 10))], now: undefined }).marks).toEqual(['loader'])
    expect(paper({ runs: [stopped(part('loader', 0))], now: undefined }).marks).toEqual([])
  })

  it('tells what is worse, where the job came to its end', () => {
    expect(paper({ after: after({}, { 'after.screen': 'fails' }) }).worse).toHaveLength(1)
    expect(paper().worse).toEqual([])
  })
})
