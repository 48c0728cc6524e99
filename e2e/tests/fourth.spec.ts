/**
 * A maker that nobody here knows: its family is taken in from a file, on the page and by keyboard, and then a device of
 * it is taken in, read, written and proven, with no line of code for it.
 */
import { stringify } from 'yaml'
import { idOfDraft } from '@plain-slate/demo'
import { TINY, TINY_PACKAGES, candle } from '../agrees/tiny.ts'
import { WholeShop } from '../bench/whole-shop.ts'
import { cloneTemplate, expect, test as base } from '../bench.ts'
import { Technician } from '../jobs/technician.ts'
import { title } from '../shop.ts'

const CANDLE = candle({ serial: 'T1-00017F31' })

const test = base.extend<{ shop: WholeShop }>({
  // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
  shop: async ({}, use) => {
    const shop = new WholeShop(await cloneTemplate('demo'), 0)
    await shop.open([], [], { families: [TINY], drafts: TINY_PACKAGES, devices: [CANDLE] })
    await use(shop)
    await shop.close()
  },
  baseURL: ({ shop }, use) => use(shop.address),
})

test('a fourth family is taken in from its file, and a job is done on it', async ({
  page,
  desk,
  shop,
}) => {
  await desk.signIn('Ilse', '/house/families')
  await expect(title(page)).toHaveText('3 families are known here')
  const part = page.locator('[data-claim="take-family"]')
  const take = (text: string) =>
    part
      .getByLabel('The file')
      .setInputFiles({ name: 'tallow.yaml', mimeType: 'text/yaml', buffer: Buffer.from(text) })
  const text = stringify(TINY)

  /* Wrong in two places: each by its line, and nothing of it is taken in. */
  const wrong = text.replace('kind: writing', 'kind: scribbling').replace('to: dark', 'to: nowhere')
  const lineOf = (what: string) => wrong.slice(0, wrong.indexOf(what)).split('\n').length
  await take(wrong)
  await expect(part.getByRole('status')).toContainText('Nothing of it was taken in')
  await expect(part).toContainText(`line ${lineOf('scribbling')}`)
  await expect(part).toContainText('modes.2.kind')
  await desk.axe('a family that is wrong')
  await take('models: [')
  await expect(part).toContainText('line 1')

  await take(text)
  await expect(part).toContainText('Tallow, tallow, version 1: one model, 3 modes.')
  await expect(part).toContainText('No version of it is known here.')
  await part.getByRole('button', { name: 'Take it in' }).press('Enter')
  await expect(part.getByRole('status')).toContainText('tallow 1 is known here now')
  await expect(title(page)).toHaveText('4 families are known here')
  await page.getByRole('link', { name: 'Tallow, tallow' }).press('Enter')
  await expect(title(page)).toHaveText('Tallow: one model, 3 modes')
  await desk.axe('a family that was taken in')

  for (const draft of TINY_PACKAGES) await shop.shelve(idOfDraft(draft))
  const customer = { device: 'Tallow 1', model: 'T1', intent: 'update' } as const
  const answers = { 'survive.verses': 'must' }
  const job = await Technician.takesIn(shop, { ...customer, answers }, CANDLE.serial, 'P1')
  await job.read()
  await job.leaves()
  await job.read(true)
  const [best] = (await job.routes()).routes
  expect(best?.title).toBe('yx')
  const marks = shop.flash(CANDLE.serial).marks
  await job.does(best?.route ?? '')
  expect(shop.flash(CANDLE.serial).marks).toEqual(marks)
  await job.read()
  await page.goto(`/slips/${job.number}/first-start`)
  await expect(title(page)).toContainText('yx')
  await desk.axe('its first start')
})
