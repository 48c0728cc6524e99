// @vitest-environment jsdom
/** What is due later, on the page: put down with the day that is suggested or another, done, or not needed. */
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import { job, slip } from '../testing/job.ts'
import { posted } from '../testing/sheet.ts'
import Dues from './Dues.vue'

const at = '/slips/0417/hand-back'
const answer = (path: string) => (path.endsWith('0417') ? slip() : job('hand-back'))
const shown = (dues: object, more: object = {}) => mounted(Dues, { dues, ...more }, { at, answer })
const asked = { standing: [], asked: [{ what: 'updates', on: '2026-11-14' }] }

describe('what is due later', () => {
  it('is put down with the day that is suggested, or another', async () => {
    const { shown: page, asked: sent } = await shown(asked)
    const row = page.find('[data-due="updates"]')
    expect(row.text()).toContain('no patch of its maker reaches it')
    await row.findAll('button')[0]?.trigger('click')
    page.findComponent({ name: 'VTextField' }).vm.$emit('update:modelValue', '2026-12-01')
    await flushPromises()
    await row.findAll('button')[0]?.trigger('click')
    await flushPromises()
    const answers = posted(sent, '/lines').map(({ body }) => JSON.stringify(body))
    expect(answers[0]).toContain('"answer":"2026-11-14"')
    expect(answers[1]).toContain('"answer":"2026-12-01"')
  })

  it('waits for a day that only people know, and can be refused', async () => {
    const { shown: page, asked: sent } = await shown({
      standing: [],
      asked: [{ what: 'permit', on: null }],
    })
    const [put, none] = page.findAll('button')
    expect(put?.attributes('disabled')).toBeDefined()
    await none?.trigger('click')
    await flushPromises()
    expect(posted(sent, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'due.permit', answer: 'not-needed' }],
    })
  })

  it('stands with its day until it is done, and is not there where nothing is due', async () => {
    const { shown: page, asked: sent } = await shown({
      standing: [{ what: 'patch', on: '2026-12-30' }],
      asked: [],
    })
    expect(page.text()).toContain('2026-12-30')
    await page.find('button').trigger('click')
    await flushPromises()
    expect(posted(sent, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'due.patch', answer: 'done' }],
    })
    expect((await shown({ standing: [], asked: [] })).shown.find('section').exists()).toBe(false)
    const lock = await shown(asked, { only: ['lock'] })
    expect(lock.shown.find('section').exists()).toBe(false)
  })
})
