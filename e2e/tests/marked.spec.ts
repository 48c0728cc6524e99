/**
 * The marked jobs on the pages, by keyboard, from the counter to the hand back in one whole shop at full speed: what
 * stands on the device is proven by its bytes. Job 4 is walked in walk.spec, with a look at every page.
 */
import type { Page } from '@playwright/test'
import { built, newestPackage } from '../bench/whole-shop.ts'
import { AtPages } from '../at-pages.ts'
import { expect } from '../bench.ts'
import { HALF_WRITTEN, STOPPED } from '../jobs/devices.ts'
import { jobTest, title } from '../shop.ts'

const LOOPING = 'COR4NB201177'
const GOES_BACK = 'COR4NB201406'
const ON_TRIAL = 'OST11A260407'
const PACKAGES = [
  'alder-19-2620.1-HO',
  'alder-20-2638.0-HO',
  'alder-20-2640.1-HO',
  'fen-FEN-26.21A-T',
  'fen-FEN-26.21B-S',
  'tarn-H2.0ZP.r4',
  'tarn-loader-7-r4',
  'tarn-H2.104.r4',
]
const test = jobTest(PACKAGES, [LOOPING, GOES_BACK, ON_TRIAL], { devices: [HALF_WRITTEN, STOPPED] })
/* One after the other, in the shop of one worker; none rests on another. */
test.describe.configure({ mode: 'default', timeout: 120_000 })

type Head = { readonly device: string; readonly model: string; readonly intent?: string }

/** Opens a slip as the counter does; answers its number. */
async function opens(page: Page, { device, model, intent }: Head): Promise<string> {
  await page.getByRole('main').focus()
  await page.keyboard.press('n')
  await page.getByLabel('Device, as it is called').fill(device)
  await page.getByLabel('Model').fill(model)
  if (intent !== undefined) {
    await page.getByRole('combobox', { name: 'Intent' }).press('ArrowDown')
    await page.getByRole('option', { name: intent }).press('Enter')
  }
  await page.getByLabel('Device, as it is called').press('Enter')
  await page.waitForURL(/slips\/\d{4}$/)
  const number = /\d{4}$/.exec(page.url())?.[0] ?? ''
  await page.goto(`/slips/${number}/intake`)
  return number
}

/** Nothing of the customer's but this: it must survive, or may go. */
const only = (topic: string, says: 'must survive' | 'may go') => ({ [topic]: says })

test('job 1: a restart loop is ended by its digests, cut on the way, gone on with at another port', async ({
  page,
  desk,
  shop,
}) => {
  const answers = { ...only('survive.photos', 'must survive'), 'history.starts': 'not so far' }
  const at = new AtPages(page, shop, { number: '0401', serial: LOOPING, answers })
  await desk.signIn('Ilse', '/slips/0401/intake')
  await shop.hands({ kind: 'plug', serial: LOOPING, port: 'P4' })
  await shop.hands({ kind: 'keys', serial: LOOPING, to: 'loader' })
  await at.goes('plan')
  const main = page.getByRole('main')
  await expect(title(page)).toContainText('data kept')
  await at.goes('ready')
  /* A device that does not start is asked for no switch of its settings. */
  await expect(main.locator('[data-topic="ready.permission"]')).toHaveCount(0)
  const before = shop.flash(LOOPING).marks
  await shop.hands({ kind: 'cut', serial: LOOPING, piece: 2, bytes: 40_960, how: 'cable' })
  await at.goes('write')
  await main.getByRole('button', { name: /^Write / }).waitFor()
  await at.starts()
  await main.locator('div[data-state="in-doubt"]').waitFor({ timeout: 60_000 })
  await shop.hands({ kind: 'plug', serial: LOOPING, port: 'P3' })
  await main.getByRole('button', { name: 'Its device is seen at P3: go on there' }).press('Enter')
  await at.goes('first-start')
  await at.goes('closed')
  expect(shop.flash(LOOPING).wrong(built('alder-20-2640.1-HO').manifest)).toEqual([])
  expect(shop.flash(LOOPING).marks).toEqual(before)
})

test('job 6: what somebody left half written is made stock, wiped with consent, closed last', async ({
  page,
  desk,
  shop,
}) => {
  const { serial } = HALF_WRITTEN
  await shop.hands({ kind: 'plug', serial, port: 'P2' })
  await shop.hands({ kind: 'keys', serial, to: 'loader' })
  await desk.signIn('Ilse', '/slips')
  const number = await opens(page, { device: 'Alder 4', model: 'CORV-4M', intent: 'relock' })
  const answers = { ...only('survive.photos', 'may go'), 'history.starts': 'not so far' }
  const route = /20-2638\.0-HO by parts over the cable/
  const at = new AtPages(page, shop, { number, serial, answers, route })
  await at.goes('plan')
  await expect(page.getByRole('main')).toContainText('Close the boot lock')
  await at.goes('closed')
  expect(shop.flash(serial).wrong(built('alder-20-2638.0-HO').manifest)).toEqual([])
  expect(shop.flash(serial).readable).toEqual([])
})

test('job 10: a tablet on trial goes back to stable, wiped before its first start', async ({
  page,
  desk,
  shop,
}) => {
  await shop.hands({ kind: 'plug', serial: ON_TRIAL, port: 'P5' })
  const main = page.getByRole('main')
  const route = /FEN-26\.21B-S/
  const saying = (says: 'must survive' | 'may go') => {
    const answers = { ...only('survive.photos', says), 'ready.backup': 'made, and it opens' }
    return new AtPages(page, shop, { number: '0407', serial: ON_TRIAL, answers, route })
  }
  await desk.signIn('Ilse', '/slips/0407/intake')
  await saying('must survive').goes('firmware')
  await expect(main.locator('[data-route]').filter({ hasText: route })).toHaveCount(0)
  /* A copy is made and opens: what is on the tablet itself may go. */
  await page.goto('/slips/0407/intake')
  const at = saying('may go')
  await at.goes('plan')
  await expect(title(page)).toContainText('wiped')
  await at.goes('ready')
  await expect(main.locator('[data-topic="ready.restore"]')).toBeVisible()
  await at.goes('hand-back')
  await expect(main.locator('[data-topic="back.backup"]')).toBeVisible()
  await at.goes('closed')
  expect(shop.flash(ON_TRIAL).readable).toEqual([])
})

test('job 14: back to the release before, its wipe agreed, its updates held back until a day', async ({
  page,
  desk,
  shop,
}) => {
  await shop.hands({ kind: 'plug', serial: GOES_BACK, port: 'P1' })
  const answers = only('survive.settings', 'may go')
  const route = /19-2620\.1-HO/
  const at = new AtPages(page, shop, { number: '0406', serial: GOES_BACK, answers, route })
  await desk.signIn('Ilse', '/slips/0406/intake')
  await at.goes('hand-back')
  const due = page.locator('[data-due="updates"]')
  await due.getByRole('button', { name: /^Put it down/ }).press('Enter')
  await expect(due.getByRole('textbox')).toHaveCount(0)
  await at.goes('closed')
  expect(shop.flash(GOES_BACK).readable).toEqual([])
})

test('job 19: what the device’s own digests show is left alone, and its tickets stay', async ({
  page,
  desk,
  shop,
}) => {
  const { serial } = STOPPED
  await shop.hands({ kind: 'unplug', serial: LOOPING })
  await shop.hands({ kind: 'plug', serial, port: 'P3' })
  await shop.hands({ kind: 'keys', serial, to: 'loader' })
  await desk.signIn('Ilse', '/slips')
  const number = await opens(page, { device: 'Brakken H2', model: 'BRAK-H2', intent: 'update' })
  const answers = { ...only('survive.tickets', 'must survive'), 'history.starts': 'not so far' }
  const route = /H2\.104\.r4 by parts/
  const at = new AtPages(page, shop, { number, serial, answers, route })
  await at.goes('compare')
  for (const partition of ['modem', 'rescue', 'variant'])
    await expect(page.locator(`[data-partition="${partition}"]`)).toContainText('left alone')
  const { marks } = shop.flash(serial)
  await at.goes('closed')
  expect(shop.flash(serial).wrong(newestPackage())).toEqual([])
  expect(shop.flash(serial).marks).toEqual(marks)
})
