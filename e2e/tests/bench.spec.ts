import { digestOfVolume } from '@plain-slate/demo'
import { OTHER, built, newestPackage } from '../bench/whole-shop.ts'
import { expect } from '../bench.ts'
import { drop, enter, goOn, holdStart, shopTest, title } from '../shop.ts'

/** The run lasts eleven model minutes: 16 s. A piece of main lasts most of a second. */
const PACE = 40

const test = shopTest(PACE, [])

test('drop, vouch, plug, write; unplugged in mid-piece it says so, and goes on', async ({
  page,
  desk,
  shop,
}) => {
  const customer = shop.flash(OTHER).marks
  await desk.signIn('Tavi', '/counter')
  await drop(page, built('tarn-H2.104.r4').volumes)
  await expect(page.getByRole('region', { name: 'Being shelved' })).toContainText(
    /\d+ entries, every digest taken/,
  )
  await page.keyboard.press('h')
  await expect(title(page)).toHaveText('One package, none published')
  await drop(page, built('tarn-H2.0ZX.r4').volumes)
  await expect(page.getByRole('main')).toContainText('refused: it ends too early, in main.img')
  await expect(title(page)).toHaveText('One package, none published')
  await desk.axe('the shelf')
  await page.getByRole('link', { name: 'H2.104.r4' }).click()
  await expect(title(page)).toHaveText('H2.104.r4: whole, nobody outside vouches for it')
  await desk.axe('a package')
  const [volume] = built('tarn-H2.104.r4').volumes
  const published = volume === undefined ? '' : digestOfVolume(volume)
  await page.getByLabel(/^Digest .* published for/).fill(published)
  await page.getByLabel('Where it stands').fill('maker’s page, sheet 12')
  await page.getByRole('button', { name: 'Put it down' }).press('Enter')
  await expect(title(page)).toHaveText('H2.104.r4: whole and published')
  await expect(page.getByRole('main')).toContainText('says the maker, maker’s page, sheet 12')

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
  await page.getByRole('link', { name: 'Go on in slip 0425' }).press('Enter')
  await page.waitForURL('**/slips/0425/firmware')
  await shop.ready('P3', '0425')
  await page.goto('/slips/0425/write')
  await expect(title(page)).toHaveText('Start: H2.104.r4 to …1C04 at P3')
  await enter(page)
  await expect(title(page)).toContainText('Start: H2.104.r4')
  await holdStart(page)
  await expect(title(page)).toHaveText('Hands off')
  await page.goto('/bench/P3')
  await expect(title(page)).toContainText('Hands off')
  await desk.axe('hands off, dark')
  await page.emulateMedia({ colorScheme: 'light' })
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
  await goOn(page, shop, OTHER)
  await expect(title(page)).toHaveText('Done: H2.104.r4 is on it and proven', { timeout: 60_000 })
  await page.getByRole('button', { name: 'Put it away' }).click()
  await expect(title(page)).toContainText('build H2.104.r4')
  const flash = shop.flash(OTHER)
  expect({ wrong: flash.wrong(newestPackage()), marks: flash.marks }).toEqual({
    wrong: [],
    marks: customer,
  })
})
