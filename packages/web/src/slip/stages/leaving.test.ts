// @vitest-environment jsdom
/** Readings: what comes before it leaves its running system, how it is said, and what waits for it. */
import type { Job, LeaveShown } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { fact, job } from '../testing/job.ts'
import { SHOP, posted, sheet } from '../testing/sheet.ts'
import Readings from './Readings.vue'

type Item = LeaveShown['items'][number]
const item = (more: Partial<Item>): Item => ({
  item: 'backup',
  topic: 'ready.backup',
  answers: ['opens', 'not-wanted'],
  answer: null,
  holds: false,
  facts: {},
  by: null,
  at: null,
  ...more,
})
const leave = (more: Partial<LeaveShown> = {}): LeaveShown => ({
  mode: 'normal mode',
  items: [
    item({ item: 'tally', topic: null, answers: [] }),
    item({}),
    item({ item: 'charge', topic: null, answers: [], facts: { here: 12, needed: 20 } }),
  ],
  open: 3,
  waived: null,
  ...more,
})
const NEXT = {
  fact: 'board',
  source: 'link',
  where: 'asked',
  mode: { id: 'loader', name: 'the loader', kind: 'writing' },
  seconds: 30,
  legs: 1,
  byCommand: true,
  left: 14,
  gain: 7,
  most: 9,
  least: 3,
  tells: 0,
  along: [],
} as const
const readings = (first: LeaveShown | null, role?: 'trainee') =>
  sheet(Readings, {
    job: job('readings', {
      facts: [fact('board', { kind: 'missing', value: null })],
      next: [{ ...NEXT, along: [...NEXT.along] }] as Job['next'],
      leave: first,
    }),
    ...(role === undefined ? {} : { role }),
  })
const says = async (first: LeaveShown | null) =>
  (await readings(first)).shown.find('[data-claim="leave"]')

describe('before it leaves its system', () => {
  it('says what is open, and each figure as it was read', async () => {
    const { text } = await readings(leave())
    expect(text).toContain('Before it leaves normal mode')
    expect(text).toContain('3 things hold up every way out of there')
    expect(text).toContain('12 %, and 20 % are needed')
    expect(text).toContain('read it over the link here first; elsewhere it counts nothing')
    const none = leave({ open: 0, items: [item({ holds: true, answer: 'opens' })] })
    expect((await says(none)).text()).toContain('nothing holds it there')
    expect((await says(null)).exists()).toBe(false)
  })

  it('says what is lost with the screen lock, of what is on it', async () => {
    const off = (dies: string) =>
      says(leave({ items: [item({ item: 'accounts', topic: 'ready.accounts', facts: { dies } })] }))
    expect((await off('cards, passkeys')).text()).toContain(
      'With the screen lock these are lost for good: Payment cards, Passkeys.',
    )
    expect((await off('')).text()).not.toContain('lost for good')
  })

  it('says how its link permission is given, step by step', async () => {
    const permission = item({ item: 'permission', topic: 'ready.permission', answers: ['done'] })
    const { family } = job('readings')
    const at = (steps: readonly string[]) =>
      sheet(Readings, {
        job: job('readings', {
          leave: leave({ items: [permission], open: 1 }),
          family: family === null ? null : { ...family, permissionSteps: [...steps] },
        }),
      })
    expect((await at(['open its settings', 'turn it on'])).text).toContain(
      '1. open its settings. 2. turn it on.',
    )
    expect((await at(['turn it on'])).text).not.toContain('2.')
  })

  it('goes before what Enter would do out of there', async () => {
    const main = async (first: LeaveShown | null) =>
      (await readings(first)).shown.find('[data-claim="next"] button').text()
    expect(await main(leave())).toBe('First, before it leaves normal mode: 3 thingsEnter')
    expect(await main(leave({ open: 0 }))).toBe('Into the loader and back, for boardEnter')
    expect(await main(null)).toBe('Into the loader and back, for boardEnter')
  })

  it('is answered in its place, or left for a reason by who may', async () => {
    const { shown, asked } = await readings(leave())
    await shown.find('[data-topic="ready.backup"] .sign').trigger('click')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'ready.backup', answer: 'opens' }],
    })
    expect(shown.text()).toContain('It leaves without that')
    expect((await readings(leave(), 'trainee')).text).not.toContain('It leaves without that')
    const waived = { by: 'Ilse Maro', at: SHOP.now, note: 'its screen is dark' }
    const left = await readings(leave({ open: 0, waived }))
    expect(left.text).toContain('Ilse Maro let it leave without what is open')
    expect(left.text).toContain('its screen is dark')
  })
})
