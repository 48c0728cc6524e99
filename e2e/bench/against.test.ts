/**
 * What is said against the work while its run lives: the slip stays as it is, the word stands on the run and holds it,
 * and nobody takes it up while it stands. How one in doubt goes on first is among the losses.
 */
import type { RunShown } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { SIGNED, linesOf } from './lines.ts'
import {
  STOPPED,
  claim,
  get,
  playShop,
  post,
  ready,
  refused,
  report,
  shown,
  started,
  takeUp,
} from './played-shop.ts'

playShop()

const run = (id: string) => get<RunShown>(`/api/runs/${id}`)
const say = async (answers: Readonly<Record<string, string>>) =>
  post(`${(await ready()).at}/lines`, linesOf(answers))
const state = async (wanted: string) =>
  refused(`${(await ready()).at}/state`, { state: wanted, reason: 'its owner wants it so' })
/** Everything is well again, and is signed for anew: what was said against the work ended every word. */
const settle = (well: Readonly<Record<string, string>>) => say({ ...well, ...SIGNED })

describe('a run whose slip hears something against the work', () => {
  it('is held by it until that is settled, and its slip is not over meanwhile', async () => {
    const id = await started()
    const { epoch } = await claim(id, 'agent a')
    expect((await run(id)).against).toBe(null)
    await say({ 'condition.wet': 'wet' })
    const { against, stop } = await run(id)
    expect(against).toMatchObject({ topic: 'condition.wet', answer: 'wet' })
    expect(stop).toBe('to-be-heard')
    for (const over of ['stopped', 'declined', 'closed'])
      expect(await state(over)).toBe('slip.run-lives')
    await report(id, 'agent a', epoch, { heard: 1, shown: shown({ phase: STOPPED }) })
    expect(await refused(`/api/runs/${id}/take-up`)).toBe('run.against')
    expect(await state('stopped')).toBe('slip.run-lives')
    /* In the name of whoever said it, until it is taken up. */
    expect((await run(id)).stopBy).toBe('Ilse Maro')
    await settle({ 'condition.wet': 'dry' })
    expect((await run(id)).against).toBe(null)
    expect(await takeUp(id)).toMatchObject({ state: 'wanted', stopBy: null })
  })

  it('is stopped as well before anybody drives it, and by what ends a slip at the counter', async () => {
    const id = await started()
    await say({ 'condition.cell': 'damaged' })
    expect((await run(id)).state).toBe('stopped')
    /* Its slip is open still: an open one is not opened. */
    expect(await state('open')).toBe('slip.state')
    expect(await refused(`/api/runs/${id}/take-up`)).toBe('run.against')
    await settle({ 'condition.cell': 'sound' })
  })

  it('is not held by an answer that is not against the work, nor by an agreement nobody asked for', async () => {
    const id = await started()
    await claim(id, 'agent a')
    await say({ 'accessory.case': 'none', 'consent.preview': 'no', 'fate.wiped': 'no' })
    expect(await run(id)).toMatchObject({ against: null, stop: null })
  })
})
