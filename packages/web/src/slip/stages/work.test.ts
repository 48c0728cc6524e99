// @vitest-environment jsdom
/** What the sheets of Compare, Plan and Write say moves with what the server tells, and stays with what it does not rest on. */
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { job, plan, planPage, stagesAt } from '../testing/job.ts'
import type { Says } from '../testing/sheet.ts'
import { SHOP, posted, sheet } from '../testing/sheet.ts'
import Compare from './Compare.vue'
import Plan from './Plan.vue'
import Write from './Write.vue'

const taken = (changes: readonly object[] | null) => ({
  at: SHOP.now,
  by: 'Ilse Maro',
  package: 'tarn-H2.104.r4',
  digest: 'd'.repeat(64),
  shown: plan(),
  changes,
  decided: null,
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
  it('tells what is odd about the device’s own table', async () => {
    const odd = async (one: object) => {
      const more = planPage(plan(), { odd: [{ names: [], what: '', ...one }] })
      return (await sheet(Compare, { job: job('plan'), more })).shown.find('[data-odd]').text()
    }
    expect(await odd({ kind: 'overlap', names: ['main', 'customer'] })).toBe(
      'main, customer lie over each other',
    )
    expect(await odd({ kind: 'primary-broken' })).toContain('its backup was used')
    expect(await odd({ kind: 'copies-differ', what: 'diskId' })).toContain('their disk id')
    const fine = await sheet(Compare, { job: job('plan'), more: planPage(plan()) })
    expect(fine.shown.find('[data-odd]').exists()).toBe(false)
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
  it('says why its steps stand in their order, and nothing where nothing is to be said', async () => {
    const facts = { first: 'loader 7', title: 'H2.104.r4', least: 7 }
    const order = [
      { code: 'loader-first' as const, facts },
      { code: 'parts' as const, facts: { roles: 'modem, main' } },
    ]
    const { text } = await sheet(Plan, { job: job('plan'), more: planPage(plan({ order })) })
    expect(text).toContain(
      'loader 7 goes on before H2.104.r4, which starts under loader 7 or newer',
    )
    expect(text).toContain('Parts go on as its family orders them: modem, main.')
    const none = await sheet(Plan, { job: job('plan'), more: planPage(plan()) })
    expect(none.text).not.toContain('Why in this order')
  })
  it('says how the rehearsal ended', async () => {
    const ends = {
      build: 'H2.104.r4',
      outcome: 'loop',
      data: 'unreadable',
      lock: 'open',
      shows: null,
    } as const
    const { text } = await sheet(Plan, { job: job('plan'), more: planPage(plan({ ends })) })
    expect(text).toContain('restarts over and over, data there and unreadable, lock open')
  })
  it('says what its screen would show, and what was assumed of it', async () => {
    const ends = { ...plan().ends, shows: 'not signed' }
    const assumed = { parts: ['calib'], facts: { floor: 0 } }
    const { text } = await sheet(Plan, {
      job: job('plan'),
      more: planPage(plan({ ends, assumed })),
    })
    expect(text).toContain('Its screen says: “not signed”.')
    expect(text).toContain('assumed: what stands on calib; rollback floor 0.')
    const { text: known } = await sheet(Plan, { job: job('plan'), more: planPage(plan()) })
    expect(known).not.toContain('assumed')
    expect(known).not.toContain('Its screen says')
  })
  it('that fails in rehearsal says where, and cannot be taken', async () => {
    const fails = { step: 7, why: { code: 'refused', facts: { code: 'floor' } } }
    const { text } = await sheet(Plan, {
      job: job('plan'),
      more: planPage(plan({ reaches: false, fails })),
    })
    expect(text).toContain('It fails in rehearsal at step 7:')
    expect(text).not.toContain('Take this plan')
    const { text: well } = await sheet(Plan, { job: job('plan'), more: planPage(plan()) })
    expect(well).toContain('Take this plan')
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

describe('what a plan was decided with', () => {
  const decided = {
    decision: 'e'.repeat(64),
    family: { id: 'tarn', version: 3 },
    packages: 31,
    readings: 14,
    was: 'd'.repeat(64),
    now: 'd'.repeat(64),
    same: true,
  }
  const says = async (of: object | null) => {
    const more = planPage(plan(), { taken: { ...taken(null), decided: of } })
    const { shown } = await sheet(Plan, { job: job('plan'), more })
    const said = shown.find('[data-claim="decided"]')
    return said.exists() ? said.text() : ''
  }

  it('is told, and whether the same comes of it again', async () => {
    expect(await says(decided)).toContain('tarn 3, 14 readings and 31 packages')
    expect(await says(decided)).toContain('the same plan, byte by byte (dddddddd)')
    expect(await says({ ...decided, now: 'c'.repeat(64), same: false })).toContain('now cccccccc')
    expect(await says({ ...decided, now: null, same: false })).toContain('no plan any more')
    expect(await says(null)).toBe('')
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
        fate: 'wiped' as const,
        why: 'erased' as const,
      },
    ]
    const more = planPage(plan(), { taken: { ...taken(null), shown: plan({ fates }) } })
    expect((await sheet(Write, { job: at, more })).shown.find('dl .wide').text()).toContain(
      'stored tickets',
    )
  })
})
