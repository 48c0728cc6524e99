// @vitest-environment jsdom
/** Firmware as a sheet: routes with what each costs and misses, what would open one, the left-out. */
import type { Job } from '@plain-slate/api'
import { USUAL_HOUSE } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { job, stagesAt } from '../testing/job.ts'
import { sheet } from '../testing/sheet.ts'
import Firmware from './Firmware.vue'

const route = (more: object = {}) => ({
  route: 'loader 7 by images > tarn-H2.104.r4 by images',
  way: 'images',
  hands: { low: 240, high: 300 },
  rehearsed: true,
  back: null,
  misses: [],
  package: 'tarn-H2.104.r4',
  title: 'H2.104.r4',
  build: 'H2.104.r4',
  verdict: 'fits',
  findings: [],
  first: [{ kind: 'package' as const, title: 'loader 7' }],
  then: [],
  idle: false,
  time: { low: 1080, high: 1560 },
  fates: [
    {
      item: 'tickets',
      name: 'stored tickets',
      partition: 'customer',
      fate: 'kept',
      why: 'untouched',
    },
  ],
  worst: { leaves: 'dead', seconds: 0.2 },
  wayBack: 'H2.0ZC.r4',
  fails: null,
  ruler: null,
  patchDate: '2026-10-01',
  ...more,
})

describe('Firmware', () => {
  const routes = (list: readonly object[], picked: string | null = null) => ({
    routes: {
      routes: list,
      open: 0,
      limit: false,
      blocked: [],
      cannot: null,
      left: [],
      more: 0,
      version: 3,
      known: 7,
      naming: 6,
      foreign: 0,
      picked,
    },
  })
  const at = (more: Partial<Job> = {}) => job('firmware', { route: null, ...more })

  it('says how many routes keep the data, and takes the best with Enter', async () => {
    const more = routes([route(), route({ route: 'b', package: 'b', build: 'H2.0ZP.r4' })])
    const { h1, text } = await sheet(Firmware, { job: at(), more })
    expect(h1).toBe('2 routes keep the data; the best ends on H2.104.r4')
    expect(text).toContain('Take H2.104.r4')
    expect(text).toContain('1 s, dead')
    expect(text).toContain('18 to 26 min')
  })

  it('shows what reaches the wish, and folds away what does not, unless nothing does', async () => {
    const short = route({ route: 'b', package: 'b', title: 'H2.0ZP.r4', misses: ['release'] })
    const { shown } = await sheet(Firmware, { job: at(), more: routes([route(), short]) })
    const folded = shown.find('details')
    expect(folded.find('summary').text()).toBe('One more route does not reach all that is wished')
    expect(folded.find('[data-route="b"]').exists()).toBe(true)
    expect(shown.findAll('[data-route]')).toHaveLength(2)
    const all = await sheet(Firmware, { job: at(), more: routes([short]) })
    expect(all.h1).toBe('No route reaches all that is wished; the nearest ends on H2.104.r4')
    expect(all.shown.find('details').exists()).toBe(false)
    expect(all.shown.find('[data-route="b"]').exists()).toBe(true)
  })

  it('says first that it cannot go the way that is wished, and what is gravest against what would', async () => {
    const misses = [route({ build: 'H2.0ZP.r4', misses: ['release'] })]
    const { routes: made } = routes(misses)
    const finding = {
      ...{ rule: 'state.floor', verdict: 'does-not-fit', code: 'fit.state.floor.below' },
      ...{ facts: { here: 6, generation: 4 }, marks: [], remedy: null, overruled: 'nobody' },
    }
    const told = async (cannot: object | null, intent: Job['intent'] = 'downgrade') =>
      sheet(Firmware, { job: at({ intent }), more: { routes: { ...made, cannot } } })
    const back = await told({ title: 'H2.0Z4.r4', finding })
    expect(back.h1).toBe('It cannot go back as wished; what is open ends on H2.0ZP.r4')
    expect(back.text).toContain('Nearest to the wish would be H2.0Z4.r4. Generation 4 is below')
    expect((await told({ title: null, finding: null })).text).toContain('No package that is known')
    expect((await told(null)).text).not.toContain('Nearest to the wish')
    expect((await told(null, 'restore')).h1).toContain('No route reaches all that is wished')
  })

  it('takes none of those that were found before something was said or read', async () => {
    const { shown, h1 } = await sheet(Firmware, {
      job: at({ version: 4 }),
      more: routes([route()]),
    })
    expect(h1).toBe('Every way to what is wished is being looked for')
    const take = () => shown.find('[data-route] button')
    expect(take().attributes('disabled')).toBeDefined()
    const fresh = await sheet(Firmware, { job: at({ version: 3 }), more: routes([route()]) })
    expect(fresh.shown.find('[data-route] button').attributes('disabled')).toBeUndefined()
  })

  it('says that it is looking as long as nothing is known, and not that nothing was read', async () => {
    const { h1 } = await sheet(Firmware, { job: at(), more: {} })
    expect(h1).toBe('Every way to what is wished is being looked for')
    const unread = await sheet(Firmware, { job: at({ family: null }), more: {} })
    expect(unread.h1).toBe('We cannot tell yet: read the device first')
  })

  it('never preselects a loss: where the data must survive nothing is taken by itself', async () => {
    const wiping = route({
      fates: [
        {
          item: 'tickets',
          name: 'stored tickets',
          partition: 'customer',
          fate: 'wiped',
          why: 'erased',
        },
      ],
    })
    const { shown } = await sheet(Firmware, { job: at(), more: routes([wiping]) })
    expect(shown.find('.go').exists()).toBe(false)
    const agreed = await sheet(Firmware, { job: at({ keepData: false }), more: routes([wiping]) })
    expect(agreed.shown.find('.go').exists()).toBe(true)
  })

  it('never preselects what does not reach the wish', async () => {
    const short = route({ misses: ['lock'] })
    const { shown } = await sheet(Firmware, { job: at(), more: routes([short]) })
    expect(shown.find('.go').exists()).toBe(false)
    expect(
      (await sheet(Firmware, { job: at(), more: routes([route()]) })).shown.find('.go').exists(),
    ).toBe(true)
  })

  it('says of one that fails in rehearsal where it does, and takes none such with Enter', async () => {
    const fails = { step: 11, why: { code: 'other-table', facts: {} } }
    const failing = await sheet(Firmware, { job: at(), more: routes([route({ fails })]) })
    expect(failing.text).toContain('It fails in rehearsal at step 11: its partition table')
    expect(failing.shown.find('.go').exists()).toBe(false)
    expect((await sheet(Firmware, { job: at(), more: routes([route()]) })).text).not.toContain(
      'fails in rehearsal',
    )
  })

  it('takes none with Enter before its rehearsal is done, and says that it is under way', async () => {
    const early = route({ rehearsed: false, worst: null })
    const { shown, text } = await sheet(Firmware, { job: at(), more: routes([early]) })
    expect(text).toContain('is being rehearsed')
    expect(text).toContain('Take H2.104.r4, once it is rehearsed')
    expect(shown.find('.go button').attributes('disabled')).toBeDefined()
  })

  it('says beside a route how it goes on, what it misses, and what leads back from its end', async () => {
    const back = { titles: ['H2.0ZC.r4'], data: 'unreadable', fetch: true }
    const other = route({ way: 'card', misses: ['release', 'patch-date'], back })
    const { text } = await sheet(Firmware, { job: at(), more: routes([other]) })
    expect(text).toContain('installed by its rescue from the card')
    expect(text).toContain('not all that is wished: its build is not what is wanted')
    expect(text).toContain('way back from its end: H2.0ZC.r4, to be fetched')
    const closed = await sheet(Firmware, { job: at(), more: routes([route()]) })
    expect(closed.text).toContain('the way back, H2.0ZC.r4, closes on the way')
    const none = await sheet(Firmware, { job: at(), more: routes([route({ wayBack: null })]) })
    expect(none.text).toContain('no way back to what stands on it now')
  })

  it('says what is done without a package, before and after, and what opens a way to the whole wish', async () => {
    const open = { kind: 'act' as const, act: 'open' as const }
    const close = { kind: 'act' as const, act: 'close' as const }
    const turned = route({ first: [open], then: [close], misses: ['lock'] })
    const { text } = await sheet(Firmware, { job: at(), more: routes([turned]) })
    expect(text).toContain('its boot lock is opened, then H2.104.r4')
    expect(text).toContain('by parts over the cable, then its boot lock is closed')
    expect(text).not.toContain('What would open a way')
    const idle = await sheet(Firmware, { job: at(), more: routes([route({ idle: true })]) })
    expect(idle.text).toContain('is on it already')
    expect(text).not.toContain('is on it already')
    const blocked = [{ package: 'p', title: 'p', first: [], then: [close], obstacles: [] }]
    const wish = { routes: { ...routes([turned]).routes, blocked } }
    expect((await sheet(Firmware, { job: at(), more: wish })).text).toContain(
      'What would open a way to all that is wished',
    )
  })

  it('says what would open a way where none is open, and that it gave up where it did', async () => {
    const finding = {
      rule: 'identity.board',
      verdict: 'cannot-tell',
      code: 'fit.cannot-tell',
      facts: { facts: 'board' },
      marks: [],
      remedy: { kind: 'read', facts: ['board'] },
      overruled: 'nobody',
    }
    const blocked = [
      {
        package: 'p',
        title: 'H2.104.r4',
        first: [{ kind: 'package' as const, title: 'loader 7' }],
        then: [],
        obstacles: [{ package: 'p', title: 'H2.104.r4', finding }],
      },
    ]
    const shut = { routes: { ...routes([]).routes, blocked } }
    const { text } = await sheet(Firmware, { job: at(), more: shut })
    expect(text).toContain('What would open a way')
    expect(text).toContain('One thing stands in the way of H2.104.r4.')
    const walled = await sheet(Firmware, { job: at(), more: routes([]) })
    expect(walled.text).toContain('nobody’s word would open a way')
    const tired = { routes: { ...routes([route()]).routes, limit: true } }
    expect((await sheet(Firmware, { job: at(), more: tired })).text).toContain(
      'gave up at its limit',
    )
  })

  it('says where the slip departs from its house, by whom and why, and no more once the house says the same', async () => {
    const told = {
      topic: 'depart.writes',
      answer: 'all',
      note: 'it was tried elsewhere',
      by: 'Tavi Renn',
      at: '2026-10-15T14:00:00.000Z',
    }
    const lines = [told] as unknown as Job['lines']
    const house = (rules: object) => ({ house: { version: 1, rules, history: [] } })
    const more = routes([route()])
    const { text } = await sheet(Firmware, {
      job: at({ lines }),
      more: { ...more, ...house(USUAL_HOUSE) },
    })
    expect(text).toContain('On this slip otherwise than the house: which parts are written')
    expect(text).toContain('Everything that its maker writes')
    expect(text).toContain('Tavi Renn: it was tried elsewhere')
    const same = house({ ...USUAL_HOUSE, writes: 'all' })
    const agreed = await sheet(Firmware, { job: at({ lines }), more: { ...more, ...same } })
    expect(agreed.text).not.toContain('otherwise than the house')
  })

  it('tells a part that goes along from a variant part, which does not', async () => {
    const left = (kind: string, verdict = 'fits') => {
      const one = { package: 'p', title: 'a part', build: 'b', verdict, reason: null, kind }
      const more = routes([route()]).routes
      return sheet(Firmware, {
        job: at(),
        more: { routes: { ...more, left: [{ ...one, none: null }] } },
      })
    }
    expect((await left('part')).text).toContain('goes along by itself')
    expect((await left('variant')).text).toContain('where another carrier is wanted')
    const out = (await left('variant', 'does-not-fit')).text
    expect(out).not.toContain('where another carrier is wanted')
  })

  it('says how far the wanted build is from the one that is on it, and why two have no order', async () => {
    const far = { segment: 'week', n: 7, unit: 'week', here: '2634', there: '2641' }
    const at2 = async (ruler: object) =>
      (await sheet(Firmware, { job: at(), more: routes([route({ ruler })]) })).text
    expect(await at2({ parts: [], order: 'newer', far })).toContain('newer by 7 weeks')
    expect(await at2({ parts: [], order: 'older', far: { ...far, n: 1 } })).toContain(
      'older by a week',
    )
    const count = { ...far, segment: 'respin', unit: 'count', n: 2 }
    expect(await at2({ parts: [], order: 'newer', far: count })).toContain('newer by 2 in respin')
    const apart = { ...far, segment: 'board', unit: 'none', n: 0, here: 'r4', there: 'r5' }
    expect(await at2({ parts: [], order: 'incomparable', far: apart })).toContain(
      'no order: board r5 is not board r4',
    )
  })

  it('says how far the picked one is, and where there is none that nothing fits', async () => {
    const picked = routes([route()], route().route)
    const stands = job('firmware', { stages: stagesAt('proof') })
    expect((await sheet(Firmware, { job: stands, more: picked })).h1).toBe(
      'H2.104.r4 is 2 packages away, and the data are kept',
    )
    expect((await sheet(Firmware, { job: at(), more: routes([]) })).h1).toBe(
      'Nothing on the shelf fits it',
    )
  })
})
