import type { Page } from '@playwright/test'
import { OTHER, built, newestPackage } from '../bench/whole-shop.ts'
import { expect } from '../bench.ts'
import { drop, shopTest, title } from '../shop.ts'

/** The run lasts eleven model minutes: 16 s. A piece of main lasts most of a second. */
const PACE = 40

const test = shopTest(PACE, [])

/** Says "done" to whatever hands are asked for, until the run is somewhere. */
async function handsUntil(page: Page, there: RegExp): Promise<void> {
  const done = page.getByRole('button', { name: 'Done' })
  while (!there.test(await title(page).innerText())) {
    if (await done.isVisible()) await page.keyboard.press('.')
    await page.waitForTimeout(150)
  }
}

test('drop, plug, write; unplugged in mid-piece it says so, and goes on', async ({
  page,
  desk,
  shop,
}) => {
  const customer = shop.flash(OTHER).marks
  await desk.signIn('Tavi', '/counter')
  await drop(page, built('tarn-H2.104.r4').volumes)
  await expect(page.getByRole('region', { name: 'Being shelved' })).toContainText(
    'it is being read',
  )
  await page.keyboard.press('h')
  await expect(title(page)).toHaveText('One package, one proven')
  await drop(page, built('tarn-H2.0ZX.r4').volumes)
  await expect(page.getByRole('main')).toContainText('refused: it ends too early, in main.img')
  await expect(title(page)).toHaveText('One package, one proven')
  await desk.axe('the shelf')
  await page.getByRole('link', { name: 'H2.104.r4' }).click()
  await expect(title(page)).toHaveText('H2.104.r4: here and proven')
  await desk.axe('a package')

  await page.goto('/bench')
  const device = page.getByRole('region', { name: /0425/ })
  await device.getByLabel(/Plug/).selectOption('P3')
  await expect(page.getByRole('link', { name: /Normal mode P3/ })).toBeVisible()
  await desk.axe('the bench')
  await page.goto('/bench/P3')
  await expect(title(page)).toContainText('BRAK-H2 at P3: normal mode, build H2.0ZP.r4')
  await desk.axe('a device')
  await page.getByRole('link', { name: 'Plan H2.104.r4' }).press('Enter')
  await expect(title(page)).toContainText('data kept')
  await desk.axe('a plan')
  await page.emulateMedia({ colorScheme: 'dark' })
  await desk.axe('a plan, dark')
  const hold = page.getByRole('button', { name: /Write H2.104.r4 to …1C04 at P3/ })
  await hold.press('Enter')
  await expect(title(page)).toContainText('data kept')
  await hold.focus()
  await page.keyboard.down('Space')
  await page.waitForTimeout(1900)
  await page.keyboard.up('Space')

  await expect(title(page)).toContainText('Hands now')
  await desk.axe('hands now, dark')
  await page.emulateMedia({ colorScheme: 'light' })
  await handsUntil(page, /Hands off/)
  await expect(title(page)).toContainText('Write main, piece 3')
  await device.getByRole('button', { name: 'Unplug' }).click()
  await expect(title(page)).toHaveText('In doubt: the device does not answer')
  await expect(page.getByRole('link', { name: /In doubt P3/ })).toBeVisible()
  await expect(page.getByRole('main')).toContainText('Plug the cable in again')
  await desk.axe('in doubt')
  await device.getByLabel(/Plug/).selectOption('P3')
  await expect(title(page)).toContainText('Write main, piece 5')
  await expect(page.getByRole('main')).toContainText('Its device was lost once.')
  await expect(title(page)).toContainText('First start', { timeout: 60_000 })
  await handsUntil(page, /^Done: H2\.104\.r4 is on it and proven$/)
  await page.getByRole('button', { name: 'Put it away' }).click()
  await expect(title(page)).toContainText('build H2.104.r4')
  const flash = shop.flash(OTHER)
  expect({ wrong: flash.wrong(newestPackage()), marks: flash.marks }).toEqual({
    wrong: [],
    marks: customer,
  })
})
