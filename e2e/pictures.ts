/**
 * Makes the pictures in docs/screenshots from the demo data: `npm run pictures`. One a view, at
 * 1280x800, with motion off and the faces loaded.
 */
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { ROOT } from '../scripts/bootstrap.mjs'
import { makeDesk, openServer } from './bench.ts'
import setup from './setup.ts'
import config from './playwright.config.ts'

const VIEWS: Readonly<Record<string, string>> = {
  slips: '/slips',
  slip: '/slips/0417',
  book: '/book',
  house: '/house',
}

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
await browser.close()
await server.stop()
await stop()
