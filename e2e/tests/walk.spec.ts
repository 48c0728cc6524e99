/** Slip 0417 from Intake to Hand back by keyboard, and then what its flash holds. */
import { LEAD, newestPackage } from '../bench/whole-shop.ts'
import { expect } from '../bench.ts'
import {
  beforeLeaving,
  answer,
  enter,
  goOn,
  holdStart,
  shopTest,
  sign,
  takeIn,
  title,
} from '../shop.ts'

/** The run lasts some twenty model minutes: twenty seconds here. */
const test = shopTest(40, [
  'tarn-H2.0ZC.r4',
  'tarn-loader-7-r4',
  'tarn-H2.0ZP.r4',
  'tarn-H2.104.r4',
  'tarn-H2.104.r5',
])

test('0417 is led through its whole job by keyboard, and its tickets are bit by bit as before', async ({
  page,
  desk,
  shop,
}) => {
  test.setTimeout(240_000)
  const before = shop.flash(LEAD).marks
  await desk.signIn('Ilse', '/slips/0417')
  await expect(title(page)).toHaveText('Brakken H2K: update, at Intake')
  await enter(page)
  await page.waitForURL('**/slips/0417/intake')
  await expect(title(page)).toContainText('still to ask')
  await takeIn(page)
  await expect(title(page)).toHaveText('Brakken H2K is taken in: data must survive')
  await desk.axe('intake')

  await enter(page)
  await expect(title(page)).toHaveText(/14 facts are not settled/)
  await desk.axe('readings, open')
  await enter(page)
  await expect(title(page)).toHaveText('All 14 facts that the job needs are settled')
  const main = page.getByRole('main')
  await expect(main).toContainText('Counted on it: 214 items')
  const deep = main.getByRole('button', { name: /Into the loader and back/ })
  await expect(deep).toBeDisabled()
  await desk.axe('readings, before it leaves')
  await beforeLeaving(page)
  await deep.press('Enter')
  await expect(main).toContainText('7 digests, and its partition table', { timeout: 60_000 })
  await desk.axe('readings, settled')

  await enter(page)
  await expect(title(page)).toHaveText('2 routes keep the data; the best ends on H2.104.r4')
  await desk.axe('firmware')
  /* Supposed and dropped again: nothing of the slip is touched. */
  await main.getByRole('link', { name: 'What if …' }).press('Enter')
  await page.getByLabel('Suppose something of').selectOption('fact loaderVersion')
  await page.getByRole('textbox', { name: /^loader/ }).fill('7')
  const would = page.getByRole('list', { name: 'Routes as they would be' })
  await expect(would.locator('li').first()).toContainText('H2.104.r4 by parts over the cable')
  await expect(would.locator('[data-is="new"]')).toHaveCount(1)
  await expect(would.locator('[data-is="gone"]')).toHaveCount(1)
  await desk.axe('what if')
  await main.getByRole('link', { name: 'Back to the findings' }).press('Enter')
  await expect(title(page)).toHaveText('2 routes keep the data; the best ends on H2.104.r4')
  await enter(page)
  await expect(title(page)).toHaveText('H2.104.r4 is 2 packages away, and the data are kept')
  await enter(page)
  await expect(title(page)).toHaveText(/^Both packages are proven: \d+ claims hold$/)
  await desk.axe('proof')
  await enter(page)
  await expect(title(page)).toHaveText('5 of 7 images go on; 2 are left alone')
  await desk.axe('compare')
  await enter(page)
  await expect(title(page)).toContainText('data kept: 1 s that could kill it')
  await desk.axe('plan')
  /* Planned as another school would have it, and back again. */
  const turn = async (name: string, why: string) => {
    const row = page.locator(`[data-otherwise="${name}"]`)
    await expect(row).not.toContainText('is being rehearsed', { timeout: 60_000 })
    await row.getByRole('link', { name: /Side by side/ }).press('Enter')
    await expect(page.getByRole('group', { name: /^Side by side/ })).toContainText('Restart')
    await desk.axe('two plans side by side')
    await page.getByLabel('why this slip departs from the house').fill(why)
    await page.getByRole('button', { name: 'Plan it so' }).press('Enter')
    await expect(page.getByLabel('why this slip departs')).toHaveCount(0)
  }
  const departed = main.getByText('On this slip otherwise than the house: restarts')
  await turn('restarts every', 'it lost a part in the spring')
  await expect(departed).toBeVisible()
  await expect(main).toContainText('it lost a part in the spring')
  await turn('restarts family', 'it was another one')
  await expect(departed).toHaveCount(0)
  await enter(page)
  await expect(main.getByRole('status')).toContainText('by Ilse Maro')
  await expect(page.locator('.go button').first()).toContainText('Ready')
  await enter(page)
  await expect(title(page)).toHaveText('3 things are in the way of the write')
  await desk.axe('ready')
  await sign(page)
  await expect(title(page)).toHaveText('Ready: everything holds and is signed')
  await enter(page)
  await expect(title(page)).toHaveText('Start: H2.104.r4 to …7F31 at P2')
  await expect(main).toContainText('Ferry line, handheld 14')
  await desk.axe('the start card')
  await enter(page)
  await expect(title(page)).toHaveText('Start: H2.104.r4 to …7F31 at P2')

  await holdStart(page)
  await expect(title(page)).toHaveText('Hands off', { timeout: 60_000 })
  await expect(main).toContainText('The device shows a grey bar above six small lines')
  await desk.axe('hands off')
  await expect(main).toContainText('main · ', { timeout: 60_000 })
  const ledge = page.getByRole('link', { name: /Hands off P2/ })
  await expect(ledge).toHaveAttribute('href', '/slips/0417/write')
  await goOn(page, shop, LEAD)
  await expect(title(page)).toHaveText('Done: H2.104.r4 is on it and proven', { timeout: 90_000 })

  await expect(main.getByRole('button', { name: /On to First start/ })).toBeVisible()
  await enter(page)
  await expect(title(page)).toHaveText('It is what was promised: H2.104.r4')
  await enter(page)
  await expect(main).toContainText('The same: 214 items')
  await desk.axe('first start')
  await answer(page, 'after.data', 'as promised')
  await main.getByRole('button', { name: /^As before: Screen works, / }).press('Enter')
  await expect(page.locator('[data-stage="first-start"]')).toContainText('as promised')
  await enter(page)
  await expect(title(page)).toHaveText(/things are to do before it goes back/)
  await desk.axe('hand back')
  for (const topic of ['permission', 'key']) await answer(page, `undo.${topic}`, 'done')
  for (const topic of ['case', 'told']) await answer(page, `back.${topic}`, 'done')
  await expect(title(page)).toHaveText('Ready to go back: close the slip')
  await enter(page)
  await expect(title(page)).toHaveText('Handed back and closed')
  await expect(page.getByRole('link', { name: /Done P2/ })).toHaveCount(0)
  const care = page.locator('[data-claim="care"]')
  await expect(care).toContainText('kept until the owner says that all is well')
  await care.getByRole('button', { name: 'The owner says that all is well' }).press('Enter')
  await care.getByRole('button', { name: 'The copy was deleted' }).press('Enter')
  await expect(care).toHaveCount(0)
  const sheet = await page.request.get(
    (await page.getByRole('link', { name: /sheet, PDF/ }).getAttribute('href')) ?? '',
  )
  expect((await sheet.body()).subarray(0, 5).toString()).toBe('%PDF-')

  await page.getByRole('link', { name: 'The record in the book' }).press('Enter')
  await expect(main).toContainText('ended a run as promised')
  const flash = shop.flash(LEAD)
  expect({ wrong: flash.wrong(newestPackage()), marks: flash.marks }).toEqual({
    wrong: [],
    marks: before,
  })
})
