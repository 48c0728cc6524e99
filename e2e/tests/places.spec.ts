import { PSEUDO_OPEN } from '@plain-slate/texts'
import { expect, test } from '../bench.ts'

const PAGES = [
  '/counter',
  '/slips',
  '/slips/new',
  '/slips/0417',
  '/slips/0417/plan',
  '/slips/0416',
  '/shelf',
  '/bench',
  '/book',
  '/house',
  '/nowhere',
]

for (const scheme of ['light', 'dark'] as const)
  test(`axe finds nothing on any place, ${scheme}`, async ({ page, desk }) => {
    test.setTimeout(300_000)
    await page.emulateMedia({ colorScheme: scheme })
    await page.goto('/sign-in')
    await page.getByRole('button', { name: 'Ilse' }).click()
    await desk.axe('sign-in')
    await desk.signIn('Ilse')
    for (const path of PAGES) {
      await page.goto(path)
      await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeVisible()
      await page.waitForTimeout(200)
      await desk.axe(path)
    }
    await page.goto('/slips/0417')
    await page.getByRole('button', { name: 'Change the head' }).click()
    await expect(page.getByLabel('What must survive')).toBeVisible()
    await desk.axe('the head’s form')
    await page.getByRole('button', { name: 'Withdraw personal text' }).click()
    await desk.axe('withdrawing')
  })

test('the theme follows the system and can be switched', async ({ page, desk }) => {
  const ground = () =>
    page.getByRole('main').evaluate((sheet) => getComputedStyle(sheet).backgroundColor)
  await page.emulateMedia({ colorScheme: 'dark' })
  await desk.signIn('Tavi', '/house')
  await expect.poll(ground).toBe('rgb(37, 50, 58)')
  await page.getByLabel('light', { exact: true }).check()
  await expect.poll(ground).toBe('rgb(251, 251, 247)')
  await page.reload()
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect.poll(ground).toBe('rgb(251, 251, 247)')
})

test('the list keeps its state in the address and leaves as CSV', async ({ page, desk }) => {
  await desk.signIn('Tavi', '/slips')
  await page.getByLabel('Search').fill('brakken')
  await expect(page).toHaveURL(/q=brakken/)
  await page.getByRole('link', { name: /Waiting on somebody/i }).click()
  await page.getByRole('button', { name: 'due' }).click()
  await expect(page).toHaveURL(/state=waiting/)
  await expect(page.getByRole('columnheader', { name: 'due' })).toHaveAttribute(
    'aria-sort',
    'ascending',
  )
  const rows = page.getByRole('main').getByRole('row')
  await expect(rows).toHaveCount(5)
  await page.reload()
  await expect(rows).toHaveCount(5)
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'As CSV' }).click()
  expect((await download).suggestedFilename()).toMatch(/^slips-2026-10-15\.csv$/)
})

test('a slip that is not there says so, with what to do', async ({ page, desk }) => {
  await desk.signIn('Tavi')
  await page.goto('/slips/9999')
  await expect(page.getByRole('alert').first()).toContainText('There is no slip 9999')
})

test('every sentence of the frame comes from the catalogue', async ({ page, desk }) => {
  await desk.signIn('Ilse')
  await page.evaluate(() => localStorage.setItem('plain-slate-language', 'pseudo'))
  for (const path of ['/counter', '/slips', '/slips/new', '/slips/0417', '/book', '/house']) {
    await page.goto(path)
    await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeVisible()
    await page.waitForTimeout(300)
    const labels = await page.evaluate(() =>
      [...document.querySelectorAll('h1, h2, th, label, nav a, main button, .lede')]
        .map((one) => one.textContent.trim())
        .filter((text) => /\p{L}{3}/u.test(text)),
    )
    expect(labels.length).toBeGreaterThan(5)
    expect(labels.filter((text) => !text.includes(PSEUDO_OPEN))).toEqual([])
  }
})

test('a slip can be read on a phone, and the page is usable from 1024', async ({ page, desk }) => {
  await desk.signIn('Tavi', '/slips/0417')
  for (const width of [1024, 390]) {
    await page.setViewportSize({ width, height: 800 })
    await expect(page.getByText('The gate asks for the newest build.')).toBeVisible()
    const overflow = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    )
    expect(overflow, `at ${width}`).toBeLessThanOrEqual(0)
  }
  await page.getByText('Tickets of the morning').scrollIntoViewIfNeeded()
  await expect(page.getByText('Tickets of the morning')).toBeInViewport()
})

test('the contract can be read, with nothing fetched from elsewhere', async ({ page }) => {
  await page.goto('/api/docs')
  await expect(page.getByText("Change a slip's head; nobody's change is run over")).toBeVisible()
})
