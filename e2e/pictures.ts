/**
 * Makes the pictures in docs/screenshots from the demo data: `npm run pictures`. One a view, at
 * 1280x800, with motion off and the faces loaded.
 */
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { ROOT } from '../scripts/bootstrap.mjs'
import { TARN_PACKAGES } from '@plain-slate/demo'
import { cloneTemplate, makeDesk, openServer } from './bench.ts'
import { WholeShop } from './bench/whole-shop.ts'
import setup from './setup.ts'
import config from './playwright.config.ts'

const VIEWS: Readonly<Record<string, string>> = {
  slips: '/slips',
  slip: '/slips/0417',
  book: '/book',
  house: '/house',
}

/** A piece of main then lasts some seconds: long enough for a picture. */
const PACE = 10

const stop = await setup()
const server = await openServer('demo')
const browser = await chromium.launch(config.use?.launchOptions ?? {})
const page = await browser.newPage({
  baseURL: `http://127.0.0.1:${server.port}`,
  viewport: { width: 1280, height: 800 },
  reducedMotion: 'reduce',
})
const shoot = async (name: string) => {
  await page.waitForTimeout(500)
  await page.evaluate(() => document.fonts.ready)
  await page.screenshot({ path: join(ROOT, 'docs/screenshots', `${name}.png`) })
}
/** The shelf with everything that the demo has, and the lead device while main is written to it. */
async function shootBench(whole: WholeShop): Promise<void> {
  const at = async (path: string, there: RegExp) => {
    await page.goto(whole.address + path)
    await page.getByRole('heading', { level: 1, name: there }).waitFor()
  }
  await page.goto(`${whole.address}/sign-in`)
  await page.getByRole('button', { name: 'Ilse' }).click()
  await desk.type('2204')
  await page.keyboard.press('Enter')
  await page.waitForURL('**/counter')
  await at('/shelf', /packages/)
  await shoot('shelf')
  const id = await whole.start()
  await whole.follow(id, 'main is written', ({ step }) => step >= 26)
  await at('/bench/P2', /Write main/)
  await shoot('bench')
}

const desk = makeDesk(page)
await page.goto('/sign-in')
await page.getByRole('button', { name: 'Ilse' }).click()
await desk.type('2204')
await shoot('sign-in')
await desk.signIn('Ilse')
await page.request.post('/api/book/check', {
  headers: { 'sec-fetch-site': 'same-origin' },
  data: {},
})
for (const [name, path] of Object.entries(VIEWS)) {
  await page.goto(path)
  await page.getByRole('main').getByRole('heading', { level: 1 }).waitFor()
  await shoot(name)
}
const shop = new WholeShop(await cloneTemplate('demo'), PACE)
await shop.open(TARN_PACKAGES.map((one) => one.more.id ?? `tarn-${one.build}`))
await shootBench(shop)
await browser.close()
await shop.close()
await server.stop()
await stop()
