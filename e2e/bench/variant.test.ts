/**
 * A phone that one carrier sold becomes another's, in place: read with its own digests, whose sizes differ from line
 * to line, planned as one part, written, started; the owner's things are bit by bit what they were.
 */
import type { ApiError, Job, PlanPage, RunShown } from '@plain-slate/api'
import { cloneTemplate } from '@plain-slate/server/testing'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { INTAKE, LEAVES, SIGNED, linesOf } from './lines.ts'
import { LEAD, WholeShop, built, until } from './whole-shop.ts'

const PHONE = 'COR5NC310403'
const PART = 'alder-variant-20-2634.0-HO'
/* The row it becomes, and a line whose images have other sizes. */
const SHELVED = [PART, 'alder-20-2634.0-HO', 'alder-20-2638.0-HO']

let shop: WholeShop
beforeEach(async () => {
  const { databaseUrl } = await cloneTemplate('demo')
  shop = new WholeShop(databaseUrl, 0)
  await shop.open(SHELVED, [LEAD, PHONE])
  await shop.hands({ kind: 'plug', serial: PHONE, port: 'P1' })
  await until('it is seen', async () => (await shop.port('P1')).seen !== null)
}, 120_000)
afterEach(() => shop.close())

it('is another carrier’s after one part was written, and nothing of its owner’s is touched', async () => {
  const marks = shop.flash(PHONE).marks
  const draft = { device: 'Corvane 5', model: 'CORV-5N', intent: 'variant-change' }
  const { number } = await shop.call<{ number: string }>('POST', '/api/slips', draft)
  const at = `/api/slips/${number}`
  const must = {
    ...{ 'survive.photos': 'must', 'survive.settings': 'not-there' },
    'want.row': 'HI/O',
  }
  await shop.call('POST', `${at}/lines`, linesOf({ ...INTAKE, ...LEAVES, ...must }))
  await shop.read(`${at}/read`, 'P1', `${at}/job`, true)
  await shop.call('POST', `${at}/lines`, linesOf({ 'route.package': PART }))
  const { now, why } = await shop.call<PlanPage>('GET', `${at}/plan`)
  if (now === null) throw new Error(why ?? 'no plan')
  expect([now.fails, now.reaches, now.ends.build]).toEqual([null, true, '20-2634.0-HO'])
  expect(now.steps.filter(({ kind }) => kind === 'write')).toHaveLength(1)
  await shop.call('POST', `${at}/plan`, { digest: now.digest })
  await shop.call('POST', `${at}/lines`, linesOf(SIGNED))
  const begun = await shop.call<RunShown | ApiError>('POST', `${at}/start`, { digest: now.digest })
  if ('sentence' in begun) throw new Error(`${begun.sentence} ${begun.remedy}`)
  const over = await shop.follow(begun.id, 'it ends', ({ state }) =>
    ['ended', 'stopped'].includes(state),
  )
  expect([over.state, over.why]).toEqual(['ended', null])
  expect(shop.flash(PHONE).wrong(built(PART).manifest)).toEqual([])
  expect(shop.flash(PHONE).wrong(built('alder-20-2634.0-HO').manifest)).toEqual([])
  expect(shop.flash(PHONE).marks).toEqual(marks)
  const job = await shop.call<Job>('GET', `${at}/job`)
  expect(job.device?.outcome).toBe('normal')
}, 180_000)
