/** The jobs of the tablets: two slots, tracks that do not mix, a rescue that takes what is pushed. */
import { THINGS } from '@plain-slate/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WholeShop } from '../bench/whole-shop.ts'
import { openShop } from './shop.ts'
import { Technician } from './technician.ts'

const ON_TRIAL = 'OST11A260407'
const NOT_THERE = Object.fromEntries(
  ['photos', 'apps', 'settings', ...THINGS].map((one) => [`survive.${one}`, 'not-there']),
)

let shop: WholeShop
beforeAll(async () => {
  const packages = ['fen-FEN-26.19A-S', 'fen-FEN-26.21A-T', 'fen-FEN-26.21B-S']
  shop = await openShop(packages, [ON_TRIAL])
}, 180_000)
afterAll(() => shop.close())

describe('job 10: a tablet on trial, back to stable', () => {
  it('is wiped before its first start, its documents saved before, the trial build kept as its way back', async () => {
    const customer = { device: 'Fen 11', model: 'OSTR-11A', intent: 'leave-channel' } as const
    const answers = { ...NOT_THERE, 'survive.photos': 'must' }
    const job = await Technician.takesIn(shop, { ...customer, answers }, ON_TRIAL, 'P5')
    await job.read()
    await job.leaves()
    await job.read(true)
    /* Trial to stable keeps nothing: where its documents must stay on it there is no road. */
    const stable = async () =>
      (await job.routes()).routes.filter(({ title }) => title === 'FEN-26.21B-S')
    expect(await stable()).toEqual([])
    await job.say({ 'survive.photos': 'may-go' })
    const [road] = await stable()
    const { taken } = await job.takes(road?.route ?? '')
    const kinds = taken?.shown.steps.map(({ kind }) => kind) ?? []
    const wipes = kinds.flatMap((kind, at) => (kind === 'erase' ? [at] : []))
    expect(wipes.length).toBeGreaterThan(0)
    expect(Math.max(...wipes)).toBeLessThan(kinds.indexOf('first-start'))
    const fates = taken?.shown.fates.map(({ fate }) => fate) ?? []
    expect(fates.every((fate) => fate === 'wiped' || fate === 'unpromised')).toBe(true)
    expect(taken?.shown.wayBack).toBe('FEN-26.21A-T')
    await job.signs()
    const copy = (await job.job()).lines.find(({ topic }) => topic === 'ready.backup')
    expect(copy?.answer).toBe('opens')
    const end = await job.ends(await job.starts())
    expect(end.word).toBe('done')
    expect(shop.flash(ON_TRIAL).readable).toEqual([])
    const after = await job.read()
    expect(after.facts.find(({ fact }) => fact === 'track')?.value).toBe('S')
    expect(after.care).toBe('ask-owner')
  }, 120_000)
})
