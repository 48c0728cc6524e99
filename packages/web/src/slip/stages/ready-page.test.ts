// @vitest-environment jsdom
/** What Ready says moves with what the server tells; what is signed there can be taken back there. */
import type { Ready } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { job, stagesAt } from '../testing/job.ts'
import { SHOP, posted, sheet } from '../testing/sheet.ts'
import ReadySheet from './Ready.vue'

describe('Ready', () => {
  const ready = (holds: boolean, signed: boolean, seen = true): { ready: Ready } => ({
    ready: {
      ways: [],
      checks: [
        { check: 'battery', holds, seen, facts: { here: 24, needed: 44, alone: 44, floor: 0 } },
        { check: 'mode', holds: true, seen: true, facts: { mode: 'normal mode', drain: 0.2 } },
      ],
      signed: [
        {
          topic: 'ready.cable',
          answers: ['done'],
          answer: signed ? 'done' : null,
          signed,
          ended: null,
          facts: {},
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
    const short = '24 %, needs 44 %: the plan itself 44 %, the floor of this house'
    expect(text).toContain(`${short} none. Charge it while it runs or is off`)
    expect(text).toContain('normal mode')
    const floored = ready(false, false)
    const [battery] = floored.ready.checks
    if (battery !== undefined) battery.facts = { here: 24, needed: 60, alone: 44, floor: 60 }
    expect((await sheet(ReadySheet, { job: at, more: floored })).text).toContain(
      '24 %, needs 60 %: the plan itself 44 %, the floor of this house 60 %',
    )
    const away = await sheet(ReadySheet, { job: at, more: ready(false, false, false) })
    expect(away.text).toContain('not seen; it needs 44 %')
    expect(away.text).not.toContain('24 %')
  })
  it('asks one by one for what has two answers, and "no" is no signature', async () => {
    const backup = (answer: string | null) => ({
      ready: {
        ways: [],
        checks: [],
        signed: [
          {
            topic: 'ready.backup',
            answers: ['opens', 'not-wanted'],
            answer,
            signed: answer !== null,
            ended: null,
            facts: {},
            by: null,
            at: null,
          },
          {
            topic: 'fate.wiped',
            answers: ['yes', 'no'],
            answer: 'no',
            signed: false,
            ended: null,
            facts: {},
            by: 'Ilse Maro',
            at: SHOP.now,
          },
        ],
      },
    })
    const { shown, asked, text } = await sheet(ReadySheet, { job: at, more: backup(null) })
    const buttons = shown.findAll('[data-topic="ready.backup"] .sign')
    expect(buttons.map((one) => one.text())).toEqual(['made, and it opens', 'the owner wants none'])
    await buttons[1]?.trigger('click')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'ready.backup', answer: 'not-wanted' }],
    })
    expect(text).toContain('not agreed')
    const signed = await sheet(ReadySheet, { job: at, more: backup('not-wanted') })
    expect(signed.shown.find('[data-topic="ready.backup"] .word').text()).toBe(
      'the owner wants none',
    )
  })
  it('takes a signature under one’s name, and shows whose stands', async () => {
    const { shown, asked } = await sheet(ReadySheet, { job: at, more: ready(true, false) })
    await shown.find('.sign').trigger('click')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'ready.cable', answer: 'done' }],
    })
    const signed = await sheet(ReadySheet, { job: at, more: ready(true, true) })
    expect(signed.shown.findAll('li .act').map((one) => one.text())).toEqual(['Take back'])
    expect(signed.text).toContain('Ilse Maro, today 14:22')
  })

  it('takes a word back, and an agreement with a no', async () => {
    const wiped = {
      ...{ topic: 'fate.wiped', answers: ['yes', 'no'], answer: 'yes', signed: true },
      ...{ ended: null, facts: {}, by: 'Ilse Maro', at: SHOP.now },
    }
    const more = ready(true, true)
    more.ready.signed.push(wiped)
    const { shown, asked } = await sheet(ReadySheet, { job: at, more })
    for (const button of shown.findAll('li .act')) await button.trigger('click')
    await flushPromises()
    const lines = posted(asked, '/lines').flatMap(({ body }) => (body as { lines: object[] }).lines)
    expect(lines).toMatchObject([
      { topic: 'ready.cable', answer: 'taken-back' },
      { topic: 'fate.wiped', answer: 'no' },
    ])
    /* Once a run has begun only what holds it can be: an agreement. */
    const began = { ...at, run: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0009' }
    const under = await sheet(ReadySheet, { job: began, more })
    expect(under.shown.findAll('li .act').map((one) => one.text())).toEqual(['No longer agreed'])
    const trainee = await sheet(ReadySheet, { job: { ...at }, more, role: 'trainee' })
    expect(trainee.shown.findAll('li .act').length).toBe(2)
  })

  it('shows whose word ended, and why', async () => {
    const ended = (why: Ready['signed'][number]['ended']) => {
      const more = ready(true, false)
      const [row] = more.ready.signed
      if (row !== undefined) Object.assign(row, { ended: why, by: 'Ilse Maro', at: SHOP.now })
      return sheet(ReadySheet, { job: at, more }).then(({ text }) => text)
    }
    expect(await ended('against')).toContain(
      'Ilse Maro, today 14:22. No longer holds: something was said against the work since',
    )
    expect(await ended('old')).toContain('that was too long ago')
    expect(await ended(null)).not.toContain('No longer holds')
  })
})
