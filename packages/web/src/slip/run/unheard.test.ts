// @vitest-environment jsdom
/** What may hold a start that nobody hears. */
import { describe, expect, it } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import { job, run } from '../testing/job.ts'
import RunLive from './RunLive.vue'

const at = '/slips/0417/write'

describe('a start that nobody hears', () => {
  it('says of one that was wiped that it may ask for the account that was on it, where its family does', async () => {
    const [step] = run().steps
    if (step === undefined) throw new Error('no step')
    const waiting = {
      mode: { id: 'normal', name: 'normal mode', kind: 'system' },
      seen: null,
    } as const
    const words = async (wiped: 'true' | 'false', asksAccount: boolean) => {
      const start = { ...step, kind: 'first-start', facts: { wiped, say: '' } } as const
      const of = run({ waiting, steps: [start] })
      const told = job('write')
      const family = told.family === null ? null : { ...told.family, asksAccount }
      const { shown } = await mounted(RunLive, { run: of, job: { ...told, family } }, { at })
      return shown.text()
    }
    expect(await words('true', true)).toContain('If it asks for the account')
    expect(await words('true', false)).not.toContain('If it asks for the account')
    expect(await words('false', true)).not.toContain('If it asks for the account')
  })
})

describe('a run whose device is seen at another port', () => {
  it('goes on there in one act, and where it is not offers to be taken up where it is', async () => {
    const shownAt = async (elsewhere: string | null) => {
      const of = run({ elsewhere, ownerless: true, word: 'in-doubt' })
      return mounted(RunLive, { run: of, job: job('write') }, { at, answer: of })
    }
    const { shown, asked } = await shownAt('P5')
    const button = shown.findAll('button').find((one) => one.text().includes('seen at P5'))
    await button?.trigger('click')
    const sent = asked.find(({ path }) => path.endsWith('/move'))
    expect(sent?.body).toEqual({ port: 'P5' })
    expect((await shownAt(null)).shown.text()).not.toContain('go on there')
  })
})

describe('a run at whose port another device hangs', () => {
  it('says which hangs there and for which it waits, in doubt or not, and nothing of the kind of its own', async () => {
    const mode = { id: 'loader', name: 'the loader', kind: 'writing' } as const
    const rest = { board: null, build: null, battery: null, loaderVersion: null, mode }
    const words = async (serial: string, word: 'in-doubt' | 'hands-now') => {
      const seen = { serial, model: 'BRAK-H2K', ...rest }
      const { shown } = await mounted(
        RunLive,
        { run: run({ waiting: { mode, seen }, word }), job: job('write') },
        { at },
      )
      return shown.text()
    }
    for (const word of ['in-doubt', 'hands-now'] as const) {
      const other = await words('TRN4490081C04', word)
      expect(other).toContain('Another device hangs here: BRAK-H2K, serial …1C04.')
      expect(other).toContain('This run waits for …7F31')
      expect(await words('TRN4490077F31', word)).not.toContain('Another device')
    }
  })
})
