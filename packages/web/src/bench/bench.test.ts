// @vitest-environment jsdom
import type { RunShown, StepShown } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import HoldButton from '../keys/HoldButton.vue'
import Peg from '../pictures/Peg.vue'
import { mounted } from '../testing/mounted.ts'
import Findings from './Findings.vue'
import PortSheet from './PortSheet.vue'
import RunActs from './RunActs.vue'
import RunParts from './RunParts.vue'
import StartCard from './StartCard.vue'
import StepList from './StepList.vue'

describe('from a plan to its start', () => {
  const seen = {
    serial: 'TRN4490077F31',
    model: 'BRAK-H2K',
    board: 'r4',
    build: 'H2.0ZC.r4',
    mode: 'normal',
    battery: 71,
    loaderVersion: 6,
  } as const
  const asked = { port: 'P2', package: 'tarn-H2.104.r4~aaaaaaaaaaaa', intent: 'update' } as const
  const card = (
    slip: { number: string; stage: 'ready' } | null,
    role: 'lead' | 'trainee' = 'lead',
  ) => mounted(StartCard, { seen, slip, asked }, { role, at: '/bench/P2?package=x' })

  it('leads to the slip of the device, and starts nothing here', async () => {
    const { shown } = await card({ number: '0417', stage: 'ready' })
    expect(shown.find('a').attributes('href')).toBe('/slips/0417/ready')
    expect(shown.text()).toContain('Go on in slip 0417')
    expect(shown.findComponent(HoldButton).exists()).toBe(false)
  })

  it('opens one where no slip is for it, has it read and picks the route', async () => {
    const { shown, asked: calls } = await card(null)
    await shown.find('button').trigger('click')
    await flushPromises()
    expect(calls[0]).toMatchObject({
      method: 'POST',
      path: '/api/slips',
      body: { device: 'BRAK-H2K …7F31', model: 'BRAK-H2K', intent: 'update' },
    })
  })
})

const step = (number: number, more: Partial<StepShown> = {}) =>
  ({
    number,
    kind: 'restart',
    facts: { to: 'the loader' },
    seconds: { low: 9, high: 14 },
    hands: false,
    worst: 'unaffected',
    source: 'family',
    n: 0,
    silent: 20,
    ...more,
  }) as StepShown

describe('a list of steps', () => {
  const steps = [step(1, { hands: true }), step(2, { worst: 'dead' }), step(3)]
  it('marks what kills, and hands, in words', async () => {
    const { shown } = await mounted(StepList, { steps })
    const rows = shown.findAll('tbody tr')
    expect(rows[0]?.text()).toContain('hands')
    expect(rows[1]?.text()).toContain('dead if cut')
    expect(rows.map((row) => row.find('svg').exists())).toEqual([false, true, false])
    expect(shown.text()).not.toContain('now')
  })

  it('says where a run is, and where it stopped', async () => {
    const { shown } = await mounted(StepList, { steps, at: 2 })
    expect(shown.find('[aria-current="step"]').text()).toContain('now')
    expect(shown.findAll('tbody tr')[0]?.text()).toContain('done')
    await shown.setProps({ stopped: true })
    expect(shown.find('[aria-current="step"]').text()).toContain('stopped here')
  })
})

const run = (more: Partial<RunShown> = {}) =>
  ({
    id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0009',
    state: 'running',
    word: 'hands-off',
    ownerless: false,
    stop: null,
    hold: null,
    against: null,
    short: null,
    low: null,
    stopBy: null,
    size: 0,
    why: null,
    asked: null,
    way: null,
    scale: 256,
    parts: [],
    ...more,
  }) as RunShown
const MIB = 1024 ** 2

describe('partition by partition', () => {
  const parts = [
    { partition: 'main', image: 'i', bytes: 13 * MIB, kept: 4 * MIB, doubt: MIB, readBack: false },
    { partition: 'modem', image: 'm', bytes: MIB, kept: MIB, doubt: 0, readBack: true },
  ]
  const cells = async (more: Partial<RunShown>) => {
    const { shown } = await mounted(RunParts, { run: run({ parts, ...more }) })
    const row = shown.findAll('tbody tr')[0]
    return { text: shown.text(), main: row?.findAll('td').map((cell) => cell.text()) }
  }

  it('adds up, at the size of the device that is modelled', async () => {
    const { main } = await cells({})
    expect(main).toEqual(['main', '1024 MiB', '256 MiB', '2048 MiB', 'not yet'])
    expect((await cells({ scale: 1 })).main?.[1]).toBe('4 MiB')
  })

  it('calls the piece under way in doubt only when nobody drives it or it was lost', async () => {
    expect((await cells({})).text).toContain('on its way')
    expect((await cells({ word: 'in-doubt' })).text).toContain('in doubt')
    expect((await cells({ state: 'stopped', word: 'stopped' })).text).toContain('in doubt')
  })
})

describe('what a person can do with a run', () => {
  const labels = async (more: Partial<RunShown>, role: 'lead' | 'trainee' = 'lead') => {
    const { shown } = await mounted(RunActs, { run: run(more) }, { role })
    return shown.findAll('button').map((one) => one.text())
  }
  const ask = { command: 4, ask: 'enter', text: 'Hold both triggers.' }

  it('follows its state', async () => {
    expect(await labels({ size: 100 })).toEqual(['Stop after this piece'])
    expect(await labels({})).toEqual(['Stop'])
    expect(await labels({ stop: 'to-be-heard' })).toEqual([])
    expect(await labels({ asked: ask })).toEqual(['Done.', 'Stop'])
    expect(await labels({ ownerless: true })).toEqual(['Take it up', 'Order it to stop'])
    expect(await labels({ ownerless: true, stop: 'nobody-drives' })).toEqual(['Take it up'])
    expect(await labels({ state: 'stopped' })).toEqual(['Take it up', 'Put it away'])
    const against = {
      topic: 'condition.wet',
      answer: 'wet',
      by: null,
      at: '2026-10-15T12:00:00.000Z',
    }
    expect(await labels({ state: 'stopped', against })).toEqual(['Put it away'])
    expect(await labels({ state: 'stopped', against, hold: 'loader' })).toEqual(['Take it up'])
    expect(await labels({ state: 'ended' })).toEqual(['Put it away'])
  })

  it('offers neither a stop nor to put away what is in doubt and has no second copy', async () => {
    expect(await labels({ state: 'stopped', hold: 'loader' })).toEqual(['Take it up'])
    expect(await labels({ word: 'in-doubt', hold: 'loader' })).toEqual([])
  })

  it('does not offer to take up what nobody can follow', async () => {
    const why = { code: 'journal', facts: { entry: 7 } }
    expect(await labels({ state: 'stopped', why })).toEqual(['Put it away'])
  })

  it('leaves taking up to those who may start', async () => {
    expect(await labels({ state: 'stopped' }, 'trainee')).toEqual(['Put it away'])
  })

  it('says "done" for the command that asked', async () => {
    const { shown, asked: calls } = await mounted(RunActs, { run: run({ asked: ask }) })
    await shown.find('button').trigger('click')
    await flushPromises()
    expect(calls[0]).toMatchObject({ path: `/api/runs/${run().id}/done`, body: { command: 4 } })
  })
})

describe('a port', () => {
  const at = async (where: string, odd: string | null = null) => {
    const ports = [
      {
        name: 'P2',
        cable: null,
        note: '',
        bench: null,
        way: null,
        ours: false,
        word: 'free',
        seen: null,
        odd,
        look: null,
        slip: null,
        run: null,
      },
    ]
    const answer = { ports, cables: [], watched: true, computers: [], simulated: false }
    const { shown } = await mounted(PortSheet, {}, { at: where, answer })
    return shown.find('h1').text()
  }
  it('where nothing answers says so, and one that is not there too', async () => {
    expect(await at('/bench/P2')).toBe('Nothing answers at P2')
    expect(await at('/bench/P2', 'facts.serial: none')).toBe('What answers at P2 cannot be used')
    expect(await at('/bench/P9')).toBe('There is no port P9 on this bench')
  })
})

describe('a finding', () => {
  const finding = {
    rule: 'state.loader',
    verdict: 'fits-if',
    code: 'fit.state.loader.least.raise',
    facts: { here: 6, least: 7, by: 'loader 7' },
    marks: [{ kind: 'risky', seconds: 1 }, { kind: 'irreversible' }],
    remedy: null,
  } as const
  it('says its claim with the facts it was made from, and its marks', async () => {
    const { shown } = await mounted(Findings, { findings: [finding] })
    expect(shown.text()).toContain('Loader 6 is raised to 7 on the way, by loader 7')
    expect(shown.text()).toContain('1 s at risk')
    expect(shown.text()).toContain('cannot be undone')
    const other = { ...finding, facts: { ...finding.facts, here: 5 } }
    const { shown: moved } = await mounted(Findings, { findings: [other] })
    expect(moved.text()).toContain('Loader 5 is raised')
  })

  it('bears a peg whose shape alone tells the verdict', async () => {
    const shapes = await Promise.all(
      (['fits', 'fits-if', 'does-not-fit', 'cannot-tell'] as const).map(async (verdict) => {
        const { shown } = await mounted(Peg, { verdict })
        const named = shown.find('title').text()
        return [named, shown.findAll('rect, path').map(({ element }) => element.outerHTML)]
      }),
    )
    const drawn = shapes.map(([, shape]) =>
      JSON.stringify(shape).replace(/ data-v-\w+=\\"\\"/g, ''),
    )
    expect(new Set(drawn.slice(0, 3)).size).toBe(3)
    expect(shapes.map(([name]) => name)).toEqual([
      'fits',
      'fits if',
      'does not fit',
      'cannot tell yet',
    ])
  })
})
