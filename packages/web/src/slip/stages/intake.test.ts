// @vitest-environment jsdom
/** What Intake asks and says moves with what was said, and nothing is said twice. */
import type { Job, LineShown, TopicShown } from '@plain-slate/api'
import { FUNCTIONS } from '@plain-slate/core'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { job, line, slip, stagesAt } from '../testing/job.ts'
import { posted, sheet } from '../testing/sheet.ts'
import Intake from './Intake.vue'

describe('Intake', () => {
  it('counts what is still to ask, and calls the device by its name', async () => {
    const at = job('intake', { stages: stagesAt('intake', { n: 19 }) })
    expect((await sheet(Intake, { job: at })).h1).toBe('Brakken H2K: 19 things are still to ask')
    const other = await sheet(Intake, { job: at, slip: slip({ device: 'Fen 8' }) })
    expect(other.h1).toContain('Fen 8')
  })

  it.each([
    ['cell', 'Stopped: the cell is damaged', 'follow local rules for damaged lithium cells'],
    ['account', 'Declined: nobody can open its account lock', 'We take no lock off'],
    ['wet', 'Not yet: it is wet', 'A wet port is not charged'],
    ['proof', 'Not yet: that it is theirs was not shown', 'local law'],
  ])('is halted with its caution: %s', async (halt, h1, caution) => {
    const stages = stagesAt('intake', {}, 'halted').map((one) =>
      one.stage === 'intake' ? { ...one, says: `intake.${halt}` } : one,
    )
    const shown = await sheet(Intake, { job: job('intake', { stages }) })
    expect(shown.h1).toBe(h1)
    expect(shown.shown.find('[role="alert"]').text()).toContain(caution)
  })

  it('says seven at once and only once, and runs over nothing that was said otherwise', async () => {
    const press = async (...lines: readonly LineShown[]) => {
      const { shown, asked } = await sheet(Intake, { job: job('intake', { lines: [...lines] }) })
      const all = shown.findAll('button').find((one) => one.text() === 'All seven work')
      await all?.trigger('click')
      await flushPromises()
      return { there: all !== undefined, posted: posted(asked, '/lines') }
    }
    const works = FUNCTIONS.map((one) => line(`function.${one}`, 'works'))
    expect((await press()).posted).toHaveLength(1)
    expect((await press(...works.slice(1))).posted).toHaveLength(1)
    expect(await press(...works)).toEqual({ there: true, posted: [] })
    expect((await press(line('function.sound', 'fails'))).there).toBe(false)
  })

  it('presses the answer that stands, with who said it, and puts down another', async () => {
    const at = job('intake', { lines: [line('owner.account', 'absent', { by: 'Tavi Renn' })] })
    const { shown, asked } = await sheet(Intake, { job: at })
    const account = shown.find('[data-topic="owner.account"]')
    expect(account.find('[aria-pressed="true"]').text()).toBe('there is none')
    expect(account.text()).toContain('Tavi Renn')
    await account.findAll('button')[2]?.trigger('click')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toEqual({
      lines: [{ topic: 'owner.account', answer: 'nobody', note: '' }],
    })
  })

  const topic = (more: Partial<TopicShown>): TopicShown => ({
    topic: 'survive.photos',
    stage: 'intake',
    group: 'survive',
    answers: ['must', 'may-go', 'not-there'],
    name: null,
    needed: true,
    fate: null,
    say: [],
    ...more,
  })
  const asks = (more: Partial<TopicShown>, plan: Job['plan'] = null) =>
    sheet(Intake, { job: job('intake', { topics: [topic(more)], plan }) })

  it('says beside a thing what becomes of it, as far as anything says so', async () => {
    const plan = { at: '2026-10-15T14:22:00.000Z', by: 'Ilse', title: 'x', stale: false }
    expect((await asks({})).text).not.toContain('in the plan')
    expect((await asks({ fate: 'wiped' }, plan)).text).toContain('in the plan: wiped')
    expect((await asks({ fate: 'unpromised' })).text).toContain('it cannot be promised')
    expect((await asks({ fate: 'unpromised' }, plan)).text).toContain(
      'in the plan: cannot be promised',
    )
  })

  it('offers what is lighter only where something is, and says how hands do it', async () => {
    const restart = { topic: 'lighter.restart', group: 'lighter', answers: ['cured', 'no-cure'] }
    const { text } = await asks({ ...restart, say: ['The battery out, ten seconds.'] })
    expect(text).toContain('Something lighter first')
    expect(text).toContain('The battery out, ten seconds.')
    expect((await asks({})).text).not.toContain('Something lighter first')
  })

  it('stands at the question that an address leads to, and at none otherwise', async () => {
    const stands = async (hash: string) => {
      const at = job('intake', { topics: [topic({}), topic({ topic: 'survive.apps' })] })
      const focus = vi.spyOn(HTMLElement.prototype, 'focus')
      const { shown } = await sheet(Intake, { job: at, hash })
      const row = shown.find('[data-topic="survive.apps"]').element
      const stood = focus.mock.contexts.at(-1)
      focus.mockRestore()
      return stood instanceof HTMLElement && row.contains(stood)
    }
    expect(await stands('#ask-survive.apps')).toBe(true)
    expect(await stands('#ask-survive.photos')).toBe(false)
    expect(await stands('')).toBe(false)
  })

  it('keeps what was tried before as a note, and a build id in it as a reading', async () => {
    const tried = job('intake', {
      topics: [
        topic({ topic: 'history.before', group: 'history', answers: ['untouched', 'tried'] }),
      ],
      lines: [line('history.before', 'tried')],
    })
    const put = async (file: string) => {
      const { shown, asked } = await sheet(Intake, { job: tried })
      const fields = shown.findAllComponents({ name: 'VTextField' })
      for (const [index, text] of [
        'a clean write',
        'a friend',
        file,
        'at the first picture',
      ].entries())
        fields[index]?.vm.$emit('update:modelValue', text)
      await flushPromises()
      await shown.find('form').trigger('submit')
      await flushPromises()
      return asked
    }
    const asked = await put('H2.104.r4')
    expect(posted(asked, '/lines')[0]?.body).toEqual({
      lines: [
        {
          topic: 'history.before',
          answer: 'tried',
          note: 'What was tried: a clean write\nBy whom: a friend\nWith which file or build: H2.104.r4\nWhere it stopped: at the first picture',
        },
      ],
    })
    expect(posted(asked, '/readings')[0]?.body).toEqual({
      fact: 'build',
      value: 'H2.104.r4',
      source: 'person',
    })
    expect(posted(await put('some file of theirs'), '/readings')).toEqual([])
  })
})

describe('a build that is wanted', () => {
  it('is named by its id, and the field is empty again', async () => {
    const { shown, asked } = await sheet(Intake, { job: job('intake') })
    const form = shown.findAll('form').find((one) => one.text().includes('Name it'))
    const field = shown
      .findAllComponents({ name: 'VTextField' })
      .find((one) => one.attributes('label') === 'Another build, by its id')
    field?.vm.$emit('update:modelValue', ' 20-2640.1-HO ')
    await flushPromises()
    await form?.trigger('submit')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toEqual({
      lines: [{ topic: 'want.build', answer: '20-2640.1-HO', note: '' }],
    })
    expect(field?.attributes('modelvalue')).toBe('')
  })
})
