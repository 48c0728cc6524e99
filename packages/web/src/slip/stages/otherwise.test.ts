// @vitest-environment jsdom
/** What a plan would be otherwise is told figure by figure, held against it step by step, and taken with a reason. */
import type { OtherwiseShown } from '@plain-slate/api'
import { describe, expect, it, vi } from 'vitest'
import { job, plan, planPage } from '../testing/job.ts'
import { posted, sheet } from '../testing/sheet.ts'
import Plan from './Plan.vue'

const now = plan()
const [meet] = now.steps
if (meet === undefined) throw new Error('no step')
const more = { ...meet, number: 2, facts: { mode: 'rescue', left: 0 } } as typeof meet
const all = (change: Partial<OtherwiseShown> = {}): OtherwiseShown => ({
  question: 'writes',
  answer: 'all',
  route: 'a by images',
  time: { low: 1680, high: 1980 },
  hands: now.hands,
  needs: now.needs,
  restarts: now.restarts,
  fates: now.fates,
  worst: { leaves: 'dead', seconds: 6 },
  fails: null,
  steps: [meet, more],
  ...change,
})
const at = (others: readonly OtherwiseShown[], query: Record<string, string> = {}) =>
  sheet(Plan, { job: job('plan'), more: { ...planPage(now), otherwise: { others } }, query })

describe('a plan otherwise', () => {
  it('tells each answer with its figures, and marks those that are others', async () => {
    const { shown, text } = await at([all()])
    expect(text).toContain('Everything that its maker writes')
    const cells = shown.findAll('[data-otherwise="writes all"] td')
    expect(cells.map((one) => one.classes('other'))).toEqual([
      ...[true, true],
      ...[false, false, false, false, false],
    ])
    const charged = await at([all({ needs: 60, restarts: 9 })])
    const marked = charged.shown.findAll('[data-otherwise="writes all"] td.other')
    expect(marked.map((one) => one.text())).toEqual(expect.arrayContaining(['60 %', '9']))
  })

  it('says nothing where nothing would be otherwise, and that one is being rehearsed, or fails', async () => {
    expect((await at([])).text).not.toContain('Otherwise')
    expect((await at([all({ worst: null })])).text).toContain('is being rehearsed')
    const fails = { step: 4, why: { code: 'other-table', facts: {} } }
    expect((await at([all({ fails })])).text).toContain('It fails in rehearsal at step 4')
  })

  it('is held against the plan step by step, and taken for this slip with a reason', async () => {
    const closed = await at([all()])
    expect(closed.shown.find('.pair').exists()).toBe(false)
    const { shown, asked, text } = await at([all()], { against: 'writes all' })
    expect(text).toContain('One step is the same')
    expect(shown.findAll('[data-side="then"]')).toHaveLength(1)
    expect(shown.findAll('[data-side="now"]')).toHaveLength(0)
    const form = shown.find('form.take')
    await form.trigger('submit')
    expect(posted(asked, '/lines')).toEqual([])
    shown
      .findComponent({ name: 'VTextField' })
      .vm.$emit('update:modelValue', 'it was tried elsewhere')
    await shown.vm.$nextTick()
    await form.trigger('submit')
    await vi.waitFor(() => expect(posted(asked, '/lines')).toHaveLength(1))
    expect(posted(asked, '/lines')[0]?.body).toEqual({
      lines: [
        { topic: 'depart.writes', answer: 'all', note: 'it was tried elsewhere' },
        { topic: 'route.package', answer: 'a by images', note: '' },
      ],
    })
  })
})
