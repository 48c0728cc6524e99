/** What ends a job at the counter, what two people see of it, and pages that anybody can send on. */
import { openServer, expect, makeDesk, test, watch } from '../bench.ts'
import { answer, enter, title } from '../shop.ts'

test('an account nobody can open declines the slip, and a damaged cell stops it', async ({
  page,
  desk,
}) => {
  await desk.signIn('Tavi', '/slips/0417/intake')
  await answer(page, 'owner.account', 'nobody here can sign in')
  await expect(title(page)).toHaveText('Declined: nobody can open its account lock')
  await expect(page.getByRole('alert')).toContainText('We take no lock off')
  await expect(page.getByRole('status')).toContainText('This slip is declined')
  await desk.axe('declined')
  await page.keyboard.press('7')
  await expect(title(page)).toHaveText('Ready waits for Intake')
  await page.keyboard.press('1')
  await page.waitForURL('**/intake')
  await page.getByRole('button', { name: 'Open it again' }).press('Enter')
  await expect(page.getByRole('status')).toHaveCount(0)
  await answer(page, 'owner.account', 'the owner has shown that they can sign in')
  await expect(title(page)).toContainText('still to ask')
  await answer(page, 'condition.cell', 'swollen, hot, wet or dented')
  await expect(title(page)).toHaveText('Stopped: the cell is damaged')
  await expect(page.getByRole('alert')).toContainText(
    'follow local rules for damaged lithium cells',
  )
  await page.goto('/slips/0417/readings')
  await expect(title(page)).toHaveText('Readings waits for Intake')
})

test('a stage that is not reached says what it waits for, and Enter goes there', async ({
  page,
  desk,
}) => {
  await desk.signIn('Juno', '/slips/0432/write')
  await expect(title(page)).toHaveText('Write waits for Firmware')
  await desk.axe('a stage that waits')
  await enter(page)
  await page.waitForURL('**/slips/0432/firmware')
})

test('a typed build is read by its grammar, and what looks alike is told', async ({
  page,
  desk,
}) => {
  await desk.signIn('Tavi', '/slips/0408/readings')
  await page.getByLabel('What it says').fill('BRAK-H2K')
  await page.getByLabel('What it says').press('Enter')
  const fact = page.locator('[data-fact="model"]')
  await expect(fact).toContainText('the label')
  await expect(page.getByRole('main')).toContainText('BRAK-H2K')
})

test('two people see each other’s work on a slip live', async ({ browser }) => {
  const server = await openServer('demo')
  const base = `http://127.0.0.1:${server.port}`
  const open = async (who: string) => {
    const context = await browser.newContext({ baseURL: base })
    const page = await context.newPage()
    const wrong = watch(page, base)
    await makeDesk(page).signIn(who, '/slips/0417/intake')
    return { page, wrong, context }
  }
  const ilse = await open('Ilse')
  const tavi = await open('Tavi')
  await answer(ilse.page, 'owner.proof', 'shown')
  const seen = tavi.page.locator('[data-topic="owner.proof"]')
  await expect(seen.getByRole('button', { name: 'shown', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await expect(seen).toContainText('Ilse Maro')
  await answer(tavi.page, 'owner.proof', 'not shown')
  await expect(title(ilse.page)).toHaveText('Not yet: that it is theirs was not shown')
  expect([...ilse.wrong, ...tavi.wrong]).toEqual([])
  await ilse.context.close()
  await tavi.context.close()
  await server.stop()
})

for (const width of [1024, 390])
  test(`a slip and its plan are whole at ${width} px, in the dark`, async ({ page, desk }) => {
    await page.setViewportSize({ width, height: 800 })
    await page.emulateMedia({ colorScheme: 'dark' })
    await desk.signIn('Ilse', '/slips/0417/intake')
    for (const at of [
      '0417/intake',
      '0418/readings',
      '0421/plan',
      '0430/write',
      '0431/hand-back',
    ]) {
      await page.goto(`/slips/${at}`)
      await expect(title(page)).toBeVisible()
      const over = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      )
      expect(over, `${at} is wider than its page`).toBeLessThanOrEqual(0)
      await desk.axe(`${at} at ${width}`)
    }
  })

test('a plan prints without frame and buttons', async ({ page, desk }) => {
  await desk.signIn('Ilse', '/slips/0430/plan')
  await expect(title(page)).toContainText('steps, data kept')
  const head = page.getByText(/^Slip 0430 · .* · Plan, printed 2026-10-15/)
  await expect(head).toBeHidden()
  await page.emulateMedia({ media: 'print' })
  await expect(head).toBeVisible()
  await expect(page.getByRole('button', { name: 'Print the plan' })).toBeHidden()
  await expect(page.getByRole('region', { name: /Ledge/ })).toBeHidden()
  await expect(page.getByRole('group', { name: 'The wall' })).toBeVisible()
})
