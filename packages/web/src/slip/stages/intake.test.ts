// @vitest-environment jsdom
/** What Intake asks and says moves with what was said, and nothing is said twice. */
import type { LineShown } from '@plain-slate/api'
import { FUNCTIONS } from '@plain-slate/core'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
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
})
