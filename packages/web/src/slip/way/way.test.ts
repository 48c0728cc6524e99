// @vitest-environment jsdom
/** The way card: what is held and when, the menu under this loader, the second try, the way back from a wrong mode. */
import type { LegShown, RunShown, WayShown } from '@plain-slate/api'
import { handActWords, speaker } from '@plain-slate/texts'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import HeldButton from '../../bench/HeldButton.vue'
import { mounted } from '../../testing/mounted.ts'
import RunLive from '../run/RunLive.vue'
import { LOADER, NORMAL, job, run, slip } from '../testing/job.ts'
import { posted } from '../testing/sheet.ts'
import WayCard from './WayCard.vue'
import { bandOf, heldAt } from './words.ts'

const OFF = { id: 'off', name: 'off', kind: 'off' } as const
const RESCUE = { id: 'rescue', name: 'rescue', kind: 'rescue' } as const
type Act = LegShown['acts'][number]
const act = (does: Act['do'], more: Partial<Act> = {}): Act => ({
  do: does,
  keys: [],
  seconds: null,
  until: null,
  within: null,
  say: null,
  ...more,
})
const TRIGGER = { id: 'trigger', name: 'left trigger' }
const ACTS = [
  act('cable-out'),
  act('hold', { keys: [TRIGGER] }),
  act('wait', { seconds: [2, 4], until: 'the hum' }),
  act('let-go', { keys: [TRIGGER] }),
  act('cable-in', { within: 10 }),
]
const leg = (more: Partial<LegShown> = {}): LegShown => ({
  from: OFF,
  to: LOADER,
  how: 'chord',
  hands: true,
  seconds: 25,
  permitted: false,
  say: 'Hold the trigger.',
  acts: ACTS,
  hurdle: null,
  menus: [],
  starts: false,
  raises: false,
  looks: 'a grey bar',
  alike: [{ mode: RESCUE, looks: 'four lines', tell: 'no bar' }],
  slip: { say: 'the key came late', leads: RESCUE, back: ['Take the battery out.'] },
  ...more,
})
const way = (more: Partial<WayShown> = {}): WayShown => ({
  from: OFF,
  seen: true,
  to: LOADER,
  shows: [
    { mode: OFF, looks: 'dark' },
    { mode: RESCUE, looks: 'four lines' },
  ],
  outline: {
    wide: 78,
    high: 168,
    keys: [{ ...TRIGGER, side: 'left', from: 0.3, to: 0.4 }],
    port: { side: 'bottom', at: 0.5 },
  },
  legs: [leg()],
  missed: 0,
  permission: 'a switch',
  permissionSteps: [],
  first: null,
  unheard: null,
  drains: null,
  ...more,
})
async function card(says: WayShown | ((path: string) => WayShown)) {
  const answer = (path: string): object => {
    if (path.includes('/way')) return typeof says === 'function' ? says(path) : says
    return path.endsWith('/0417') ? slip() : job('readings')
  }
  const made = await mounted(WayCard, { to: 'loader' }, { at: '/slips/0417/readings', answer })
  await flushPromises()
  const press = async (name: string) => {
    const button = made.shown.findAll('button').find((one) => one.text().startsWith(name))
    await button?.trigger('click')
    await flushPromises()
  }
  return { ...made, press, text: () => made.shown.text() }
}

describe('acts', () => {
  const say = speaker('en-GB')
  it('says what it loses where it does not charge', async () => {
    const said = async (drains: WayShown['drains']) => (await card(way({ drains }))).shown.text()
    expect(await said({ perMinute: 0.2, here: 71 })).toContain(
      'it does not charge and loses 0.2 % a minute; 71 % are in it',
    )
    expect(await said({ perMinute: 0.2, here: null })).toContain('was not read')
    expect(await said(null)).not.toContain('does not charge')
  })

  it('says beforehand that nobody would hear it there', async () => {
    const said = async (unheard: string | null) =>
      (await card(way({ unheard }))).shown.find('[data-claim="unheard"]').exists()
    expect([await said('the handheld driver'), await said(null)]).toEqual([true, false])
  })

  it('are told with their keys, cue and time', () => {
    expect(ACTS.map((one) => handActWords(say, one))).toEqual([
      'the cable out',
      'hold left trigger',
      'wait, until the hum, 2 to 4 s',
      'let go of left trigger',
      'the cable in, within 10 s',
    ])
  })
  it('keep keys down until they are let go, and the cable where it is', () => {
    expect(heldAt(ACTS, 2)).toEqual({ keys: ['trigger'], cable: false })
    expect(heldAt(ACTS, 4)).toEqual({ keys: [], cable: true })
    expect(heldAt(ACTS, -1)).toEqual({ keys: [], cable: false })
  })
  it('have a band where they have a time', () => {
    expect(ACTS.map(bandOf)).toEqual([undefined, undefined, [2, 4], undefined, [0, 10]])
  })
})

describe('the card', () => {
  it('counts with the hands from act to act, and asks what it shows at the end', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] })
    const { press, shown, text } = await card(way())
    await press('Begin')
    expect(shown.find('[aria-current="step"]').text()).toBe('the cable out')
    await press('Next')
    await press('Next')
    expect(text()).toContain('not before 2 s')
    vi.advanceTimersByTime(2500)
    await flushPromises()
    expect(text()).toContain('now')
    vi.advanceTimersByTime(2500)
    await flushPromises()
    expect(text()).toContain('over 4 s')
    await press('Next')
    await press('Next')
    await press('Done')
    expect(text()).toContain('What does it show now?')
    vi.useRealTimers()
  })

  it('keeps what came of a try, and goes on from where it landed', async () => {
    const says = (path: string) =>
      path.includes('from=rescue')
        ? way({ from: RESCUE, seen: false, legs: [leg({ from: RESCUE, to: OFF, acts: [] })] })
        : way()
    const { press, asked, text } = await card(says)
    for (const name of ['Begin', 'Next', 'Next', 'Next', 'Next', 'Done']) await press(name)
    await press('four lines')
    expect(posted(asked, '/lines').at(-1)?.body).toEqual({
      lines: [{ topic: 'way.loader', answer: 'missed', note: '' }],
    })
    expect(text()).toContain('From rescue to off')
  })

  it('says the usual slip at the second try, and not at the first', async () => {
    const slipTold = async (missed: number) =>
      (await card(way({ missed }))).shown.find('[data-claim="way.slip"]').exists()
    expect([await slipTold(0), await slipTold(1)]).toEqual([false, true])
    expect((await card(way({ missed: 2 }))).text()).toContain(
      'It was missed 2 times. The usual slip: the key came late; that leads to rescue.',
    )
  })

  it('asks where it is where no link tells', async () => {
    const { text, press, asked } = await card((path) =>
      path.includes('from=') ? way({ seen: false }) : way({ from: null, seen: false, legs: null }),
    )
    expect(text()).toContain('No link tells where it is')
    await press('dark')
    expect(asked.some(({ path }) => path.includes('from=off'))).toBe(true)
    expect(text()).toContain('Where it is taken to be: off.')
  })

  it('counts the presses of a menu, and tells the line that erases', async () => {
    const lines = [
      { name: 'start', danger: false },
      { name: 'erase all', danger: true },
      { name: 'install', danger: false },
    ]
    const menus = [{ upToLoader: null, presses: 2, lines }]
    const { shown } = await card(way({ legs: [leg({ menus })] }))
    expect(shown.find('.wanted').text()).toBe('install 2 presses')
    expect(shown.find('.danger').text()).toContain('not this one: it erases')
  })

  it('says when it starts the system, and that a floor may rise only where one does', async () => {
    const starts = async (more: Partial<LegShown>) => {
      const told = (await card(way({ legs: [leg(more)] }))).shown.find('[data-claim="way.starts"]')
      return told.exists() ? told.text() : ''
    }
    expect(await starts({})).toBe('')
    expect(await starts({ starts: true })).toBe('This starts its system.')
    expect(await starts({ starts: true, raises: true })).toContain('may raise a rollback floor')
  })

  it('says when it is there, and when no way leads there', async () => {
    expect((await card(way({ from: LOADER, legs: [] }))).text()).toContain('It is in the loader.')
    expect((await card(way({ from: NORMAL, legs: null }))).text()).toContain(
      'From normal mode no way leads to the loader.',
    )
  })
})

describe('the card on a run', () => {
  it('is there while hands are asked to bring the device somewhere, from where its plan says', async () => {
    const shown = async (more: Partial<RunShown>) => {
      const props = { run: run(more), job: job('write') }
      const answer = (path: string): object => (path.includes('/way') ? way({ seen: false }) : {})
      const made = await mounted(RunLive, props, { at: '/slips/0417/write', answer })
      await flushPromises()
      const asked = made.asked.find(({ path }) => path.includes('/way'))?.path ?? ''
      return { card: made.shown.find('.way').exists(), asked }
    }
    const asked = { command: 1, ask: 'enter', text: 'Hold the trigger.' }
    const entering = { word: 'hands-now', asked, way: { from: OFF, to: LOADER } } as const
    expect(await shown(entering)).toEqual({
      card: true,
      asked: '/api/slips/0417/way?to=loader&from=off',
    })
    expect((await shown({ ...entering, asked: null })).card).toBe(false)
    expect((await shown({ ...entering, way: null })).card).toBe(false)
  })
})

describe('a run that waits for a device that is off', () => {
  const RING = { id: 'transfer', name: 'transfer', kind: 'writing' } as const
  const byLink = leg({ from: LOADER, to: RING, how: 'command', hands: false, acts: [] })
  const told = async (now: LegShown, driven = true) => {
    const says = way({ from: now.from, to: now.to, legs: [now] })
    const answer = (path: string): object =>
      path.includes('/way') ? says : path.endsWith('/0417') ? slip() : job('write')
    const at = '/slips/0417/write'
    const made = await mounted(WayCard, { to: now.to.id, driven }, { at, answer })
    await flushPromises()
    return made.shown.find('[data-claim="way.told"]').exists()
  }

  it('asks nothing of hands for what the run tells it over the link, and only for that', async () => {
    expect(await told(byLink)).toBe(true)
    expect(await told({ ...byLink, looks: 'a turning ring' })).toBe(true)
    expect(await told({ ...byLink, hands: true })).toBe(false)
    expect(await told({ ...byLink, from: NORMAL })).toBe(false)
    expect(await told({ ...byLink, to: NORMAL })).toBe(false)
    expect(await told(byLink, false)).toBe(false)
  })

  it('says in which mode it waits, what answers, and leads there', async () => {
    const shown = async (more: Partial<RunShown>) => {
      const props = { run: run({ word: 'in-doubt', ...more }), job: job('write') }
      const answer = (path: string): object =>
        path.includes('/way') ? way() : path.endsWith('/0417') ? slip() : job('write')
      const made = await mounted(RunLive, props, { at: '/slips/0417/write', answer })
      await flushPromises()
      const waits = made.shown.find('[data-claim="waits"]')
      const asks = async () => {
        await waits.find('button').trigger('click')
        await flushPromises()
        return made.asked.find(({ path }) => path.includes('/way'))?.path
      }
      return { text: waits.exists() ? waits.text() : '', asks }
    }
    const off = await shown({ waiting: { mode: LOADER, seen: null } })
    expect(off.text).toContain('Waits for it in the loader.')
    expect(off.text).not.toContain('What answers now')
    expect(await off.asks()).toBe('/api/slips/0417/way?to=loader')
    const ring = await shown({ waiting: { mode: RING, seen: null } })
    expect(ring.text).toContain('Waits for it in transfer.')
    expect((await shown({ waiting: null })).text).toBe('')
    const any = await shown({ waiting: { mode: null, seen: null } })
    expect(any.text).toBe('Waits until it answers again.')
  })
})

describe('keys that are held', () => {
  it('tell how long they were, by pointer and by keyboard', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] })
    const { shown } = await mounted(HeldButton, { label: 'Keys: to the loader', band: [2, 4] })
    const button = shown.find('button')
    expect(button.text()).toBe('Keys: to the loader, held 2 to 4 s')
    await button.trigger('pointerdown')
    vi.advanceTimersByTime(3000)
    await button.trigger('pointerup')
    await button.trigger('keydown', { key: 'Enter' })
    vi.advanceTimersByTime(1000)
    await button.trigger('keyup', { key: 'Enter' })
    expect(shown.emitted('held')?.map(([seconds]) => Math.round(Number(seconds)))).toEqual([3, 1])
    vi.useRealTimers()
  })
})
