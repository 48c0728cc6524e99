/**
 * Makes the pictures in docs/screenshots from the demo data: `npm run pictures`. One a view, at
 * 1280x800, with motion off and the faces loaded.
 */
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { ROOT } from '../scripts/bootstrap.mjs'
import { DEMO_PACKAGES, demoSenderAt, idOfDraft, takeDemoCatalogue } from '@plain-slate/demo'
import { cloneTemplate, makeDesk, openServer } from './bench.ts'
import { WholeShop } from './bench/whole-shop.ts'
import { beforeLeaving, answer, enter, holdStart, sign, takeIn } from './shop.ts'
import setup from './setup.ts'
import config from './playwright.config.ts'

const VIEWS: Readonly<Record<string, string>> = {
  slips: '/slips',
  book: '/book',
}

/** Fast enough not to wait long, slow enough to meet main while it is written. */
const PACE = 20
/** The step at which main is half written. */
const HALF_MAIN = 24

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
/** Opens an address of the whole shop and waits until its headline says something. */
const open = async (whole: WholeShop, path: string, there: RegExp) => {
  await page.goto(whole.address + path)
  await page.getByRole('heading', { level: 1, name: there }).waitFor({ timeout: 90_000 })
}
const until = (there: RegExp) =>
  page.getByRole('heading', { level: 1, name: there }).waitFor({ timeout: 90_000 })

/** A handheld that is at no port: what to read next, and the way there as its hands go it. */
async function shootWay(whole: WholeShop): Promise<void> {
  await open(whole, '/slips/0409/readings', /not settled/)
  await page.getByRole('button', { name: /^Show the way/ }).click()
  await page.getByRole('button', { name: 'dark' }).click()
  const way = page.getByRole('region', { name: /^The way to/ })
  for (const name of [/^Begin/, /^Next/, /^Next/, /^Next/, /^Next/])
    await way.getByRole('button', { name }).click()
  await way.evaluate((card) => card.scrollIntoView({ block: 'end' }))
  await page.waitForTimeout(1500)
  await shoot('way')
}

/** The label of 0417 as it is printed, where this computer has poppler's tool that draws a PDF. */
async function shootLabel(): Promise<void> {
  const label = await page.request.get(`${shop.address}/api/slips/0417/label.pdf`)
  const at = join(ROOT, 'docs/screenshots', 'label')
  const drawn = spawnSync('pdftoppm', ['-png', '-singlefile', '-r', '220', '-', at], {
    input: await label.body(),
  })
  if (drawn.status !== 0) console.log('No pdftoppm here: the picture of the label is as it was.')
}

/** Slip 0417 from the counter to the hand back, a picture at each stage. */
async function shootSlip(whole: WholeShop): Promise<void> {
  const stage = (name: string, there: RegExp) => open(whole, `/slips/0417/${name}`, there)
  await stage('intake', /still to ask/)
  await takeIn(page)
  await until(/is taken in/)
  await page.getByRole('main').evaluate((sheet) => sheet.scrollTo(0, 0))
  await shoot('intake')
  await stage('readings', /not settled/)
  await enter(page)
  await until(/All 14 facts/)
  await beforeLeaving(page)
  await page.getByRole('button', { name: /Into the loader and back/ }).click()
  await page.getByText('7 digests').waitFor({ timeout: 90_000 })
  await shoot('readings')
  await shootWay(whole)
  await stage('firmware', /keep the data/)
  await page.getByRole('link', { name: 'What if …' }).click()
  await page.getByLabel('Suppose something of').selectOption('fact loaderVersion')
  await page.getByRole('textbox', { name: /^loader/ }).fill('7')
  await page.locator('[data-is="new"]').first().waitFor()
  await page.getByRole('button', { name: /^Take .* Enter/ }).waitFor({ timeout: 60_000 })
  await page.emulateMedia({ colorScheme: 'dark' })
  await shoot('what-if')
  await page.emulateMedia({ colorScheme: 'light' })
  await page.getByRole('link', { name: 'Back to the findings' }).click()
  await enter(page)
  await until(/packages away/)
  await shoot('firmware')
  await stage('proof', /are proven/)
  await page.getByText('loader 7').first().click()
  await shoot('proof')
  await stage('plan', /could kill it/)
  await shoot('plan')
  await enter(page)
  await page.getByRole('status').filter({ hasText: 'Taken today' }).waitFor()
  await stage('ready', /in the way/)
  await shoot('ready')
  await sign(page)
  await until(/everything holds/)
  await stage('write', /^Start/)
  await holdStart(page)
  await until(/Hands off/)
  const id = (await page.evaluate(async () => {
    const job = await fetch('/api/slips/0417/job')
    return ((await job.json()) as { run: string }).run
  })) as string
  await whole.follow(id, 'main is half written', ({ step }) => step >= HALF_MAIN)
  await shoot('write')
  await open(whole, '/bench/P2', /Write main/)
  await shoot('bench')
  await open(whole, '/counter', /open/)
  await shoot('counter')
  await whole.follow(id, 'it is done', ({ state }) => state === 'ended')
  await stage('first-start', /what was promised/)
  await enter(page)
  await page.getByText('The same: 214 items').waitFor({ timeout: 90_000 })
  await shoot('first-start')
  await answer(page, 'after.data', 'as promised')
  await page.getByRole('button', { name: /^As before/ }).click()
  await stage('hand-back', /to do before/)
  for (const one of ['permission', 'key']) await answer(page, `undo.${one}`, 'done')
  await page.getByRole('main').evaluate((sheet) => sheet.scrollTo(0, 0))
  await shoot('hand-back')
}

const desk = makeDesk(page)
await page.goto('/sign-in')
await page.getByRole('button', { name: 'Ilse' }).click()
await desk.type('2204')
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
await page.goto('/house/families/alder')
await page.getByRole('img', { name: /^Modes of/ }).waitFor()
await page.locator('#modes').evaluate((modes) => modes.scrollIntoView())
await shoot('family')
const shop = new WholeShop(await cloneTemplate('demo'), PACE)
await shop.open(DEMO_PACKAGES.map(idOfDraft))
await takeDemoCatalogue(shop.address, demoSenderAt(shop.address, shop.secret, 'Ilse'))
await page.goto(`${shop.address}/sign-in`)
await page.getByRole('button', { name: 'Ilse' }).click()
await desk.type('2204')
await page.keyboard.press('Enter')
await page.waitForFunction(() => location.pathname === '/counter')
await open(shop, '/shelf', /packages/)
await shoot('shelf')
/* Of the House its bench, with an agent that holds the ports. */
await page.goto(`${shop.address}/house#house-tokens`)
await page.getByRole('row', { name: /^P2 tcp:/ }).waitFor()
await page.locator('#house-tokens').evaluate((tokens) => tokens.scrollIntoView())
await shoot('house')
await shootLabel()
await shootSlip(shop)
await browser.close()
await shop.close()
await server.stop()
await stop()
