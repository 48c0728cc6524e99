// @vitest-environment jsdom
/** Pictures are drawn from data alone: each mark moves with its figure, and says it in words. */
import type { PlanShown } from '@plain-slate/api'
import { BRICK_FATES } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { mounted } from '../testing/mounted.ts'
import Marks from './Marks.vue'
import PaceBand from './PaceBand.vue'
import Ruler from './Ruler.vue'
import Strip from './Strip.vue'
import Wall from './Wall.vue'
import { STRETCH_LEAST, placesOf, runsIn, spanOf } from './strip.ts'
import { BRICK_LEAST_PX, GAP_PX, clockOf, columnsOf, leastOf, weightOf, widthOf } from './wall.ts'

const MIB = 1024 ** 2

describe('the wall’s arithmetic', () => {
  it('goes by the cube root: eight times the size is twice the width', () => {
    expect(weightOf(800 * MIB) / weightOf(100 * MIB)).toBeCloseTo(2, 1)
    expect(weightOf(0)).toBeGreaterThan(0)
  })
  it('leaves no brick too narrow to be seen', () => {
    const columns = columnsOf([
      { name: 'a', bytes: MIB },
      { name: 'b', bytes: 4096 * MIB },
    ])
    expect(columns).toBe(`minmax(${BRICK_LEAST_PX}px, 1fr) minmax(${BRICK_LEAST_PX}px, 16fr)`)
  })
  it('leaves room for the longest name, whatever its size', () => {
    expect(leastOf('variant')).toBeGreaterThan(leastOf('kernel'))
    expect(leastOf('memory')).toBeGreaterThan(leastOf('rescue'))
    expect(columnsOf([{ name: 'variant', bytes: 1 }])).toContain(`minmax(${leastOf('variant')}px`)
    const two = [{ name: 'variant' }, { name: 'modem' }]
    expect(widthOf(two)).toBe(leastOf('variant') + GAP_PX + leastOf('modem'))
  })
  it('tells time as a clock does, and never nothing for something', () => {
    expect([clockOf(12), clockOf(320.2), clockOf(0.2)]).toEqual(['0:12', '5:21', '0:01'])
  })
})

describe('the wall', () => {
  const brick = (fate: (typeof BRICK_FATES)[number], more: object = {}) => ({
    partition: fate,
    fate,
    label: fate,
    says: `${fate}, 4 MiB`,
    ...more,
  })
  const wall = (bricks: readonly { readonly partition: string }[], legend = true) =>
    mounted(Wall, {
      partitions: bricks.map(({ partition }) => ({ name: partition, bytes: MIB })),
      courses: [{ title: 'now', bricks }],
      legend,
    })

  it('says every brick in words, whatever it looks like', async () => {
    const { shown } = await wall(BRICK_FATES.map((fate) => brick(fate)))
    const said = shown.findAll('.bricks .visually-hidden').map((one) => one.text())
    expect(said).toEqual(BRICK_FATES.map((fate) => `${fate}, 4 MiB`))
    expect(shown.findAll('.brick[title]')).toHaveLength(BRICK_FATES.length)
  })

  it('explains only what is drawn', async () => {
    const { shown } = await wall([brick('written'), brick('left')])
    const legend = shown.findAll('.legend li').map((one) => one.text())
    expect(legend).toEqual(['written', 'same on the device, left alone'])
  })

  it('fills a brick as far as it is kept, and ticks it when it was read back', async () => {
    const { shown } = await wall([brick('written', { done: 0.49 }), brick('left')])
    expect(shown.find('.filled').attributes('style')).toContain('49%')
    expect(shown.find('.tick').exists()).toBe(false)
    const { shown: after } = await wall([brick('written', { done: 1, readBack: true })])
    expect(after.find('.tick').exists()).toBe(true)
  })
})

describe('the strip’s arithmetic', () => {
  const step = (number: number, high: number) => ({ number, seconds: { high } })
  it('fills the width from the first step to the last, in order', () => {
    const steps = [step(1, 60), step(2, 6), step(3, 400)]
    const places = placesOf(steps, [
      { from: 1, to: 1 },
      { from: 2, to: 2 },
      { from: 3, to: 3 },
    ])
    expect(places.get(1)?.from).toBe(0)
    expect(places.get(3)?.to).toBeCloseTo(1)
    expect(places.get(2)?.from).toBeCloseTo(places.get(1)?.to ?? -1)
  })
  it('keeps the six seconds that kill wide enough to be read', () => {
    const places = placesOf(
      [step(1, 4000), step(2, 0.2), step(3, 4000)],
      [
        { from: 1, to: 1 },
        { from: 2, to: 2 },
        { from: 3, to: 3 },
      ],
    )
    const { from = 0, to = 0 } = places.get(2) ?? {}
    expect(to - from).toBeCloseTo(STRETCH_LEAST)
  })
  it('joins numbers that follow each other', () => {
    expect(runsIn([3, 1, 2, 7])).toEqual([
      { from: 1, to: 3 },
      { from: 7, to: 7 },
    ])
    expect(runsIn([])).toEqual([])
  })
  it('places a run between its first and last step', () => {
    const places = new Map([
      [1, { from: 0, to: 0.25 }],
      [2, { from: 0.25, to: 1 }],
    ])
    expect(spanOf(places, { from: 2, to: 2 })).toEqual({ left: '25%', width: '75%' })
  })
})

const step = (number: number, kind: string) => ({
  number,
  kind,
  facts: { to: 'the loader', mode: 'the loader', left: 0 },
  seconds: { low: 1, high: 2 },
  hands: false,
  worst: 'unaffected',
  source: 'family',
  n: 0,
})
const plan = (more: object = {}) =>
  ({
    steps: [step(1, 'meet'), step(2, 'restart'), step(3, 'restart')],
    strip: {
      stretches: [
        { from: 1, to: 1, leaves: 'unaffected', seconds: { low: 1, high: 2 } },
        { from: 2, to: 2, leaves: 'dead', seconds: { low: 5, high: 6 } },
        { from: 3, to: 3, leaves: 'loop-data-safe', seconds: { low: 100, high: 480 } },
      ],
      hands: [1],
      cable: [2, 3],
      restarts: [2],
    },
    wayBackUntil: 2,
    ...more,
  }) as unknown as PlanShown

describe('the strip', () => {
  it('says what a cut in each stretch leaves, and for how long', async () => {
    const { shown } = await mounted(Strip, { plan: plan() })
    const said = shown.findAll('.stretch .visually-hidden').map((one) => one.text())
    expect(said).toEqual([
      'Steps 1: a cut changes nothing, 1 to 2 s',
      'Steps 2: dead if cut: only the maker’s board-level service brings it back, 5 to 6 s',
      'Steps 3: a cut leaves a restart loop, data safe, 1 to 8 min',
    ])
    expect(shown.findAll('.stretch svg')).toHaveLength(1)
  })

  it('draws its lanes from the plan’s own numbers', async () => {
    const { shown } = await mounted(Strip, { plan: plan() })
    expect(shown.findAll('.hands li')).toHaveLength(1)
    expect(shown.findAll('.cable li')).toHaveLength(1)
    expect(shown.findAll('.restarts li')).toHaveLength(1)
  })

  it('ends the return line where the way back closes, and has none where there is none', async () => {
    const { shown } = await mounted(Strip, { plan: plan() })
    expect(shown.find('.back').text()).toBe('The way back stays open until step 2.')
    const { shown: none } = await mounted(Strip, { plan: plan({ wayBackUntil: null }) })
    expect(none.find('.back i').exists()).toBe(false)
    expect(none.find('.back').text()).toContain('There is no way back')
  })
})

describe('the pace band', () => {
  const band = (
    passed: number,
    share: number | undefined,
    range = { low: 320, high: 410 },
    silence: { quiet: number; limit: number | undefined } = { quiet: 0, limit: 20 },
  ) => mounted(PaceBand, { range, passed, share, ...silence })
  it('says where it is and where it will end at the present rate', async () => {
    const { shown } = await band(178, 0.49)
    expect(shown.find('[role="img"]').attributes('aria-label')).toBe(
      'now 2:58, ends about 6:04, normal pace',
    )
  })
  it('projects nothing where nothing is counted', async () => {
    const { shown } = await band(20, undefined)
    expect(shown.text()).not.toContain('ends about')
  })
  it('calls stuck what gives no sign for too long, and says how long, at any pace', async () => {
    const word = async (quiet: number, limit: number | undefined, share = 0.1) => {
      const { shown } = await band(178, share, { low: 320, high: 410 }, { quiet, limit })
      return [shown.find('[data-pace]').attributes('data-pace'), shown.find('.silence').text()]
    }
    expect((await word(2, 20))[0]).toBe('slow')
    expect(await word(21, 20)).toEqual([
      'stuck',
      'stuck: look at cable and screen, then stop it after this piece. no sign for 0:21; stuck after 0:20 without a sign',
    ])
    expect((await word(21, 80))[0]).toBe('slow')
    expect(await word(4000, undefined)).toEqual([
      'slow',
      'no sign for 66:40; never stuck by time alone: a loop is told by its returns',
    ])
  })
  it('follows the range: the same time is normal here and slow there', async () => {
    expect((await band(300, undefined)).shown.find('[data-pace]').attributes('data-pace')).toBe(
      'normal',
    )
    const { shown } = await band(300, undefined, { low: 9, high: 14 })
    expect(shown.find('[data-pace]').attributes('data-pace')).toBe('slow')
    expect(shown.text()).toContain('0:09 usual 0:14')
  })
})

describe('the ruler', () => {
  it('shows each part with its name, the deciding one marked', async () => {
    const segments = [
      { name: 'line', text: 'H2', mark: 'same' },
      { name: 'counter', text: '104', mark: 'deciding' },
    ]
    const { shown } = await mounted(Ruler, { segments, label: 'H2.104' })
    expect(shown.find('.visually-hidden').text()).toBe('H2.104')
    expect(shown.find('.deciding').text()).toBe('104counter')
    expect(shown.findAll('.same')).toHaveLength(1)
  })
})

describe('marks', () => {
  it('say the seconds at risk and what cannot be undone', async () => {
    const marks = [{ kind: 'risky', seconds: 6 }, { kind: 'irreversible' }]
    const { shown } = await mounted(Marks, { marks })
    expect(shown.findAll('.mark').map((one) => one.text())).toEqual([
      '6 s at risk',
      'cannot be undone',
    ])
    expect(shown.findAll('svg')).toHaveLength(2)
  })
})
