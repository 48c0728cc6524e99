// @vitest-environment jsdom
/** A run that lost its device: what is tried first, as house and slip have it. */
import type { Job, RunShown } from '@plain-slate/api'
import { USUAL_HOUSE } from '@plain-slate/core'
import { describe, expect, it } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import { job, line, run } from '../testing/job.ts'
import RunLive from './RunLive.vue'

const at = '/slips/0417/write'
/** The first remedy on the page of a lost run, in a house of this school, on a slip that says this. */
async function first(
  transfer: 'again' | 'cable',
  more: Partial<RunShown> = {},
  said: Job['lines'] = [],
) {
  const rules = { ...USUAL_HOUSE, transfer }
  const answer = (path: string) =>
    path.endsWith('/house') ? { version: 1, rules, history: [] } : {}
  const lost = run({ word: 'in-doubt', size: 9 * 1024 ** 2, losses: 1, ...more })
  const props = { run: lost, job: job('write', { lines: said }) }
  const { shown, refetched } = await mounted(RunLive, props, { at, answer })
  await refetched()
  return shown.find('[data-remedy]').attributes('data-remedy')
}

describe('a run that lost its device', () => {
  it('has tried first what the house or the slip decided, and no longer after another loss', async () => {
    expect([await first('again'), await first('cable')]).toEqual(['again', 'cable'])
    expect(await first('again', {}, [line('depart.transfer', 'cable')])).toBe('cable')
    expect(await first('again', { losses: 2 })).toBe('cable')
    expect(await first('cable', { size: 0 })).toBe('replug')
  })

  it('counts what was tried in an earlier run for nothing', async () => {
    const old = line('tried.transfer.again', 'no-cure', { at: '2026-10-01T08:00:00.000Z' })
    expect(await first('again', {}, [old])).toBe('again')
    const now = line('tried.transfer.again', 'no-cure', { at: '2026-10-16T08:00:00.000Z' })
    expect(await first('again', {}, [now])).toBe('cable')
  })
})
