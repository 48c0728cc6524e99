/**
 * Knowing the device, on the page and by keyboard: what to read next, the way to where it is read, a chord that was
 * missed once and cured.
 */
import { LEAD } from '../bench/whole-shop.ts'
import { expect, test as familiesTest } from '../bench.ts'
import { enter, shopTest, takeIn, title } from '../shop.ts'

const test = shopTest(60, [
  'tarn-H2.0ZC.r4',
  'tarn-loader-7-r4',
  'tarn-H2.104.r4',
  'tarn-H2.104.r5',
])

test('a chord missed once is cured by its card, and what was to be read next is read', async ({
  page,
  desk,
  shop,
}) => {
  test.setTimeout(180_000)
  const keys = (to: string, held?: number) =>
    shop.hands({ kind: 'keys', serial: LEAD, to, ...(held === undefined ? {} : { held }) })
  await keys('off')
  await desk.signIn('Ilse', '/slips/0417/intake')
  await takeIn(page)
  await page.goto('/slips/0417/readings')
  const next = page.locator('[data-claim="next"]')
  await expect(next).toContainText('Read next: region')
  await expect(next).toContainText(/Of \d+ packages that are left it rules out/)
  await enter(page)
  const way = page.getByRole('region', { name: 'The way to the loader' })
  await expect(way).toContainText('No link tells where it is')
  await way.getByRole('button', { name: 'dark' }).press('Enter')
  await expect(way).toContainText('From off to the loader')
  await desk.axe('a way')

  /* Counted through, and the keys let go at once: it lands in the rescue. */
  const acts = way.locator('.acts li')
  const count = await acts.count()
  for (let at = 0; at < count; at += 1) {
    await enter(page)
    await expect(acts.nth(at)).toHaveAttribute('aria-current', 'step')
  }
  await keys('loader', 0.5)
  await expect(way).toContainText('The link says it is in rescue', { timeout: 30_000 })
  await expect(way).toContainText('From rescue to off')
  await desk.axe('a way back')
  await keys('off')
  await expect(way.locator('[data-claim="way.slip"]')).toContainText(
    'It was missed once. The usual slip: the scan key came late; that leads to rescue.',
  )
  await keys('loader', 3)
  await expect(way).toHaveCount(0, { timeout: 30_000 })
  await expect(next).toContainText('it is in the loader')
  await enter(page)
  await expect(title(page)).toHaveText('All 14 facts that the job needs are settled', {
    timeout: 60_000,
  })
  await expect(next).toHaveCount(0)
})

familiesTest(
  'a family is read from House by keyboard: modes, ways, layouts and rules of its file',
  async ({ page, desk }) => {
    await desk.signIn('Juno', '/house')
    await page.getByRole('main').getByRole('link', { name: 'Families of devices' }).press('Enter')
    await expect(title(page)).toHaveText('3 families are known here')
    await desk.axe('families')
    await page.getByRole('link', { name: 'Corvane, alder' }).press('Enter')
    await expect(title(page)).toHaveText('Corvane: 5 models, 8 modes')
    const main = page.getByRole('main')
    await expect(main.getByRole('img', { name: 'Modes of Corvane' })).toBeVisible()
    await expect(main.locator('[data-mode="rescue"]')).toContainText('taken for the loader')
    await expect(main.locator('[data-fact="board"]')).toContainText('the loader’s screen')
    await expect(main.locator('[data-claim="family.start"] li').first()).toHaveText(
      'loader torn: dead until board-level service',
    )
    await expect(main.locator('[data-pace="write"]')).toContainText('18 to 42 MiB/s')
    await desk.axe('a family')
    await page.getByRole('link', { name: 'Brakken' }).press('Enter')
    await expect(title(page)).toHaveText('Brakken: 3 models, 6 modes')
  },
)

familiesTest(
  'a label scans back to its slip, and a slip goes out and comes in as a file',
  async ({ page, desk }) => {
    await desk.signIn('Ilse', '/slips/0418')
    const main = page.getByRole('main')
    const label = main.getByRole('link', { name: 'Label for the device' })
    const pdf = await page.request.get((await label.getAttribute('href')) ?? '')
    expect(pdf.headers()['content-type']).toBe('application/pdf')
    await page.goto('/slips')
    await expect(title(page)).toContainText('slips')
    await desk.scan('0418')
    await page.waitForURL('**/slips/0418')
    /* The end of the serial that was read of it leads there too. */
    const file = (await (
      await page.request.get(
        (await main.getByRole('link', { name: /^The slip as a file/ }).getAttribute('href')) ?? '',
      )
    ).json()) as { customer: string | null; readings: { fact: string; value: string }[] }
    expect(file.customer).toBeNull()
    const serial = file.readings.find(({ fact }) => fact === 'serial')?.value ?? ''
    await page.goto('/slips')
    await expect(title(page)).toContainText('slips')
    await desk.scan(serial)
    await page.waitForURL('**/slips/0418')

    await page.goto('/slips')
    const take = page.getByLabel('Take in a slip’s file of another shop')
    const sent = (text: string) =>
      take.setInputFiles({
        name: 'slip.json',
        mimeType: 'application/json',
        buffer: Buffer.from(text),
      })
    await sent('{"format":"plain-slate/slip@9"}')
    await expect(main.getByRole('alert')).toContainText('This is no slip’s file')
    await sent(JSON.stringify(file))
    await expect(main.getByRole('status')).toContainText('was opened')
    await desk.axe('slips, one taken in')
    await main.getByRole('link', { name: /^Slip \d+ was opened/ }).press('Enter')
    await expect(title(page)).toContainText('Brakken H2')
  },
)

test('a driver that is missing is said with its remedy, and with it the device is heard again', async ({
  page,
  desk,
  shop,
}) => {
  await desk.signIn('Ilse', '/slips/0417/intake')
  await takeIn(page)
  await page.goto('/bench')
  const computer = page.locator('[data-claim="computer"]')
  const driver = computer.locator('[data-driver="tarn"]')
  await expect(driver).toContainText('version 4, its maker’s newest')
  await page.getByText('The computer beside them').press('Enter')
  const installed = page.getByLabel('Brakken, the handheld driver')
  await installed.selectOption('')
  await expect(driver).toContainText('missing: nothing is heard in these modes; install 4')
  await expect.poll(async () => (await shop.port('P2')).seen).toBe(null)
  await desk.axe('a driver is missing')
  await page.goto('/slips/0417/readings')
  await expect(page.locator('[data-claim="next"]')).toContainText('Read next')
  await enter(page)
  const way = page.getByRole('region', { name: 'The way to the loader' })
  await way.getByRole('button', { name: 'dark' }).press('Enter')
  await expect(way.locator('[data-claim="unheard"]')).toContainText(
    'This computer would not hear it in the loader: the handheld driver is missing or too old.',
  )
  await page.goto('/bench')
  await page.getByText('The computer beside them').press('Enter')
  await page.getByLabel('Brakken, the handheld driver').selectOption('2')
  await expect(driver).toContainText('version 2, 2 versions behind; it is of use')
  await expect.poll(async () => (await shop.port('P2')).seen?.serial).toBe(LEAD)
  await page.goto('/slips/0417/readings')
  await expect(page.locator('[data-claim="next"]')).toContainText('it is in normal mode')
  await enter(page)
  await expect(title(page)).toHaveText('All 14 facts that the job needs are settled')
})

familiesTest(
  'a menu goes by the loader that was read: under an older one the dangerous line stands next',
  async ({ page, desk }) => {
    await desk.signIn('Ilse', '/slips/0408/readings')
    const fact = page.getByRole('combobox', { name: 'Fact' })
    const read = async (loader: string) => {
      await fact.fill('loader')
      await fact.press('Enter')
      await page.getByLabel('What it says').fill(loader)
      await page.getByRole('combobox', { name: 'Source' }).press('Enter')
      await page.getByRole('option', { name: 'the loader’s screen' }).press('Enter')
      await page.getByRole('button', { name: 'Put it down' }).press('Enter')
      await expect(page.locator('[data-fact="loaderVersion"]')).toContainText(loader)
    }
    const way = page.getByRole('region', { name: 'The way to normal mode' })
    const menu = way.locator('[data-claim="way.menu"] li')
    const shown = async () => {
      await page
        .locator('[data-claim="ways"]')
        .getByRole('button', { name: 'normal mode' })
        .press('Enter')
      await way.getByRole('button', { name: 'a menu of four lines' }).press('Enter')
      await expect(way).toContainText('From rescue to normal mode')
    }
    await read('5')
    await shown()
    await expect(menu).toHaveText([
      /^start.*no press/,
      /^erase all.*not this one: it erases/,
      'install from card',
      'show ids',
    ])
    await desk.axe('a menu of an older loader')
    await page.getByRole('button', { name: 'Close the way' }).press('Enter')
    await read('7')
    await shown()
    await expect(menu.nth(1)).toHaveText('install from card')
    await expect(menu.nth(2)).toContainText('not this one: it erases')
  },
)
