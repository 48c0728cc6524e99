// @vitest-environment jsdom
/** Readings: what to read next and how Enter takes it, and why two claims settle nothing. */
import type { FactShown, Job, NextShown } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { LOADER, NORMAL, fact, job, line } from '../testing/job.ts'
import { posted, sheet } from '../testing/sheet.ts'
import Readings from './Readings.vue'

describe('Read next', () => {
  const next = (more: Partial<NextShown> = {}): NextShown => ({
    fact: 'board',
    source: 'link',
    where: 'asked',
    mode: LOADER,
    seconds: 30,
    legs: 1,
    byCommand: true,
    left: 14,
    gain: 7.25,
    most: 9,
    least: 3,
    tells: 0,
    along: ['chipset'],
    ...more,
  })
  const readings = (nexts: readonly NextShown[], more: Partial<Job> = {}) =>
    sheet(Readings, {
      job: job('readings', {
        facts: [fact('board', { kind: 'missing', value: null })],
        next: [...nexts],
        ...more,
      }),
    })
  const device = job('readings').device
  const inLoader = { device: device === null ? null : { ...device, mode: LOADER } }

  it('says the fact, the way and what it rules out, and the runner-up after it', async () => {
    const { text } = await readings([next(), next({ fact: 'floor', gain: 0, most: 0, tells: 4 })])
    expect(text).toContain('Read next: board')
    expect(text).toContain('over the link; one way to the loader, 30 s with the reading')
    expect(text).toContain(
      'Of 14 packages that are left it rules out 3 to 9, 7.3 by what is likely.',
    )
    expect(text).toContain('The same look tells chipset.')
    expect(text).toContain('Or rollback floor')
    expect(text).toContain('It rules nothing out; 4 answers wait for it.')
  })

  it('is not there where nothing is worth reading', async () => {
    expect((await readings([])).text).not.toContain('Read next')
  })

  it.each<[string, NextShown, Partial<Job>, string]>([
    ['a look where it is', next({ legs: 0 }), inLoader, 'Read board over the link at P2'],
    ['a look by commands', next(), {}, 'Into the loader and back, for board'],
    ['a way by hand', next({ byCommand: false }), {}, 'Show the way to the loader'],
    ['eyes', next({ source: 'label', mode: null, legs: 0 }), {}, 'Put board down'],
  ])('is taken by Enter: %s', async (_, one, more, label) => {
    const { shown } = await readings([one], more)
    expect(shown.find('[data-claim="next"] button').text()).toBe(`${label}Enter`)
  })

  it('reads no device of another model than the slip names, though it is the only one there', async () => {
    const there = (model: string) => ({ name: 'P2', serial: 'TRN4490077F31', model, mode: NORMAL })
    const label = async (model: string) => {
      const { shown } = await readings([], { device: null, ports: [there(model)] })
      return shown.findAll('button').map((one) => one.text())
    }
    expect(await label('BRAK-H2K')).toContain('Read it at P2Enter')
    expect(await label('BRAK-H2')).not.toContain('Read it at P2Enter')
    expect((await label('BRAK-H2')).some((one) => one.includes('BRAK-H2 …7F31'))).toBe(true)
  })

  it('asks whether it starts where nothing is worth reading and something is open, once', async () => {
    const labels = async (lines: Job['lines'] = []) => {
      const { shown } = await readings([], { lines })
      return shown.findAll('button').map((one) => one.text())
    }
    expect(await labels()).toContain('Say at Intake whether it startsEnter')
    expect(await labels([line('history.starts', 'runs')])).not.toContain(
      'Say at Intake whether it startsEnter',
    )
  })

  it('has the digests of one that does not start read before anything is chosen, once', async () => {
    const deep = 'Into the loader and back, for what stands on itEnter'
    const offers = async (more: Partial<Job> = {}, said = 'stops') => {
      const lines = [line('history.starts', said)]
      const { shown } = await sheet(Readings, { job: job('firmware', { lines, ...more }) })
      return shown.findAll('button').some((one) => one.text() === deep)
    }
    const looked = {
      id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0009',
      port: 'P2',
      deep: true,
      at: '2026-10-15T14:22:00.000Z',
      state: 'found' as const,
      found: { serial: 'TRN', digests: 7, table: true },
      trouble: null,
    }
    expect(await offers()).toBe(true)
    expect(await offers({}, 'silent')).toBe(true)
    expect(await offers({}, 'runs')).toBe(false)
    expect(await offers({ look: { ...looked, deep: false } })).toBe(true)
    expect(await offers({ look: looked })).toBe(false)
    /* Where it is already what more is shown in, it was read there. */
    expect(await offers(inLoader)).toBe(false)
    expect(await offers({ device: device === null ? null : { ...device, digests: 3 } })).toBe(true)
    expect(await offers({ device: device === null ? null : { ...device, battery: 12 } })).toBe(true)
  })

  it('shows the way for a reading only as long as something is to be read; one that was asked for stays', async () => {
    const open = job('readings', {
      facts: [fact('board', { kind: 'missing', value: null })],
      next: [next({ byCommand: false })],
    })
    const shows = async (button: string) => {
      const says = { job: open }
      const { shown, refetched } = await sheet(Readings, says)
      const press = shown.findAll('button').find((one) => one.text().startsWith(button))
      await press?.trigger('click')
      await flushPromises()
      const before = shown.find('.way').exists()
      says.job = job('firmware')
      await refetched()
      return [before, shown.find('.way').exists()]
    }
    expect(await shows('Show the way to the loader')).toEqual([true, false])
    expect(await shows('rescue')).toEqual([true, true])
  })

  it('begins the form where eyes read it', async () => {
    const { shown } = await readings([next({ source: 'screen', mode: null })])
    const chosen = () => shown.findAll('.hand select').map((one) => one.attributes('modelvalue'))
    expect(chosen()).not.toContain('screen')
    await shown.find('[data-claim="next"] button').trigger('click')
    expect(chosen()).toEqual(['board', 'screen'])
  })

  it('says what keeps it from going by itself', async () => {
    const look = {
      id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0009',
      port: 'P2',
      deep: true,
      at: '2026-10-15T14:22:00.000Z',
      state: 'found' as const,
      found: { serial: 'TRN', digests: 0, table: false },
      trouble: null,
    }
    const told = (more: Partial<typeof look>) =>
      readings([next()], { look: { ...look, ...more } }).then(({ shown }) =>
        shown.find('[data-claim="stayed"]').exists(),
      )
    expect(await told({})).toBe(true)
    expect(await told({ deep: false })).toBe(false)
    expect(await told({ found: { serial: 'TRN', digests: 3, table: true } })).toBe(false)
  })
})

describe('claims that contradict each other', () => {
  it('explains a contradiction: how they weigh, what each really tells of, what would settle it', async () => {
    const claim = (value: string, weight: number, source: 'label' | 'settings') => ({
      value,
      weight,
      sources: [
        {
          source,
          trust: weight,
          at: '2026-10-15T14:22:00.000Z',
          by: null,
          mode: null,
          typed: true,
        },
      ],
    })
    const told = async (more: Partial<FactShown>) => {
      const board = fact('board', {
        kind: 'contradicted',
        value: null,
        claims: [claim('r4', 5, 'settings'), claim('r5', 2, 'label')],
        where: [{ source: 'link', where: 'asked', seconds: 5 }],
        ...more,
      })
      const { shown } = await sheet(Readings, { job: job('readings', { facts: [board] }) })
      const said = shown.find('[data-claim="contradiction"]')
      return said.exists() ? said.text() : ''
    }
    expect(await told({})).toBe(
      'Weight 5 against 2: none outweighs the others five times. the settings tell of what runs on it; the label tells of the housing. The fuses would settle it, over the link.',
    )
    expect(await told({ where: [] })).not.toContain('fuses')
    expect(await told({ kind: 'told' })).toBe('')
  })
})

describe('what somebody put down', () => {
  it('is taken back by its own button; what the device said has none', async () => {
    const by = { trust: 5, at: '2026-10-15T14:22:00.000Z', by: 'Ilse', mode: null }
    const claims = (typed: boolean) => [
      { value: 55, weight: 8, sources: [{ ...by, source: 'screen' as const, typed }] },
      { value: 5, weight: 8, sources: [{ ...by, source: 'link' as const, typed: false }] },
    ]
    const at = (typed: boolean, run: string | null = null) =>
      sheet(Readings, {
        job: job('readings', { run, facts: [fact('floor', { claims: claims(typed) })] }),
      })
    const { shown, asked } = await at(true)
    const backs = shown.findAll('[aria-label^="Take back"]')
    expect(backs.map((one) => one.attributes('aria-label'))).toEqual([
      'Take back: rollback floor 55, the loader’s screen',
    ])
    await backs[0]?.trigger('click')
    expect(posted(asked, '/readings/back')[0]?.body).toEqual({
      fact: 'floor',
      value: 55,
      source: 'screen',
    })
    expect((await at(false)).shown.find('[aria-label^="Take back"]').exists()).toBe(false)
    expect((await at(true, 'r1')).shown.find('[aria-label^="Take back"]').exists()).toBe(false)
  })
})

describe('facts besides', () => {
  const shown = async (more: Partial<FactShown>) =>
    (await sheet(Readings, { job: job('readings', { facts: [fact('lockSwitch', more)] }) })).text
  it('says why a switch cannot be turned, and when it can', async () => {
    const greyed = (carrier: string | null, days: number | null) =>
      shown({ value: 'greyed', needed: false, greyed: { carrier, days } })
    expect(await greyed(null, 7)).toContain(
      'it cannot be turned until 7 days after its first set-up',
    )
    expect(await greyed('S', null)).toContain('on carrier S it is never to be turned')
    expect(await shown({ value: 'on', needed: false })).not.toContain('turned')
  })

  it('lists what its family shows and nobody read, and not what it does not show', async () => {
    const unread = { kind: 'missing', value: null, needed: false } as const
    const where = [{ source: 'settings' as const, where: 'storage', seconds: 40 }]
    const text = await shown({ ...unread, where })
    expect(text).toContain('One fact more that its family shows')
    expect(text).toContain('switch for the boot lock: its settings: storage, 40 s')
    expect(await shown(unread)).not.toContain('that its family shows')
  })
})

describe('what stands on it', () => {
  const shown = async (more: Partial<Job>) =>
    (await sheet(Readings, { job: job('readings', more) })).shown
  const stands = (set: string | null, told = true): Job['stands'] => ({
    parts: [
      { partition: 'kernel', role: 'kernel', builds: ['H2.0ZC.r4', 'H2.0ZP.r4'] },
      { partition: 'main', role: 'main', builds: [] },
    ],
    set,
    told,
  })
  it('says of each part of which builds it is, and whether the set is of one', async () => {
    const page = await shown({ stands: stands('H2.0ZC.r4') })
    expect(page.find('[data-part="kernel"]').text()).toContain('H2.0ZC.r4, H2.0ZP.r4')
    expect(page.find('[data-part="main"]').text()).toContain('no build that is known here')
    expect(page.text()).toContain('What is signed together is of one build: H2.0ZC.r4.')
    expect((await shown({ stands: stands(null) })).text()).toContain('of several builds at once')
    const untold = (await shown({ stands: stands(null, false) })).text()
    expect(untold).not.toContain('signed together')
    expect((await shown({})).find('[data-claim="stands"]').exists()).toBe(false)
  })

  it('says what the data hang on, and what is known of this board', async () => {
    const { family } = job('readings')
    if (family === null) throw new Error('no family')
    const keys = async (dataKeys: NonNullable<Job['family']>['dataKeys']) =>
      (await shown({ family: { ...family, dataKeys } })).find('[data-claim="keys"]').text()
    expect(await keys(['release'])).toContain('the device, the lock and the release')
    expect(await keys([])).toContain('the device and the lock alone')
    const fault = {
      says: 'it loses its sensors',
      role: 'kernel' as const,
      from: '20-2638.0-HO',
      source: 'noted by the house',
      devices: 3,
      date: '2026-09-24',
    }
    expect((await shown({ faults: [fault] })).find('[data-claim="fault"]').text()).toBe(
      'Known of this board: it loses its sensors; with a kernel of 20-2638.0-HO or later. noted by the house, 3 devices, 2026-09-24.',
    )
    expect((await shown({})).find('[data-claim="fault"]').exists()).toBe(false)
  })
})

describe('what was seen', () => {
  it('is kept word for word, with where and by whom, and what was withdrawn is not told', async () => {
    const kept = line('seen.text', 'screen', { note: 'not signed' })
    const told = await sheet(Readings, { job: job('readings', { seen: [kept] }) })
    const said = told.shown.find('[data-claim="seen"] blockquote').text()
    expect(said).toContain('not signed')
    expect(said).toContain('on its screen')
    expect(said).toContain('Ilse Maro')
    const gone = await sheet(Readings, {
      job: job('readings', { seen: [{ ...kept, note: null }] }),
    })
    expect(gone.shown.find('[data-claim="seen"] blockquote').text()).toContain('withdrawn')
  })

  it('is put down under a name', async () => {
    const { shown, asked } = await sheet(Readings, { job: job('readings') })
    shown.findComponent({ name: 'VTextarea' }).vm.$emit('update:modelValue', 'older than allowed')
    await flushPromises()
    await shown.find('[data-claim="seen"] form').trigger('submit')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toEqual({
      lines: [{ topic: 'seen.text', answer: 'screen', note: 'older than allowed' }],
    })
  })
})
