// @vitest-environment jsdom
/** A run on its slip's page: what is told of it follows the run, and the held key stops it. */
import type { Job, RunShown, StepShown } from '@plain-slate/api'
import type { HouseRules } from '@plain-slate/core'
import { USUAL_HOUSE } from '@plain-slate/core'
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import RunLive from './RunLive.vue'
import ShowsElse from '../sheet/ShowsElse.vue'
import { useCall } from './awake.ts'
import { liveCourse } from './live-wall.ts'
import { wallOf } from '../sheet/plan-page.ts'
import { LOADER, job, plan, run } from '../testing/job.ts'
import { changeWords, changesWords, reasonWords, speaker } from '@plain-slate/texts'
import { nextTick, ref } from 'vue'

/* The page listens for held keys: what is not looked at any more must not answer them. */
enableAutoUnmount(afterEach)

const say = speaker('en-GB')
const MIB = 1024 ** 2
const at = '/slips/0417/write'
const live = (more: Partial<RunShown> = {}) =>
  mounted(RunLive, { run: run(more), job: job('write') }, { at })
/** In a house of these schools, on a slip that says this. */
async function inHouse(schools: Partial<HouseRules>, of: Partial<RunShown>, depart: object[] = []) {
  const rules = { ...USUAL_HOUSE, ...schools }
  const answer = (path: string) =>
    path.endsWith('/house') ? { version: 1, rules, history: [] } : {}
  const lines = depart as Job['lines']
  const { shown, refetched } = await mounted(
    RunLive,
    { run: run(of), job: job('write', { lines }) },
    { at, answer },
  )
  await refetched()
  return shown
}

describe('a run on its slip', () => {
  it('says one word large and what it is at under it', async () => {
    const { shown } = await live()
    expect(shown.find('h1').text()).toBe('Hands off')
    expect(shown.text()).toContain('Meet it in the loader and compare its ids')
    expect(shown.text()).toContain('9 to 15 min to the end of the job')
    const { shown: asks } = await live({ word: 'hands-now' })
    expect(asks.find('h1').text()).toBe('Hands now')
    const { shown: over } = await live({ state: 'ended', word: 'done', step: 2 })
    expect(over.find('h1').text()).toBe('Done: H2.104.r4 is on it and proven')
    expect(over.text()).not.toContain('to the end of the job')
  })

  it('says where its usual time comes from', async () => {
    const [step] = run().steps
    if (step === undefined) throw new Error('no step')
    const source = async (more: object) =>
      (await live({ steps: [{ ...step, ...more }] })).shown.text()
    expect(await source({ source: 'own', n: 31 })).toContain(
      'against 31 earlier measurements of this bench',
    )
    expect(await source({ source: 'family' })).toContain('the family’s figure, none of our own yet')
  })

  it('tells what happened, with how long it took', async () => {
    const log: RunShown['log'] = [
      {
        at: '2026-10-15T14:31:00.000Z',
        kind: 'restart',
        facts: { to: 'the loader' },
        seconds: 11,
        evidence: { is: 'met', serial: 'TRN4490077F31', mode: 'loader' },
      },
    ]
    const { shown } = await live({ log })
    const cells = shown.findAll('.log td').map((one) => one.text())
    expect(cells.slice(1)).toEqual(['Restart into the loader', 'met, serial …7F31', '11 s'])
    expect((await live()).shown.text()).toContain('Nothing yet.')
  })

  it('says what hands can do where a start after a wipe was lost, and nowhere else', async () => {
    const [first] = run().steps
    if (first === undefined) throw new Error('no step')
    const words = async (wiped: 'true' | 'false', word: RunShown['word']) => {
      const steps: StepShown[] = [{ ...first, kind: 'first-start', facts: { wiped, say: '' } }]
      return (await live({ steps, step: first.number, word })).shown.text()
    }
    const hint = 'go through the set-up and give it the link permission'
    expect(await words('true', 'in-doubt')).toContain(hint)
    expect(await words('false', 'in-doubt')).not.toContain(hint)
    expect(await words('true', 'hands-off')).not.toContain(hint)
  })

  it('says that nobody drives it, and shows no pace then', async () => {
    const { shown } = await live({ ownerless: true, word: 'in-doubt' })
    expect(shown.text()).toContain('Take it up')
    expect(shown.find('[data-pace]').exists()).toBe(false)
    expect(shown.text()).not.toContain('to the end of the job')
  })

  it('says large to keep the power where of what is in doubt there is one copy, and offers no way that ends it', async () => {
    const words = async (more: Partial<RunShown>) => {
      const { shown } = await live({ state: 'stopped', word: 'stopped', ...more })
      return [shown.find('[role="alert"]').exists(), shown.text().includes('Put it away')]
    }
    expect(await words({ hold: 'loader' })).toEqual([true, false])
    expect(await words({ hold: null })).toEqual([false, true])
    const { shown } = await live({ hold: 'lock', word: 'in-doubt' })
    expect(shown.text()).toContain('The lock was told to turn')
    expect(shown.text()).not.toContain('Stop after')
  })

  it('says of a start that nobody hears what may hold it: its permission, and a key that it waits for', async () => {
    const [step] = run().steps
    if (step === undefined) throw new Error('no step')
    const waiting = {
      mode: { id: 'normal', name: 'normal mode', kind: 'system' },
      seen: null,
    } as const
    const facts = { what: 'go-on', say: 'press the scan key' } as const
    const key = { ...step, number: 9, kind: 'by-hand', facts, hands: true } as const
    const words = async (more: Partial<RunShown>) => (await live({ waiting, ...more })).shown.text()
    expect(await words({})).toContain('give it the link permission')
    expect(await words({})).not.toContain('waits for its key')
    expect(await words({ steps: [step, key] })).toContain('press the scan key')
    expect(await words({ steps: [step, key], waiting: null })).not.toContain('waits for its key')
  })

  it('says what is done about a long silence, as the house has it', async () => {
    const [step] = run().steps
    if (step === undefined) throw new Error('no step')
    const words = async (silence: 'limit' | 'wait', quiet: number) =>
      (await inHouse({ silence }, { steps: [{ ...step, silent: 20 }], quiet })).text()
    expect(await words('limit', 60)).toContain('look at cable and screen, then stop it')
    expect(await words('wait', 60)).toContain('nothing is touched in this house')
    expect(await words('wait', 2)).not.toContain('nothing is touched in this house')
  })

  it('says what is new, old and in doubt where it is in doubt, and only there', async () => {
    const sizes = { bytes: 9 * MIB, kept: 2 * MIB, doubt: 3 * MIB }
    const parts = [{ partition: 'main', image: 'main.img', readBack: false, ...sizes }]
    const { shown } = await live({ word: 'in-doubt', parts, scale: 1 })
    const cells = shown.findAll('[aria-labelledby="parts"] td').map((one) => one.text())
    expect(cells).toEqual(['main', '2 MiB', '3 MiB', '4 MiB', 'not yet'])
    const { shown: driven } = await live({ parts, scale: 1 })
    expect(driven.find('[aria-labelledby="parts"]').exists()).toBe(false)
  })
})

describe('“it shows something else”', () => {
  const shows = async (look: string) => {
    const props = { job: job('write'), wanted: LOADER }
    const { shown, asked } = await mounted(ShowsElse, props, { at })
    await shown.find('button').trigger('click')
    await shown
      .findAll('button')
      .find((one) => one.text() === look)
      ?.trigger('click')
    await flushPromises()
    return { says: shown.find('[role="status"]').text(), body: asked[1]?.body ?? asked[0]?.body }
  }
  it('says which mode that is, and what the run waits for', async () => {
    expect((await shows('a menu of four lines')).says).toBe(
      'That is rescue. The run waits for it in the loader. Leave the cable in; it compares the ids when it answers, and goes on. It is easily taken for the loader: a grey bar.',
    )
    expect((await shows('a grey bar above six small lines')).says).toContain(
      'That is as it should be.',
    )
    expect((await shows('None of these')).says).toContain('Write its words into a note')
  })
})

describe('the wall while it is written', () => {
  const part = (more: object = {}) => ({
    partition: 'loader',
    image: 'i',
    bytes: 4 * MIB,
    kept: MIB,
    doubt: 0,
    readBack: false,
    ...more,
  })
  const [step] = run().steps
  const brick = (more: Partial<RunShown>) =>
    liveCourse(say, run({ parts: [part()], ...more })).bricks.find(
      ({ partition }) => partition === 'loader',
    )
  const writes = (partition: string): StepShown[] => {
    const facts = { partition, piece: 1, pieces: 1, mib: 1 }
    return step === undefined ? [] : [{ ...step, kind: 'write', facts }]
  }
  it('fills as far as pieces are kept, with the one under way', () => {
    expect(brick({})?.done).toBe(0.25)
    const writing = writes('loader')
    expect(brick({ steps: writing, got: MIB })?.done).toBe(0.5)
    expect(brick({ steps: writing, got: MIB })?.label).toBe('loader · 50 %')
    expect(brick({ steps: writes('main'), got: MIB })?.done).toBe(0.25)
  })
  it('ticks what was read back', () => {
    expect(brick({ parts: [part({ kept: 4 * MIB, readBack: true })] })?.readBack).toBe(true)
    expect(brick({})?.readBack).toBe(false)
  })
  it('leaves the customer’s alone', () => {
    const customer = liveCourse(say, run()).bricks.find(({ partition }) => partition === 'customer')
    expect(customer?.fate).toBe('customer')
    const steps = run().steps.map((one): StepShown => ({
      ...one,
      kind: 'erase',
      facts: { partition: 'customer', role: 'customer' },
    }))
    const erased = liveCourse(say, run({ steps })).bricks
    expect(erased.find(({ partition }) => partition === 'customer')?.fate).toBe('erased')
  })
})

describe('a plan in pictures and words', () => {
  it('has one course now and one a package, each brick with its true figure', () => {
    const courses = wallOf(say, plan())
    expect(courses.map(({ title }) => title)).toEqual(['on it now', 'loader 7'])
    expect(courses[1]?.bricks[0]).toMatchObject({
      label: '0:01',
      says: 'loader, 4 MiB: written, 0 to 1 s',
    })
    expect(courses[1]?.bricks[1]).toMatchObject({ fate: 'customer', label: 'kept' })
  })
  it('tells changes by what they are of', () => {
    const change = (what: string, from: string, to: string) => changeWords(say, { what, from, to })
    expect(change('fact.board', 'r4', 'r5')).toBe('board was r4, now r5')
    expect(change('evidence.main', '', 'ab12')).toBe('what stands on main was unread, now ab12')
    expect(change('package.loader 7', 'proven', 'known')).toBe(
      'loader 7 on the shelf was proven, now known',
    )
    expect(change('mode', 'normal', 'off')).toBe('mode was normal, now off')
    expect(changesWords(say, [])).toBe('something it rests on')
  })
  it('tells why an image is written or left', () => {
    const why = (reason: string, facts = {}) => reasonWords(say, { reason, facts })
    expect(why('same-digest')).toBe('the device’s own digest is the image’s')
    expect(why('together-with', { role: 'kernel' })).toBe('must be of one set with kernel')
    expect(why('same-version', { version: '7' })).toContain('version 7')
    expect(why('no-evidence')).toBe('nothing tells what stands there')
  })
})

describe('a call', () => {
  it('comes only once it was asked for, at each change that needs somebody', async () => {
    const called: string[] = []
    class Note {
      static readonly permission = 'granted'
      constructor(text: string) {
        called.push(text)
      }
    }
    vi.stubGlobal('Notification', Note)
    vi.stubGlobal(
      'AudioContext',
      class {
        currentTime = 0
        destination = {}
        resume = () => Promise.resolve()
        createOscillator = () => ({
          frequency: { value: 0 },
          connect: () => undefined,
          start: () => undefined,
          stop: () => undefined,
        })
      },
    )
    const what = ref<string | undefined>()
    const call = useCall(what)
    what.value = 'Slip 0417: Hands now'
    await nextTick()
    expect(called).toEqual([])
    await call.ask()
    what.value = undefined
    await nextTick()
    what.value = 'Slip 0417: Done'
    await nextTick()
    expect(called).toEqual(['Slip 0417: Done'])
    vi.unstubAllGlobals()
  })
})
