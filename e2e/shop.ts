/**
 * A whole shop in front of a browser: real server, agent and simulated bench, each test with its own; and
 * what hands do on a slip, by keyboard.
 */
import type { Page } from '@playwright/test'
import { INTAKE, linesOf } from './bench/lines.ts'
import type { built } from './bench/whole-shop.ts'
import { WholeShop } from './bench/whole-shop.ts'
import type { Added } from './bench/world.ts'
import { cloneTemplate, expect, test as base } from './bench.ts'

type Volume = ReturnType<typeof built>['volumes'][number]

/** Tests of a shop whose devices live `pace` times as fast; with these packages on the shelf. */
export const shopTest = (pace: number, shelved: readonly string[]) =>
  base.extend<{ shop: WholeShop }>({
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
    shop: async ({}, use) => {
      const shop = new WholeShop(await cloneTemplate('demo'), pace)
      await shop.open([...shelved])
      await use(shop)
      await shop.close()
    },
    baseURL: ({ shop }, use) => use(shop.address),
  })

/** Tests that share one shop at full speed, a device of each job on its bench. */
export const jobTest = (shelved: readonly string[], serials: readonly string[], added: Added) =>
  base.extend<object, { shop: WholeShop }>({
    shop: [
      // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
      async ({}, use) => {
        const shop = new WholeShop(await cloneTemplate('demo'), 0)
        await shop.open([...shelved], serials, added)
        await use(shop)
        await shop.close()
      },
      { scope: 'worker', timeout: 180_000 },
    ],
    baseURL: ({ shop }, use) => use(shop.address),
  })

/** Drops files onto the page as a hand would. */
export async function drop(page: Page, volumes: readonly Volume[]): Promise<void> {
  const files = volumes.map(({ file, chunks }) => ({
    name: file,
    bytes: Buffer.concat([...chunks()]).toString('base64'),
  }))
  const transfer = await page.evaluateHandle((given) => {
    const made = new DataTransfer()
    for (const { name, bytes } of given) {
      const whole = Uint8Array.from(atob(bytes), (one) => one.charCodeAt(0))
      made.items.add(new File([whole], name))
    }
    return made
  }, files)
  await page.dispatchEvent('body', 'dragover', { dataTransfer: transfer })
  await page.dispatchEvent('body', 'drop', { dataTransfer: transfer })
}

export const title = (page: Page) => page.getByRole('main').getByRole('heading', { level: 1 })

/** Answers one thing that is asked, by keyboard. */
export async function answer(page: Page, topic: string, says: string): Promise<void> {
  const asked = page.locator(`[data-topic="${topic}"]`)
  const button = asked.getByRole('button', { name: says, exact: true })
  await button.press('Enter')
  await asked.locator('[aria-pressed="true"]').waitFor()
}

/** What Intake needs for a ticket handheld whose tickets must survive. */
const ANSWERS: readonly (readonly [topic: string, says: string])[] = [
  ['survive.tickets', 'must survive'],
  ['survive.settings', 'may go'],
  ['owner.proof', 'shown'],
  ['owner.managed', 'yes, and its manager has agreed'],
  ['owner.account', 'there is none'],
  ['condition.cell', 'sound'],
  ['condition.wet', 'dry'],
  ['history.before', 'nothing was tried'],
  ['consent.no-guarantee', 'agreed'],
  ['accessory.sim', 'none'],
  ['accessory.card', 'none'],
  ['accessory.case', 'here'],
]

export async function takeIn(page: Page): Promise<void> {
  for (const [topic, says] of ANSWERS) await answer(page, topic, says)
  await page.getByRole('button', { name: /^None of these is on it: / }).press('Enter')
  await page.getByRole('button', { name: 'All seven work' }).press('Enter')
}

/** What comes before it leaves its system: a copy that was made and opens, and its link permission. */
export async function beforeLeaving(page: Page): Promise<void> {
  const main = page.getByRole('main')
  await main.getByRole('button', { name: /: made, and it opens$/ }).press('Enter')
  await main.locator('[data-topic="ready.backup"]').getByText('made, and it opens').waitFor()
  await main.getByRole('button', { name: /^Sign: Its link permission/ }).press('Enter')
  await main.getByText('nothing holds it there').waitFor()
}

/** Signs at Ready what people sign for; the copy was answered at Readings. */
export const sign = (page: Page): Promise<void> =>
  page.getByRole('main').getByRole('button', { name: 'Sign all that is done' }).press('Enter')

/** Lays the focus on the sheet, where Enter does its one main action. */
export async function enter(page: Page): Promise<void> {
  await expect(page.locator('.go button:disabled')).toHaveCount(0)
  await page.getByRole('main').focus()
  await page.keyboard.press('Enter')
}

/** Its first start waits for a key: the run says so, somebody presses it, and says that it is done. */
export async function goOn(page: Page, shop: WholeShop, serial: string): Promise<void> {
  await expect(title(page)).toContainText('Hands now', { timeout: 90_000 })
  await expect(page.getByRole('main')).toContainText('press the scan key')
  await shop.hands({ kind: 'confirm', serial })
  await page.keyboard.press('.')
}

/** Holds the start button down for as long as it asks. */
export async function holdStart(page: Page): Promise<void> {
  const hold = page.getByRole('button', { name: /^Write / })
  await hold.focus({ timeout: 5000 })
  await page.keyboard.down('Space')
  await page.waitForTimeout(1900)
  await page.keyboard.up('Space')
}

/** Takes slip 0417 in and reads its device, over the server, as the page would. */
export async function readIn(page: Page, number = '0417', port = 'P2'): Promise<void> {
  await page.evaluate(
    async ({ lines, at, from }) => {
      const send = (path: string, body: object) =>
        fetch(`/api/slips/${at}/${path}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        })
      await send('lines', lines)
      await send('read', { port: from, deep: false })
    },
    { lines: linesOf(INTAKE), at: number, from: port },
  )
}
