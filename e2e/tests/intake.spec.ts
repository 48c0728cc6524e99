/** Intake that leads somewhere, by keyboard: what something lighter cures goes back without a write; a build mistyped. */
import { expect, test } from '../bench.ts'
import { answer, enter, title } from '../shop.ts'

test('a device that a restart cures is tested again and handed back, and nothing was written', async ({
  page,
  desk,
}) => {
  await desk.signIn('Ilse', '/slips/0409/intake')
  const main = page.getByRole('main')
  await expect(title(page)).toHaveText('Brakken H2 is taken in: data must survive')
  await expect(main).toContainText('Something lighter first')
  await expect(main).toContainText('Take the battery out for ten seconds.')
  await desk.axe('intake, something lighter')
  await answer(page, 'lighter.restart', 'that cured it')
  await expect(page.locator('[data-stage="write"]')).toContainText('a restart cured it')
  await enter(page)
  await expect(title(page)).toHaveText('A restart cured it: see that all of it works')
  await answer(page, 'after.data', 'as promised')
  await main.getByRole('button', { name: /^As before: Screen cannot be tested/ }).press('Enter')
  await expect(page.locator('[data-stage="first-start"]')).toContainText('as promised')
  await desk.axe('first start, cured')
  await enter(page)
  for (const topic of ['case', 'told']) await answer(page, `back.${topic}`, 'done')
  await expect(title(page)).toHaveText('Ready to go back: close the slip')
  await enter(page)
  await expect(title(page)).toHaveText('Handed back and closed')
  await page.goto('/slips/0409')
  await expect(page.locator('[data-stage="write"]')).toContainText('a restart cured it')
})

test('what was tried is kept with its build, and a mistyped one is told what was perhaps meant', async ({
  page,
  desk,
}) => {
  await desk.signIn('Tavi', '/slips/0418/intake')
  const main = page.getByRole('main')
  await answer(page, 'history.before', 'something was tried')
  const put = async (file: string) => {
    await main.getByLabel('What was tried').fill('a clean write')
    await main.getByLabel('With which file or build').fill(file)
    await main.getByLabel('With which file or build').press('Enter')
  }
  await put('H2.OZR.r5')
  await expect(main).toContainText('It breaks off at character 4')
  await expect(main).toContainText('Perhaps it is H2.0ZR.r5')
  await desk.axe('intake, a build mistyped')
  await put('H2.0ZR.r5')
  await expect(main.locator('[data-topic="history.before"]')).toContainText(
    'With which file or build: H2.0ZR.r5',
  )
  await page.goto('/slips/0418/readings')
  await expect(main).toContainText('H2.0ZR.r5, weight 1: somebody’s word')
})

test('a swapped housing is told by its fuses, and a dead one is led to the mode that would tell', async ({
  page,
  desk,
}) => {
  await desk.signIn('Ilse', '/slips/0418/readings')
  const main = page.getByRole('main')
  const model = page.locator('[data-fact="model"]')
  await expect(model).toContainText('BRAK-H2settled')
  await expect(model).toContainText('BRAK-H2K, weight 2: the label')
  await expect(model).toContainText('tells of the housing')
  await page.goto('/slips/0408/readings')
  await expect(page.locator('[data-claim="next"]')).toContainText('Read next')
  await expect(page.locator('[data-claim="leave"]')).toHaveCount(0)
  await main.getByRole('textbox', { name: 'Word for word' }).fill('no hum, no picture')
  await main.getByRole('button', { name: 'Keep it' }).press('Enter')
  await expect(page.locator('[data-claim="seen"] blockquote')).toContainText('no hum, no picture')
  await desk.axe('readings of a dead device')
})
