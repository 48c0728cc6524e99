/** What changes under a job: packages that do not fit, files that are broken, plans that go stale, agents that die. */
import type { Bench } from '@plain-slate/api'
import type { Page } from '@playwright/test'
import { SIGNED, linesOf } from '../bench/lines.ts'
import { LEAD, OTHER, built, newestPackage, until } from '../bench/whole-shop.ts'
import { expect } from '../bench.ts'
import { drop, enter, goOn, holdStart, readIn, shopTest, title } from '../shop.ts'

const test = shopTest(40, [
  'tarn-H2.0ZC.r4',
  'tarn-loader-7-r4',
  'tarn-H2.104.r4',
  'tarn-H2.104.r5',
])

/** Puts down a reading as a person who looked. */
async function putDown(page: Page, fact: string, says: string, source: string): Promise<void> {
  await page.getByRole('combobox', { name: 'Fact' }).fill(fact)
  await page.getByRole('combobox', { name: 'Fact' }).press('Enter')
  await page.getByLabel('What it says').fill(says)
  await page.getByRole('combobox', { name: 'Source' }).press('Enter')
  await page.getByRole('option', { name: source, exact: true }).press('Enter')
  await page.getByRole('button', { name: 'Put it down' }).press('Enter')
}

test('another board is explained, a broken file is refused on Proof, a changed reading makes the plan stale', async ({
  page,
  desk,
}) => {
  await desk.signIn('Ilse', '/slips/0417/readings')
  await readIn(page)
  await page.goto('/slips/0417/firmware')
  const main = page.getByRole('main')
  await expect(main).toContainText('H2.104.r5')
  await main
    .getByRole('listitem')
    .filter({ hasText: 'H2.104.r5' })
    .getByRole('link', { name: 'Why not this one?' })
    .press('Enter')
  const margin = page.getByRole('complementary')
  await expect(margin).toContainText('Why not H2.104.r5?')
  await expect(margin).toContainText('For board r5; this board is r4')
  await desk.axe('why not')
  await enter(page)
  await expect(title(page)).toContainText('2 packages away')

  await page.keyboard.press('4')
  await drop(page, built('tarn-H2.0ZX.r4').volumes)
  await expect(main.getByRole('status')).toContainText('it ends too early, in main.img')
  await expect(title(page)).toContainText('Both packages are proven')
  await desk.axe('proof with a refused file')

  await page.keyboard.press('5')
  await expect(title(page)).toContainText('Nothing was read of what stands on it')
  await main.getByRole('button', { name: 'Write everything' }).press('Enter')
  await expect(title(page)).toContainText('7 of 7 images go on')
  await page.keyboard.press('6')
  await expect(title(page)).toContainText('that could kill it')
  await enter(page)
  await expect(main.getByRole('status')).toContainText('Taken')

  await page.keyboard.press('2')
  await expect(main).toContainText('goes stale where it rests on it')
  await putDown(page, 'board', 'r5', 'the label')
  await expect(page.locator('[data-fact="board"]')).toContainText('the label tells of the housing')
  await putDown(page, 'board', 'r5', 'the loader’s screen')
  await expect(page.locator('[data-claim="eye"]')).toContainText('Look at the board itself')
  await desk.axe('a board in doubt')
  await page.keyboard.press('7')
  await expect(page.locator('[data-check="eye"]')).toContainText('board')
  await page.keyboard.press('2')
  await putDown(page, 'rollback floor', '9', 'the loader’s screen')
  await expect(page.locator('[data-stage="plan"]')).toContainText('stale: take it again')
  await page.keyboard.press('6')
  await expect(title(page)).toHaveText('The plan is stale: rollback floor was 5, now 9')
  await desk.axe('a stale plan')
})

test('the agent is killed in mid-write, and its run is taken up from the slip’s own page', async ({
  page,
  desk,
  shop,
}) => {
  test.setTimeout(240_000)
  const before = shop.flash(LEAD).marks
  await desk.signIn('Ilse', '/slips/0417/readings')
  await readIn(page)
  await page.evaluate(async (signed) => {
    const send = async (path: string, body: object) => {
      const response = await fetch(`/api/slips/0417/${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      })
      return (await response.json()) as { now: { digest: string } | null }
    }
    const say = (topic: string, answer: string) => send('lines', { lines: [{ topic, answer }] })
    await say('route.package', 'tarn-H2.104.r4')
    await say('compare.unread', 'write-all')
    const plan = (await (await fetch('/api/slips/0417/plan')).json()) as {
      now: { digest: string } | null
    }
    await send('plan', { digest: plan.now?.digest ?? '' })
    await send('lines', signed)
  }, linesOf(SIGNED))
  await page.goto('/slips/0417/write')
  await holdStart(page)
  const main = page.getByRole('main')
  await expect(title(page)).toHaveText('Hands off', { timeout: 60_000 })
  await expect(main).toContainText('Write main, piece', { timeout: 60_000 })
  await main.getByRole('button', { name: 'It shows something else' }).press('Enter')
  await main.getByRole('button', { name: 'a menu of four lines' }).press('Enter')
  await expect(main).toContainText('That is rescue. The run waits for it in the loader.')
  await desk.axe('it shows something else')

  await shop.kill('agent a')
  await expect(title(page)).toHaveText('In doubt: nobody drives this run', { timeout: 40_000 })
  await expect(page.locator('[data-stage="write"]')).toContainText('step')
  await desk.axe('in doubt')
  await shop.begin('agent a')
  await until(
    'the agent says that it lives',
    async () => (await shop.call<Bench>('GET', '/api/bench')).watched,
  )
  await expect(async () => {
    await main.getByRole('button', { name: 'Take it up' }).press('Enter')
    await expect(title(page)).toHaveText('Hands off', { timeout: 3000 })
  }).toPass({ timeout: 40_000 })

  /* On a machine that is busy a hold may be drawn too late to count: whoever stands there holds again. */
  await expect(async () => {
    await page.keyboard.down('Escape')
    await page.waitForTimeout(1800)
    await page.keyboard.up('Escape')
    await expect(title(page)).toHaveText('Stopped: Ilse Maro asked for it', { timeout: 4000 })
  }).toPass({ timeout: 30_000 })
  await main.getByRole('button', { name: 'Take it up' }).press('Enter')
  await goOn(page, shop, LEAD)
  await expect(title(page)).toHaveText('Done: H2.104.r4 is on it and proven', { timeout: 90_000 })
  const flash = shop.flash(LEAD)
  expect({ wrong: flash.wrong(newestPackage()), marks: flash.marks }).toEqual({
    wrong: [],
    marks: before,
  })
})

test('a like device beside it is told apart: another slip’s is refused', async ({
  page,
  desk,
  shop,
}) => {
  await desk.signIn('Ilse', '/slips/0417/readings')
  await readIn(page)
  await shop.hands({ kind: 'plug', serial: OTHER, port: 'P3' })
  await expect(page.getByRole('link', { name: /P3/ })).toContainText('0425')
  await page.goto('/slips/0426/readings')
  const refused = await page.evaluate(async () => {
    const response = await fetch('/api/slips/0417/read', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ port: 'P3' }),
    })
    return ((await response.json()) as { code: string }).code
  })
  expect(refused).toBe('slip.claimed')
})
