// @vitest-environment jsdom
/** The maker's permit as its paper says it: put down whole or not at all, and shown as it was put down. */
import type { Job } from '@plain-slate/api'
import type { Role } from '@plain-slate/core'
import { PERMIT_TOPIC, permitText } from '@plain-slate/core'
import { flushPromises } from '@vue/test-utils'
import { File } from 'node:buffer'
import { describe, expect, it, vi } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import { job, line, slip } from '../testing/job.ts'
import { posted } from '../testing/sheet.ts'
import PermitForm from './PermitForm.vue'

const PERMIT = {
  id: 'PM-2610-0413',
  device: '7A31C0',
  scope: 'service',
  until: '2026-11-30',
} as const

const brought = (more: Partial<NonNullable<Job['permit']>> = {}): Job['permit'] => ({
  ...PERMIT,
  signed: null,
  ...more,
})

async function form(more: Partial<Job> = {}, role: Role = 'lead') {
  const answer = (path: string): object =>
    path.endsWith('/0417') ? slip() : job('firmware', { intent: 'service', ...more })
  const made = await mounted(PermitForm, {}, { at: '/slips/0417/firmware', answer, role })
  await flushPromises()
  const { shown } = made
  const opens = shown.findAll('button')[0]
  const types = async (...values: readonly string[]) => {
    await opens?.trigger('click')
    const fields = shown.findAllComponents({ name: 'VTextField' })
    values.forEach((value, at) => fields[at]?.vm.$emit('update:modelValue', value))
    await flushPromises()
    await shown.find('form').trigger('submit')
    await flushPromises()
    return posted(made.asked, '/lines').map(({ body }) => body)
  }
  return { ...made, types, text: () => shown.text() }
}

describe('a permit', () => {
  it('is put down by a lead with its number, its device and its day', async () => {
    const { types, text } = await form()
    expect(text()).toContain('None was put down.')
    const sent = await types(PERMIT.id, ` ${PERMIT.device} `, PERMIT.until)
    const [said] = sent as { lines: { topic: string; answer: string }[] }[]
    expect(said?.lines).toMatchObject([{ topic: PERMIT_TOPIC, answer: permitText(PERMIT) }])
  })

  it('is typed by nobody else, who is told that a lead may', async () => {
    const { shown: page, text } = await form({}, 'technician')
    expect(page.findAll('button')).toEqual([])
    expect(text()).toContain('A lead types it')
    expect(page.find('input[type="file"]').exists()).toBe(true)
  })

  it('is put down by nobody where its day is none, and says so', async () => {
    const { types, shown: page } = await form()
    expect(await types(PERMIT.id, PERMIT.device, 'in November')).toEqual([])
    expect(page.find('.amiss').exists()).toBe(true)
  })

  it('goes to the server as the file that its maker sent', async () => {
    const { shown: page, asked } = await form({}, 'technician')
    page.findComponent({ name: 'FileField' }).vm.$emit('chosen', new File(['{"a":1}'], 'p.json'))
    await vi.waitFor(() => expect(posted(asked, '/permit')).toHaveLength(1))
    expect(posted(asked, '/permit')[0]?.body).toEqual({ text: '{"a":1}' })
  })

  it('is shown as it was put down, with who signed it or that nobody did', async () => {
    const says = async (permit: Job['permit']) => (await form({ permit })).text()
    expect(await says(brought())).toContain('PM-2610-0413, for 7A31C0, until 2026-11-30')
    expect(await says(brought({ until: '2026-12-24' }))).toContain('until 2026-12-24')
    expect(await says(brought())).toContain('A lead’s word')
    const signed = {
      maker: 'Corvane',
      key: 'corvane',
      from: '2026-10-01',
      packages: ['one', 'two'],
    }
    const told = await says(brought({ signed }))
    expect(told).toContain(
      'Signed by Corvane (key corvane), for one, two. Its first day is 2026-10-01',
    )
    expect(told).toContain('for one, two')
    expect(told).not.toContain('A lead’s word')
  })

  it('whose file no trusted key signed any more is said to be that', async () => {
    const lines = [line(PERMIT_TOPIC, permitText(PERMIT, 'd'.repeat(64)))]
    expect((await form({ lines, permit: null })).text()).toContain('no key of the trust store')
  })
})
