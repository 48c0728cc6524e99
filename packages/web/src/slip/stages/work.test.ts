// @vitest-environment jsdom
/** What the sheets from Compare on say moves with what the server tells, and stays with what it does not rest on. */
import type { Job, Ready } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { job, line, plan, planPage, stagesAt } from '../testing/job.ts'
import type { Says } from '../testing/sheet.ts'
import { SHOP, posted, sheet } from '../testing/sheet.ts'
import Compare from './Compare.vue'
import FirstStart from './FirstStart.vue'
import HandBack from './HandBack.vue'
import Plan from './Plan.vue'
import ReadySheet from './Ready.vue'
import Write from './Write.vue'

const taken = (changes: readonly object[] | null) => ({
  at: SHOP.now,
  by: 'Ilse Maro',
  package: 'tarn-H2.104.r4',
  digest: 'd'.repeat(64),
  shown: plan(),
  changes,
})

describe('Compare', () => {
  it('counts what goes on and what is left alone', async () => {
    const stages = stagesAt('plan').map((one) =>
      one.stage === 'compare' ? { ...one, facts: { n: 5, of: 7 } } : one,
    )
    const { h1 } = await sheet(Compare, { job: job('plan', { stages }), more: planPage(plan()) })
    expect(h1).toBe('5 of 7 images go on; 2 are left alone')
  })
  it('offers to read it, or to write everything, where nothing was read', async () => {
    const at = job('compare', { stages: stagesAt('compare', { of: 7 }) })
    const { h1, shown, asked } = await sheet(Compare, { job: at, more: planPage(plan()) })
    expect(h1).toContain('all 7 images would be written')
    const accept = shown.findAll('button').find((one) => one.text() === 'Write everything')
    await accept?.trigger('click')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'compare.unread', answer: 'write-all' }],
    })
  })
  it('says what the layout is, and how it differs', async () => {
    const layout = async (more: object) =>
      (await sheet(Compare, { job: job('plan'), more: planPage(plan(), more) })).text
    expect(await layout({ layout: 'equal' })).toContain('nothing is moved')
    expect(
      await layout({ layout: 'differs', differences: [{ partition: 'main', how: 'resized' }] }),
    ).toContain('The device’s table differs: main resized.')
  })
})

describe('Plan', () => {
  const h1 = async (more: Says['more'] & object, at = job('plan')) =>
    (await sheet(Plan, { job: at, more })).h1
  it('names the worst first, from the seconds at risk', async () => {
    expect(await h1(planPage(plan()))).toBe('1 step, data kept: 6 s that could kill it')
    expect(await h1(planPage(plan({ atRisk: {} })))).toContain('no moment that could harm it')
    expect(await h1(planPage(plan({ needs: 80 })))).toBe(
      '1 step, data kept: 6 s that could kill it',
    )
  })
  it('says how the rehearsal ended', async () => {
    const ends = { build: 'H2.104.r4', outcome: 'loop', readable: false, lock: 'open' } as const
    const { text } = await sheet(Plan, { job: job('plan'), more: planPage(plan({ ends })) })
    expect(text).toContain('restarts over and over, data there and unreadable, lock open')
  })
  it('says of each thing why it will be so', async () => {
    const [thing] = plan().fates
    if (thing === undefined) throw new Error('no thing')
    const why = async (more: object) => {
      const { shown } = await sheet(Plan, {
        job: job('plan'),
        more: planPage(plan({ fates: [{ ...thing, ...more }] })),
      })
      return shown.find('[data-item="tickets"]').text()
    }
    expect(await why({})).toContain('no step writes or erases customer, and its keys stay')
    expect(await why({ partition: 'cache' })).toContain('erases cache')
    expect(await why({ fate: 'wiped', why: 'erased' })).toContain('a package erases customer')
    expect(await why({ fate: 'unreadable', why: 'release' })).toContain('the newer release')
  })
  it('is stale in words, with what was and what is', async () => {
    const changes = [
      { what: 'fact.board', from: 'r4', to: 'r5' },
      { what: 'mode', from: 'normal', to: 'off' },
    ]
    const stale = planPage(plan(), { taken: taken(changes) })
    expect(await h1(stale)).toBe('The plan is stale: board was r4, now r5, and one more')
    expect(await h1(planPage(plan(), { taken: taken(null) }))).toContain('data kept')
  })
  it('is taken with the digest that was shown, by whoever may', async () => {
    const { shown, asked } = await sheet(Plan, { job: job('plan'), more: planPage(plan()) })
    await shown.find('.go button').trigger('click')
    await flushPromises()
    expect(posted(asked, '/plan')[0]?.body).toEqual({ digest: 'd'.repeat(64) })
    const barred = await sheet(Plan, { job: job('plan'), more: planPage(plan()), role: 'trainee' })
    expect(barred.text).not.toContain('Take this plan')
  })
})

describe('Ready', () => {
  const ready = (holds: boolean, signed: boolean, seen = true): { ready: Ready } => ({
    ready: {
      checks: [
        { check: 'battery', holds, seen, facts: { here: 24, needed: 44 } },
        { check: 'mode', holds: true, seen: true, facts: { mode: 'normal', drain: 0.2 } },
      ],
      signed: [
        {
          topic: 'ready.cable',
          signed,
          by: signed ? 'Ilse Maro' : null,
          at: signed ? SHOP.now : null,
        },
      ],
    },
  })
  const at = job('ready', {
    stages: stagesAt('ready', { open: 2, all: 3 }),
    plan: { at: SHOP.now, by: 'Ilse', title: 'x', stale: false },
  })
  it('says what is in the way, and by how much', async () => {
    const { h1, text } = await sheet(ReadySheet, { job: at, more: ready(false, false) })
    expect(h1).toBe('2 things are in the way of the write')
    expect(text).toContain('24 %, needs 44 %: charge it in normal mode or off, not in the loader')
    expect(text).toContain('normal mode')
    const away = await sheet(ReadySheet, { job: at, more: ready(false, false, false) })
    expect(away.text).toContain('not seen; it needs 44 %')
    expect(away.text).not.toContain('24 %')
  })
  it('takes a signature under one’s name, and shows whose stands', async () => {
    const { shown, asked } = await sheet(ReadySheet, { job: at, more: ready(true, false) })
    await shown.find('.sign').trigger('click')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'ready.cable', answer: 'done' }],
    })
    const signed = await sheet(ReadySheet, { job: at, more: ready(true, true) })
    expect(signed.shown.find('.sign').exists()).toBe(false)
    expect(signed.text).toContain('Ilse Maro, today 14:22')
  })
})

describe('Write', () => {
  const at = job('write', { plan: { at: SHOP.now, by: 'Ilse', title: 'H2.104.r4', stale: false } })
  it('names port, end of serial, owner, package and what is lost, and holds to start', async () => {
    const more = planPage(plan(), { taken: taken(null) })
    const { h1, text, shown } = await sheet(Write, { job: at, more })
    expect(h1).toBe('Start: H2.104.r4 to …7F31 at P2')
    for (const says of ['P2', '…7F31', 'Ferry line, handheld 14', 'nothing of the customer’s'])
      expect(text).toContain(says)
    expect(shown.find('.hold').exists()).toBe(true)
    const barred = await sheet(Write, { job: at, more, role: 'trainee' })
    expect(barred.shown.find('.hold').exists()).toBe(false)
  })
  it('names what is lost where something is', async () => {
    const fates = [
      {
        item: 'tickets',
        name: 'stored tickets',
        partition: 'customer',
        fate: 'wiped',
        why: 'erased',
      },
    ]
    const more = planPage(plan(), { taken: { ...taken(null), shown: plan({ fates }) } })
    expect((await sheet(Write, { job: at, more })).shown.find('dl .wide').text()).toContain(
      'stored tickets',
    )
  })
})

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
    floorRose: true,
    next: '2026-12-30',
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

describe('Hand back', () => {
  const at = (lines: Job['lines'] = [], more: Partial<Job> = {}) =>
    job('hand-back', { lines, stages: stagesAt('hand-back', { n: 5 }), ...more })
  it('gives back what came with it, and nothing that did not', async () => {
    const sim = await sheet(HandBack, {
      job: at([line('accessory.sim', 'here')]),
      more: proof('H2.104.r4'),
    })
    expect(sim.text).toContain('SIM given back')
    const none = await sheet(HandBack, { job: at(), more: proof('H2.104.r4') })
    expect(none.text).not.toContain('SIM given back')
    expect(none.h1).toBe('5 things are to do before it goes back')
  })
  it('names the mark that stays and when to look for the next patch', async () => {
    const { shown } = await sheet(HandBack, { job: at(), more: proof('H2.104.r4') })
    expect(shown.find('[data-claim="marks"]').text()).toContain('The rollback floor rose')
    expect(shown.find('[data-claim="next"]').text()).toContain('from 2026-12-30')
    const kept = proof('H2.104.r4', { floorRose: false })
    const other = await sheet(HandBack, { job: at(), more: kept })
    expect(other.shown.find('[data-claim="marks"]').text()).toBe('Nothing stays.')
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
