// @vitest-environment jsdom
/** The maker's permit as its paper says it: put down whole or not at all, and shown as it was put down. */
import type { Job } from '@plain-slate/api'
import { PERMIT_TOPIC, permitText } from '@plain-slate/core'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
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

async function form(more: Partial<Job> = {}) {
  const answer = (path: string): object =>
    path.endsWith('/0417') ? slip() : job('firmware', { intent: 'service', ...more })
  const made = await mounted(PermitForm, {}, { at: '/slips/0417/firmware', answer })
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
  it('is put down with its number, its device and its day', async () => {
    const { types, text } = await form()
    expect(text()).toContain('None was put down.')
    const sent = await types(PERMIT.id, ` ${PERMIT.device} `, PERMIT.until)
    const [said] = sent as { lines: { topic: string; answer: string }[] }[]
    expect(said?.lines).toMatchObject([{ topic: PERMIT_TOPIC, answer: permitText(PERMIT) }])
  })

  it('is put down by nobody where its day is none, and says so', async () => {
    const { types, shown } = await form()
    expect(await types(PERMIT.id, PERMIT.device, 'in November')).toEqual([])
    expect(shown.find('.amiss').exists()).toBe(true)
  })

  it('is shown as it was put down', async () => {
    const shown = async (until: string) =>
      (await form({ lines: [line(PERMIT_TOPIC, permitText({ ...PERMIT, until }))] })).text()
    expect(await shown('2026-11-30')).toContain('PM-2610-0413, for 7A31C0, until 2026-11-30')
    expect(await shown('2026-12-24')).toContain('until 2026-12-24')
  })
})
