import { expect, makeDesk, openServer, test, watch } from '../bench.ts'

test('two people on one slip: neither change is lost', async ({ page, desk, browser, baseURL }) => {
  await desk.signIn('Tavi', '/slips/0434')
  const other = await browser.newPage({ baseURL: baseURL ?? '' })
  await makeDesk(other).signIn('Pell', '/slips/0434')

  await page.keyboard.press('e')
  await page.getByLabel('What must survive').fill('all tickets')
  await other.keyboard.press('e')
  await other.getByLabel('What must survive').fill('nothing at all')
  await other.getByLabel('Model code').fill('BRAK-H2X')

  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('main')).toContainText('all tickets')
  await other.getByRole('button', { name: 'Save' }).click()
  const conflict = other.getByRole('alert').filter({ hasText: 'Two versions' })
  await expect(conflict).toContainText('Tavi Renn wrote at')
  await expect(conflict).toContainText('all tickets')
  await expect(conflict).toContainText('nothing at all')
  await conflict.getByRole('button', { name: 'Let theirs stand' }).click()
  await other.getByRole('button', { name: 'Save' }).click()
  await expect(other.getByRole('main')).toContainText('BRAK-H2X')
  await expect(other.getByRole('main')).toContainText('all tickets')
  await expect(page.getByRole('main')).toContainText('BRAK-H2X')
  await other.close()
})

test('a note appears at once where somebody else looks, through one stream for all tabs', async ({
  page,
  desk,
  context,
  browser,
  baseURL,
}) => {
  let streams = 0
  context.on('request', (request) => {
    if (request.url().endsWith('/api/events')) streams += 1
  })
  await desk.signIn('Ilse', '/slips/0430')
  const tab = await context.newPage()
  await tab.goto('/slips/0430')
  await expect(tab.getByRole('heading', { level: 1 })).toBeVisible()
  const other = await browser.newPage({ baseURL: baseURL ?? '' })
  await makeDesk(other).signIn('Juno', '/slips/0430')
  await other.getByLabel('Write a note').fill('Screen is cracked at the corner.')
  await other.getByRole('button', { name: 'Put the note down' }).click()
  for (const one of [page, tab, other])
    await expect(one.getByText('Screen is cracked at the corner.')).toBeVisible()
  expect(streams).toBe(1)
  await page.close()
  await other.getByLabel('Write a note').fill('Owner told.')
  await other.getByRole('button', { name: 'Put the note down' }).click()
  await expect(tab.getByText('Owner told.')).toBeVisible()
  await other.close()
})

test('a wrong PIN says so, and the bench is handed over without losing the place', async ({
  page,
  desk,
}) => {
  await desk.signIn('Ilse', '/slips/0417')
  await page.getByRole('button', { name: /Ilse Maro, lead/ }).click()
  await page.getByText('Hand the bench over').click()
  await expect(page.getByText('The bench is held by Ilse Maro')).toBeVisible()
  await page.getByRole('button', { name: 'Juno' }).click()
  await desk.type('0000')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('That PIN does not open this name')
  await desk.type('7450')
  await page.keyboard.press('Enter')
  await page.waitForURL('**/slips/0417')
  await expect(page.getByRole('button', { name: /Juno Aske, trainee/ })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Change the head' })).toHaveCount(0)
})

test('an empty shop is founded, and its first slip opened', async ({ browser }) => {
  const server = await openServer('empty')
  const baseURL = `http://127.0.0.1:${server.port}`
  const page = await browser.newPage({ baseURL })
  const wrong = watch(page, baseURL)
  await page.goto('/')
  await page.getByLabel('Name of the shop').fill('Gull Repairs')
  await page.getByLabel('Where it is').fill('North Pier')
  await page.getByLabel('Your name').fill('Ada Quist')
  await page.getByLabel('A PIN').fill('9090')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('No slip is open')
  await page.keyboard.press('n')
  await page.getByLabel('Device, as it is called').fill('x')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert').first()).toBeVisible()
  await page.getByLabel('Device, as it is called').fill('Brakken H1')
  await page.keyboard.press('Enter')
  await page.waitForURL('**/slips/0001')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Brakken H1: restore, at Intake')
  expect(wrong).toEqual([])
  await page.close()
  await server.stop()
})

test('the server away: said, kept, and back by itself', async ({ browser }) => {
  const server = await openServer('demo')
  const baseURL = `http://127.0.0.1:${server.port}`
  const page = await browser.newPage({ baseURL })
  await makeDesk(page).signIn('Tavi', '/slips/0417')
  await page.keyboard.press('e')
  await page.getByLabel('What must survive').fill('every ticket')
  await page.route('**/api/**', (route) => route.abort())
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('alert')).toContainText('The server does not answer')
  await expect(page.getByLabel('What must survive')).toHaveValue('every ticket')
  await page.unroute('**/api/**')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('main')).toContainText('every ticket')
  await server.stop()
  await expect(page.getByText('What you see may be old')).toBeVisible()
  await page.close()
})
