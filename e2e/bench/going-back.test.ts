/**
 * A phone goes back a release, its owner having agreed to lose all: read in both its modes, planned with the
 * erase that it needs, written in two modes, erased, started, set up by hand, counted.
 */
import type { ApiError, Job, PlanPage, RunShown } from '@plain-slate/api'
import { THINGS } from '@plain-slate/core'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { INTAKE, LEAVES, SIGNED, linesOf } from './lines.ts'
import { WholeShop, built, until } from './whole-shop.ts'

const PHONE = 'COR4NB201406'
const AIM = 'alder-19-2620.1-HO'
/** Nothing of it must survive. */
const MAY_GO = Object.fromEntries(
  ['photos', 'apps', 'messages', 'settings', ...THINGS].map((thing) => [
    `survive.${thing}`,
    'may-go',
  ]),
)

let shop: WholeShop
beforeEach(async () => {
  const { databaseUrl } = await cloneTemplate('demo')
  shop = new WholeShop(databaseUrl, 0)
  await shop.open([AIM], [PHONE])
}, 120_000)
afterEach(() => shop.close())

async function planned(): Promise<{ readonly at: string; readonly page: PlanPage }> {
  const draft = { device: 'Corvane 4', model: 'CORV-4N', intent: 'downgrade' }
  const { number } = await shop.call<{ number: string }>('POST', '/api/slips', draft)
  const at = `/api/slips/${number}`
  await shop.call('POST', `${at}/lines`, linesOf({ ...INTAKE, ...LEAVES, ...MAY_GO }))
  await shop.read(`${at}/read`, 'P1', `${at}/job`, true)
  const route = { 'route.package': AIM, 'compare.unread': 'write-all' }
  await shop.call('POST', `${at}/lines`, linesOf(route))
  return { at, page: await shop.call<PlanPage>('GET', `${at}/plan`) }
}

it('is erased before it starts, and nothing of its owner’s can be read or counted after', async () => {
  expect(shop.flash(PHONE).readable.length).toBeGreaterThan(0)
  const { at, page } = await planned()
  if (page.now === null) throw new Error(page.why ?? 'no plan')
  const { now } = page
  const kinds = now.steps.map(({ kind }) => kind)
  expect(kinds.lastIndexOf('erase')).toBeLessThan(kinds.indexOf('first-start'))
  expect(now.fates.every(({ fate }) => fate === 'wiped' || fate === 'unpromised')).toBe(true)
  expect([now.reaches, now.ends.data]).toEqual([true, 'none'])
  await shop.call('POST', `${at}/plan`, { digest: now.digest })
  const consents = { 'fate.wiped': 'yes', 'fate.unpromised': 'yes', 'ready.restore': 'shop' }
  await shop.call('POST', `${at}/lines`, linesOf({ ...SIGNED, ...consents }))
  const begun = await shop.call<RunShown | ApiError>('POST', `${at}/start`, { digest: now.digest })
  if ('sentence' in begun) throw new Error(`${begun.sentence} ${begun.remedy}`)
  let last = begun
  await until('it ends', async () => {
    last = await shop.run(begun.id)
    const { asked } = last
    if (asked?.ask === 'set-up') await shop.hands({ kind: 'permit', serial: PHONE, given: true })
    if (asked !== null)
      await shop.call('POST', `/api/runs/${begun.id}/done`, { command: asked.command })
    return last.state === 'ended' || last.state === 'stopped'
  })
  expect([last.state, last.why]).toEqual(['ended', null])
  expect(shop.flash(PHONE).wrong(built(AIM).manifest)).toEqual([])
  expect(shop.flash(PHONE).readable).toEqual([])
  const job = await shop.call<Job>('GET', `${at}/job`)
  expect(job.device?.outcome).toBe('normal')
}, 180_000)
