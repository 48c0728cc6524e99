// @vitest-environment jsdom
/** What First start and Hand back say moves with what the server tells, and stays with what it does not rest on. */
import type { Job, PaperShown } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { job, line, paper, slip, stagesAt } from '../testing/job.ts'
import { SHOP, posted, sheet } from '../testing/sheet.ts'
import FirstStart from './FirstStart.vue'
import HandBack from './HandBack.vue'

const proof = (build: string, more: object = {}) => ({
  proof: {
    facts: [
      {
        fact: 'build',
        was: 'H2.0ZC.r4',
        promised: 'H2.104.r4',
        now: build,
        holds: build === 'H2.104.r4',
      },
      {
        fact: 'patchDate',
        was: '2026-06-01',
        promised: '2026-10-01',
        now: '2026-10-01',
        holds: true,
      },
    ],
    paper: paper(),
    marks: [],
    ...more,
  },
})

describe('First start', () => {
  const tally = (items: number) => ({ items, bytes: 4096, opens: true, at: SHOP.now })
  it('holds what it says against the promise', async () => {
    const good = await sheet(FirstStart, { job: job('first-start'), more: proof('H2.104.r4') })
    expect(good.h1).toBe('It is what was promised: H2.104.r4')
    const bad = await sheet(FirstStart, { job: job('first-start'), more: proof('H2.0ZC.r4') })
    expect(bad.h1).toContain('It is not what was promised: build was H2.104.r4, now H2.0ZC.r4')
  })
  it('tells a loop by its returns', async () => {
    const { device } = job('first-start')
    const looping = device === null ? null : { ...device, outcome: 'loop', returns: 4 }
    const at = job('first-start', { device: looping })
    expect((await sheet(FirstStart, { job: at, more: proof('x') })).h1).toBe(
      'It restarts over and over: seen again 4 times',
    )
  })
  it.each([
    [214, 214, 'The same: 214 items'],
    [214, 213, 'Before 214 items, now 213: not the same.'],
  ])('compares the tally: %i before, %i after', async (before, after, says) => {
    const at = job('first-start', { tally: { before: tally(before), after: tally(after) } })
    const { shown } = await sheet(FirstStart, { job: at, more: proof('H2.104.r4') })
    expect(shown.find('[data-claim="tally"]').text()).toContain(says)
  })
})

describe('First start, held against Intake', () => {
  const WORSE = [{ what: 'function.screen', was: 'works', now: 'fails' }]
  const at = (more: Partial<Job> = {}) => job('first-start', { worse: WORSE, ...more })
  it('names each thing that is worse, and says so first', async () => {
    const { h1, shown } = await sheet(FirstStart, { job: at(), more: proof('H2.104.r4') })
    expect(h1).toBe('One thing is worse than before, or not as promised')
    expect(shown.find('[data-worse]').text()).toBe('Screen: works before, fails now')
    const none = await sheet(FirstStart, { job: at({ worse: [] }), more: proof('H2.104.r4') })
    expect(none.shown.find('[data-worse]').exists()).toBe(false)
    expect(none.h1).toContain('It is what was promised')
  })
  it('takes a decision only with a reason', async () => {
    const { shown, asked } = await sheet(FirstStart, { job: at(), more: proof('H2.104.r4') })
    await shown.find('form').trigger('submit')
    await flushPromises()
    expect(posted(asked, '/lines')).toEqual([])
    const field = shown.findComponent({ name: 'VTextField' })
    field.vm.$emit('update:modelValue', 'the owner knows')
    await flushPromises()
    await shown.find('form').trigger('submit')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'decided.first-start', answer: 'accepted', note: 'the owner knows' }],
    })
  })
  it('says who decided, and why', async () => {
    const lines = [{ ...line('decided.first-start', 'accepted'), note: 'the owner knows' }]
    const { shown } = await sheet(FirstStart, {
      job: at({ decided: true, lines }),
      more: proof('H2.104.r4'),
    })
    expect(shown.find('[data-claim="decided"]').text()).toContain('the owner knows')
    expect(shown.find('form').exists()).toBe(false)
  })
  it('names every test that one press says, with what was found before', async () => {
    const lines = [line('function.screen', 'works'), line('function.radio', 'fails')]
    const { shown, asked } = await sheet(FirstStart, {
      job: at({ lines }),
      more: proof('H2.104.r4'),
    })
    const press = shown.findAll('button').find((one) => one.text().startsWith('As before'))
    expect(press?.text()).toBe('As before: Screen works, Radio fails')
    await press?.trigger('click')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toMatchObject({
      lines: [
        { topic: 'after.screen', answer: 'works' },
        { topic: 'after.radio', answer: 'fails' },
      ],
    })
    const otherwise = await sheet(FirstStart, {
      job: at({ lines: [...lines, line('after.screen', 'fails')] }),
      more: proof('H2.104.r4'),
    })
    expect(otherwise.text).toContain('As before: Radio fails')
    expect(otherwise.text).not.toContain('Screen works')
  })
})

describe('Hand back', () => {
  const at = (lines: Job['lines'] = [], more: Partial<Job> = {}) =>
    job('hand-back', { lines, stages: stagesAt('hand-back', { n: 5 }), ...more })
  it('gives back what came with it, and nothing that did not', async () => {
    const sim = await sheet(HandBack, {
      job: at([], { handBack: ['back.sim', 'back.told'] }),
      more: proof('H2.104.r4'),
    })
    expect(sim.text).toContain('SIM given back')
    const none = await sheet(HandBack, { job: at(), more: proof('H2.104.r4') })
    expect(none.text).not.toContain('SIM given back')
    expect(none.h1).toBe('5 things are to do before it goes back')
    expect(none.text).toContain('Undo the preparation')
    expect(sim.text).not.toContain('Undo the preparation')
  })
  it('names the mark that stays and, after all that is to be done, what is due later', async () => {
    const dues: Job['dues'] = { standing: [{ what: 'patch', on: '2026-12-30' }], asked: [] }
    const { shown, text } = await sheet(HandBack, {
      job: at([], { dues }),
      more: proof('H2.104.r4'),
    })
    expect(shown.find('[data-claim="marks"]').text()).toContain('The rollback floor rose')
    expect(shown.find('[data-due="patch"]').text()).toContain('2026-12-30')
    expect(text.indexOf('Due later')).toBeGreaterThan(text.indexOf('Give back'))
    const marks = async (more: Partial<PaperShown>) =>
      (await sheet(HandBack, { job: at(), more: proof('H2.104.r4', { paper: paper(more) }) })).shown
        .findAll('[data-claim="marks"]')
        .map((one) => one.text())
    expect(await marks({ marks: [] })).toEqual(['Nothing stays.'])
    expect(await marks({ marks: ['loader'] })).toEqual([
      'Its loader was raised, and does not go back.',
    ])
    const broken = {
      kind: 'broken-off' as const,
      step: 9,
      steps: 17,
      whole: [],
      part: ['main'],
    }
    expect(await marks({ marks: [], done: broken })).toEqual([
      'Nobody has seen it start since: what stays cannot be told.',
    ])
  })
  it('says what it is only where it was asked', async () => {
    const unasked = proof('H2.104.r4')
    const [build] = unasked.proof.facts
    const facts = [{ ...build, now: null, holds: null }]
    const { text } = await sheet(HandBack, { job: at(), more: proof('x', { facts }) })
    expect(text).toContain('the device was not asked what it is now')
    expect(text).not.toContain('and is H2.104.r4')
  })
  it('keeps the copy until the owner says that all is well, then asks for its deletion', async () => {
    const care = async (more: Partial<Job>, state: 'closed' | 'open' = 'closed') => {
      const told = { ...proof('H2.104.r4'), care: [] }
      const { shown, asked } = await sheet(HandBack, {
        job: at([], more),
        slip: slip({ state }),
        more: told,
      })
      const section = shown.find('[data-claim="care"]')
      if (!section.exists()) return undefined
      await section.find('button').trigger('click')
      await flushPromises()
      return posted(asked, '/lines')[0]?.body
    }
    expect(await care({ care: 'none' })).toBe(undefined)
    expect(await care({ care: 'ask-owner' }, 'open')).toBe(undefined)
    expect(await care({ care: 'ask-owner' })).toMatchObject({
      lines: [{ topic: 'care.well', answer: 'all-well' }],
    })
    expect(await care({ care: 'delete-copy' })).toMatchObject({
      lines: [{ topic: 'care.backup', answer: 'deleted' }],
    })
  })
  it('closes the slip when all is done', async () => {
    const stages = stagesAt('hand-back').map((one) =>
      one.stage === 'hand-back' ? { ...one, says: 'hand-back.close' } : one,
    )
    const { h1, shown, asked } = await sheet(HandBack, {
      job: at([], { stages }),
      more: proof('H2.104.r4'),
    })
    expect(h1).toBe('Ready to go back: close the slip')
    await shown.find('.go button').trigger('click')
    await flushPromises()
    expect(posted(asked, '/state')[0]?.body).toMatchObject({ state: 'closed' })
  })
})
