// @vitest-environment jsdom
/** What is said against the work while its run lives stands on its page. */
import type { RunShown } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import { job, run } from '../testing/job.ts'
import RunLive from './RunLive.vue'

const live = (more: Partial<RunShown> = {}) =>
  mounted(RunLive, { run: run(more), job: job('write') }, { at: '/slips/0417/write' })

describe('a run that a word holds', () => {
  it('says at once who said what against it, and what it does about that', async () => {
    const against = { topic: 'condition.wet', answer: 'wet', by: 'Tavi Renn', at: run().startedAt }
    const told = async (more: Partial<RunShown>) => {
      const { shown } = await live({ against, ...more })
      return shown.find('.against').text()
    }
    const goesOn = await told({})
    expect(goesOn).toContain('said by Tavi Renn')
    expect(goesOn).toContain('It goes on to the next place where it is safe to wait')
    expect(await told({ stop: 'piece' })).toContain('The run stops where it is safe to wait.')
    expect(await told({ state: 'stopped', word: 'stopped' })).toContain('The run waits.')
    expect(await told({ state: 'ended', word: 'done', step: 2 })).toContain('had come to its end')
    expect(await told({ against: { ...against, by: null } })).toContain('said at the shell')
    expect((await live()).shown.find('.against').exists()).toBe(false)
  })
})

describe('a run whose device has too little charge for its rest', () => {
  const short = { charge: 12, needs: 31 }
  const told = async (more: Partial<RunShown>) => {
    const found = (await live(more)).shown.find('.against')
    return found.exists() ? found.text() : ''
  }
  const stopped = { state: 'stopped', word: 'stopped' } as const

  it('says how much it has and may draw, and what it does about that', async () => {
    expect(await told({ short })).toContain('has 12 %, and what is left of the run may draw 31 %')
    expect(await told({ short, stop: 'piece' })).toContain('The run stops where it is safe to wait')
    const held = await live({ short, ...stopped })
    expect(held.shown.find('.against').text()).toContain('not taken up before it is charged')
    expect(held.shown.text()).not.toContain('Take it up')
  })

  it('says it until it is taken up, seen or not, and then no more', async () => {
    const seen = await live({ low: short, ...stopped })
    expect(seen.shown.find('.against').text()).toContain('had 12 %')
    expect(seen.shown.text()).toContain('Take it up')
    expect(await told({ low: short })).toBe('')
    expect(await told({ ...stopped })).toBe('')
  })
})
