/** A shop begun empty, by its pages alone: founded, its bench laid out, a family taken in, a package shelved, a device written. */
import { join } from 'node:path'
import { FAMILIES_FOLDER, digestOfVolume } from '@plain-slate/demo'
import type { Page } from '@playwright/test'
import { OTHER, WholeShop, built, newestPackage } from '../bench/whole-shop.ts'
import { cloneTemplate, expect, test as base } from '../bench.ts'
import { beforeLeaving, drop, enter, goOn, holdStart, sign, takeIn, title } from '../shop.ts'

/** The run lasts eleven model minutes: 16 s. */
const PACE = 40

const test = base.extend<{ shop: WholeShop }>({
  // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
  shop: async ({}, use) => {
    const shop = new WholeShop(await cloneTemplate('empty'), PACE, 'empty')
    await shop.open([], [OTHER])
    await use(shop)
    await shop.close()
  },
  baseURL: ({ shop }, use) => use(shop.address),
})

/** What is to do until the first write, and what is next of it. */
const steps = (page: Page) => page.getByRole('list').filter({ has: page.locator('[data-step]') })
const next = (page: Page) => steps(page).locator('[aria-current="step"]').getAttribute('data-step')

test('an empty shop is led to its first proven write by its pages alone', async ({
  page,
  desk,
  shop,
}) => {
  test.setTimeout(240_000)
  await page.goto('/')
  await page.getByLabel('Name of the shop').fill('Corner Bench')
  await page.getByLabel('Where it is').fill('Low Street')
  await page.getByLabel('Your name').fill('Una Breck')
  await page.getByLabel(/A PIN/).fill('4711')
  await page.getByRole('button', { name: 'Found the shop' }).press('Enter')
  await expect(title(page)).toHaveText('No slip is open')
  await expect(steps(page)).toBeVisible()
  expect(await next(page)).toBe('family')
  await desk.axe('an empty counter')

  await steps(page).getByRole('link', { name: 'Take in a family' }).press('Enter')
  await page.locator('input[type=file]').first().setInputFiles(join(FAMILIES_FOLDER, 'tarn.yaml'))
  await page.getByRole('button', { name: /Take it in/ }).press('Enter')
  await expect(page.getByRole('main')).toContainText('BRAK-H2K')

  await page.goto('/counter')
  await expect(steps(page)).toBeVisible()
  expect(await next(page)).toBe('port')
  await steps(page).getByRole('link', { name: 'Name a port' }).press('Enter')
  const ports = page.getByRole('form', { name: 'Name a port' })
  await ports.getByLabel('Label').fill('U1')
  await ports.getByLabel('Address').fill(`tcp:127.0.0.1:${shop.tcpPortOf('P4')}`)
  await ports.getByRole('button', { name: 'Name it' }).press('Enter')
  await expect(page.getByRole('link', { name: /U1/ }).first()).toBeVisible()
  const cables = page.getByRole('form', { name: 'Name a cable' })
  await cables.getByLabel('Label').fill('A')
  await cables.getByRole('button', { name: 'Name it' }).press('Enter')
  await expect(page.getByRole('row', { name: /^A in the drawer/ })).toBeVisible()
  await desk.axe('the house of a new shop')

  const [volume] = built('tarn-H2.104.r4').volumes
  await drop(page, built('tarn-H2.104.r4').volumes)
  await expect(page.getByRole('region', { name: 'Being shelved' })).toContainText(
    'every digest taken',
  )
  await page.keyboard.press('h')
  await page.getByRole('link', { name: 'H2.104.r4' }).click()
  await page
    .getByLabel(/^Digest .* published for/)
    .fill(volume === undefined ? '' : digestOfVolume(volume))
  await page.getByLabel('Where it stands').fill('maker’s page, sheet 12')
  await page.getByRole('button', { name: 'Put it down' }).press('Enter')
  await expect(title(page)).toHaveText('H2.104.r4: whole and published')

  await page.keyboard.press('n')
  await page.getByLabel('Device, as it is called').fill('Brakken H2')
  await page.getByLabel('Model code, if it is known').fill('BRAK-H2')
  await page.getByLabel(/^Whose/).fill('Ferry line')
  await page.getByLabel('What is wrong, in their words').fill('wants the new build')
  await page.getByRole('combobox', { name: 'Intent' }).press('ArrowDown')
  await page.getByRole('option', { name: 'update' }).click()
  await page.getByRole('button', { name: /^Open/ }).press('Enter')
  await page.waitForURL('**/slips/0001**')
  await page.keyboard.press('1')
  await page.waitForURL('**/intake')
  await takeIn(page)

  await shop.hands({ kind: 'plug', serial: OTHER, port: 'P4' })
  await expect(page.getByRole('link', { name: /Normal mode U1/ })).toBeVisible()
  await page.keyboard.press('2')
  await expect(title(page)).toContainText('are not settled')
  await enter(page)
  const main = page.getByRole('main')
  await expect(title(page)).toContainText('the job needs are settled', { timeout: 60_000 })
  await beforeLeaving(page)
  await main.getByRole('button', { name: /Into the loader and back/ }).press('Enter')
  await expect(main).toContainText('and its partition table', { timeout: 60_000 })
  await enter(page)
  await expect(title(page)).toContainText('the best ends on H2.104.r4')
  await enter(page)
  await expect(title(page)).toContainText('the data are kept')
  await page.keyboard.press('6')
  await expect(title(page)).toContainText('data kept')
  await enter(page)
  await expect(main.getByRole('status')).toContainText('by Una Breck')
  await page.keyboard.press('7')
  await expect(main.locator('[data-check="cable"]')).toContainText('nobody said which cable hangs')
  await desk.axe('ready in a new shop')
  await sign(page)
  await expect(title(page)).toHaveText('Ready: everything holds and is signed')
  await enter(page)
  await expect(title(page)).toContainText('Start: H2.104.r4 to …1C04 at U1')
  await holdStart(page)
  await expect(title(page)).toHaveText('Hands off', { timeout: 60_000 })
  await goOn(page, shop, OTHER)
  await expect(title(page)).toHaveText('Done: H2.104.r4 is on it and proven', { timeout: 90_000 })
  /* Whoever pressed its key is called by name. */
  await expect(main).toContainText('said by Una Breck')
  expect(shop.flash(OTHER).wrong(newestPackage())).toEqual([])
})
