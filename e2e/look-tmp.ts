import { chromium } from '@playwright/test'
import config from './playwright.config.ts'
const browser = await chromium.launch(config.use?.launchOptions ?? {})
const page = await browser.newPage({ baseURL: 'http://127.0.0.1:4173', viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
const errors: string[] = []
page.on('pageerror', (e) => errors.push(String(e)))
page.on('console', (m) => m.type() === 'error' && errors.push(m.text()))
await page.goto('/')
await page.waitForTimeout(1500)
await page.getByRole('button', { name: /Tavi Renn/ }).first().click()
const pin = page.locator('input').first()
await pin.fill('3815'); await pin.press('Enter')
await page.waitForTimeout(1200)
await page.goto('/bench'); await page.waitForTimeout(1500)
await page.getByLabel(/COR4NB201406/).selectOption('P1').catch((e) => errors.push(String(e)))
await page.waitForTimeout(2500)
await page.goto('/bench/P1'); await page.waitForTimeout(2500)
await page.screenshot({ path: '/tmp/k/p1.png' })
const call = async (path: string, body: object) => { const r = await page.request.post(path, { data: body, headers: { origin: 'http://127.0.0.1:4173' } }); return [r.status(), await r.json()] }
const res = { fit: await call('/api/bench/ports/P1/fit', { intent: 'downgrade', keepData: false }), plan: await call('/api/plans', { port: 'P1', package: 'alder-19-2620.1-HO', intent: 'downgrade', keepData: false }) }
console.log(JSON.stringify(res.fit).slice(0, 3000))
console.log(JSON.stringify(res.plan).slice(0, 1500))
console.log(errors)
await browser.close()
