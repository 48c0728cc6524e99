import { TYPING_MS, expect, test } from '../bench.ts'

test('from first sign-in to a found slip by keyboard alone', async ({ page, desk }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Who is at the bench?' })).toBeVisible()
  await expect(page.getByRole('button', { name: /Ilse Maro/ })).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: /Ilse Maro/ })).toBeFocused()
  await page.keyboard.press('Enter')
  await desk.type('2204')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('slips are open')

  await page.keyboard.press('/')
  await expect(page.getByRole('combobox', { name: 'Find' })).toBeFocused()
  await desk.type('handheld 14')
  await expect(page.getByRole('option', { name: /0417/ })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  await page.waitForURL('**/slips/0417')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Brakken H2K: update, at Intake')
})

test('every place and stage has its key, and the card shows them', async ({ page, desk }) => {
  await desk.signIn('Tavi')
  const places = [
    ['l', '/slips'],
    ['h', '/shelf'],
    ['b', '/bench'],
    ['k', '/book'],
    ['c', '/counter'],
    ['n', '/slips/new'],
  ] as const
  for (const [key, path] of places) {
    await page.keyboard.press(key)
    await page.waitForURL(`**${path}`)
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur())
  }
  await page.goto('/slips/0417')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  const stages = [
    'intake',
    'readings',
    'firmware',
    'proof',
    'compare',
    'plan',
    'ready',
    'write',
    'first-start',
    'hand-back',
  ]
  for (const [index, stage] of stages.entries()) {
    await page.keyboard.press(String((index + 1) % 10))
    await page.waitForURL(`**/slips/0417/${stage}`)
  }
  await page.keyboard.press('?')
  const card = page.getByRole('dialog', { name: 'Keys' })
  await expect(card).toContainText('Stages of the open slip')
  await page.keyboard.press('b')
  await page.waitForTimeout(150)
  expect(page.url()).toContain('hand-back')
  await page.keyboard.press('Escape')
  await expect(card).toBeHidden()
})

test('a letter typed in a field is a letter, and keys can be switched off', async ({
  page,
  desk,
}) => {
  await desk.signIn('Tavi', '/slips/new')
  await page.getByLabel('Device, as it is called').fill('')
  await desk.type('black box')
  await expect(page.getByLabel('Device, as it is called')).toHaveValue('black box')
  expect(page.url()).toContain('/slips/new')

  await page.goto('/house')
  await page.getByLabel('One-key shortcuts').uncheck()
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('b')
  await page.waitForTimeout(150)
  expect(page.url()).toContain('/house')
})

test('a scan goes to the find box and out of the field it landed in', async ({ page, desk }) => {
  await desk.signIn('Tavi', '/slips/new')
  const device = page.getByLabel('Device, as it is called')
  await device.fill('Brakken')
  await device.focus()
  await desk.scan('0417')
  const find = page.getByRole('combobox', { name: 'Find' })
  await expect(find).toBeFocused()
  await expect(find).toHaveValue('0417')
  await expect(device).toHaveValue('Brakken')
  await expect(page.getByRole('option', { name: /0417/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await page.waitForURL('**/slips/0417')
})

test('a scan with no field about goes to the find box and starts nothing', async ({
  page,
  desk,
}) => {
  await desk.signIn('Tavi')
  await page.getByRole('heading', { level: 1 }).click()
  await desk.scan('BLCK0418')
  await expect(page.getByRole('combobox', { name: 'Find' })).toHaveValue('BLCK0418')
  await expect(page.getByRole('status')).toContainText('Nothing here is called')
  expect(page.url()).toContain('/counter')
})

test('what cannot be undone is held, not pressed', async ({ page, desk }) => {
  await desk.signIn('Tavi', '/slips/0433')
  await page.getByRole('button', { name: 'Withdraw personal text' }).press('Enter')
  const hold = page.getByRole('button', { name: /Erase the texts of 0433/ })
  await expect(hold).toBeDisabled()
  await page.getByRole('combobox', { name: 'Second person' }).press('Enter')
  await page.getByRole('option', { name: /Ilse Maro/ }).click()
  await page.getByLabel('Their PIN').pressSequentially('2204', { delay: TYPING_MS })
  await hold.focus()
  await page.keyboard.press('Enter')
  await page.keyboard.down('Space')
  await page.waitForTimeout(700)
  await page.keyboard.up('Space')
  await expect(page.getByRole('main')).toContainText('Ferry line, handheld 29')
  await page.keyboard.down('Space')
  await page.waitForTimeout(1800)
  await page.keyboard.up('Space')
  await expect(page.getByRole('main')).not.toContainText('Ferry line, handheld 29')
  await expect(page.getByRole('main')).toContainText('withdrawn')
})
