// @vitest-environment jsdom
/** Escape, held, stops a run: it is heard at once, and what was not done says why. */
import type { RunShown } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { HOLD_MS } from '../../keys/hold.ts'
import { mounted } from '../../testing/mounted.ts'
import { job, run } from '../testing/job.ts'
import RunLive from './RunLive.vue'

const live = (more: Partial<RunShown> = {}) =>
  mounted(RunLive, { run: run(more), job: job('write') }, { at: '/slips/0417/write' })

describe('the held key', () => {
  const press = (kind: 'keydown' | 'keyup', repeat = false) =>
    window.dispatchEvent(new KeyboardEvent(kind, { key: 'Escape', repeat }))
  const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
  const stops = (asked: readonly { path: string }[]) =>
    asked.filter(({ path }) => path.endsWith('/stop')).length

  it('stops a run once when it was held to the end, and never when it was let go early', async () => {
    const { asked } = await live()
    press('keydown')
    await wait(HOLD_MS / 5)
    press('keyup')
    press('keydown')
    press('keydown', true)
    await wait(HOLD_MS / 2)
    expect(stops(asked)).toBe(0)
    await wait(HOLD_MS)
    expect(stops(asked)).toBe(1)
    press('keyup')
  })

  it('is heard at once, however long the answer takes, and says why it was not done', async () => {
    let answer: (response: Response) => void = () => undefined
    const { shown } = await live()
    const given = globalThis.fetch
    globalThis.fetch = (input, init) =>
      typeof input === 'string' && input.endsWith('/stop')
        ? new Promise((resolve) => (answer = resolve))
        : given(input, init)
    press('keydown')
    await nextTick()
    expect(shown.text()).toContain('keep it down, and the run stops')
    await wait(HOLD_MS + 50)
    expect(shown.text()).toContain('Asking it to stop …')
    const body = { code: 'run.over', sentence: 'It is over.', kept: 'Nothing.', remedy: 'Look.' }
    answer(new Response(JSON.stringify({ ...body, requestId: 'x' }), { status: 409 }))
    await wait(20)
    await flushPromises()
    expect(shown.text()).not.toContain('Asking it to stop')
    expect(shown.text()).toContain('It is over.')
    press('keyup')
  })

  it('does nothing when nothing goes on', async () => {
    const { asked } = await live({ state: 'ended', word: 'done' })
    press('keydown')
    await wait(HOLD_MS + 50)
    expect(stops(asked)).toBe(0)
    press('keyup')
  })
})
