/**
 * What browser tests share: a server on a database of the worker's own, a page that fails its test on
 * a console error or a request to any other host, and the hands that people have.
 */
import { randomBytes } from 'node:crypto'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { DEMO_PEOPLE, FAMILIES_FOLDER } from '@plain-slate/demo'
import type { Running } from '@plain-slate/server'
import { readConfig, serve } from '@plain-slate/server'
import type Axe from 'axe-core'
import type { Page } from '@playwright/test'
import { test as base, expect } from '@playwright/test'
import pg from 'pg'

export type Template = 'demo' | 'empty'
/** Slower than a scanner: the quickest keys of a person. */
export const TYPING_MS = 65
const WEB_DIST = fileURLToPath(new URL('../packages/web/dist', import.meta.url))
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** A fresh clone of a template: the address of a database that nobody else uses. */
export async function cloneTemplate(template: Template): Promise<string> {
  const superuser = new URL(process.env['E2E_SUPERUSER_URL'] ?? '')
  const name = `e_${randomBytes(6).toString('hex')}`
  const client = new pg.Client({ connectionString: superuser.href })
  await client.connect()
  await client.query(`create database ${name} template template_${template}`)
  await client.end()
  superuser.pathname = name
  superuser.username = 'plain_slate'
  superuser.password = process.env['E2E_APP_PASSWORD'] ?? ''
  return superuser.href
}

/** Starts a server on a fresh clone of a template; `more` sets what the start command would. */
export async function openServer(
  template: Template,
  more: NodeJS.ProcessEnv = {},
): Promise<Running> {
  const secrets = join(mkdtempSync(join(tmpdir(), 'plain-slate-')), 'secrets')
  writeFileSync(secrets, `${randomBytes(9).toString('hex')}\nbench-secret\n`)
  const config = readConfig({
    DATABASE_URL: await cloneTemplate(template),
    PLAIN_SLATE_SECRETS: secrets,
    PLAIN_SLATE_LOG: 'error',
    PLAIN_SLATE_FAMILIES: FAMILIES_FOLDER,
    PLAIN_SLATE_VAULT: mkdtempSync(join(tmpdir(), 'plain-slate-vault-')),
    ...more,
  })
  if (!config.ok) throw new Error(config.refusal)
  return serve(config.value, WEB_DIST, { version: 'e2e', jobs: false })
}

export const test = base.extend<{ desk: Desk }, { server: Running }>({
  server: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
    async ({}, use) => {
      const server = await openServer('demo')
      await use(server)
      await server.stop()
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ server }, use) => use(`http://127.0.0.1:${server.port}`),
  page: async ({ page, baseURL }, use) => {
    const wrong = watch(page, baseURL ?? '')
    await use(page)
    expect(wrong, 'console errors and foreign requests').toEqual([])
  },
  desk: async ({ page }, use) => use(makeDesk(page)),
})
export { expect }

/** Collects console errors and requests to other hosts; errors that a test expects are named in it. */
export function watch(page: Page, ours: string): string[] {
  const wrong: string[] = []
  page.on('console', (message) => {
    const refused = /Failed to load resource.*(401|403|404|409|422|429)/.test(message.text())
    if (message.type() === 'error' && !refused) wrong.push(message.text())
  })
  page.on('pageerror', (error) => wrong.push(error.message))
  page.on('request', (request) => {
    const url = request.url()
    if (!url.startsWith(ours) && !/^(data|blob):/.test(url)) wrong.push(`request to ${url}`)
  })
  return wrong
}

export type Desk = {
  /** Signs somebody in by keyboard from wherever the page is. */
  readonly signIn: (first: string, to?: string) => Promise<void>
  readonly type: (text: string) => Promise<void>
  /** A scanner: all characters at once, then Enter. */
  readonly scan: (text: string) => Promise<void>
  readonly axe: (where: string) => Promise<void>
}

/** A scanner's gap between two characters. */
const SCANNER_MS = 8

/**
 * Sends a scan with times of its own, so that a busy machine does not make a slow typist of it:
 * Chromium takes an event's time from the message.
 */
async function scan(page: Page, text: string): Promise<void> {
  const chromium = await page.context().newCDPSession(page)
  const began = Date.now()
  for (const [index, key] of [...text, 'Enter'].entries()) {
    const timestamp = (began + index * SCANNER_MS) / 1000
    const enter = key === 'Enter'
    const typed = enter ? { text: '\r', windowsVirtualKeyCode: 13, code: 'Enter' } : { text: key }
    await chromium.send('Input.dispatchKeyEvent', { type: 'keyDown', key, timestamp, ...typed })
    await chromium.send('Input.dispatchKeyEvent', { type: 'keyUp', key, timestamp })
  }
  await chromium.detach()
}

export function makeDesk(page: Page): Desk {
  return {
    async signIn(first, to = '/counter') {
      const person = DEMO_PEOPLE.find(({ name }) => name.startsWith(first))
      await page.goto(`/sign-in?to=${encodeURIComponent(to)}`)
      await page.getByRole('button', { name: first }).press('Enter')
      await page.keyboard.type(person?.pin ?? '', { delay: TYPING_MS })
      await page.keyboard.press('Enter')
      await page.waitForURL(`**${to}`)
      await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeVisible()
    },
    type: (text) => page.keyboard.type(text, { delay: TYPING_MS }),
    scan: (text) => scan(page, text),
    async axe(where) {
      /* It stays on a page until that is loaded anew. */
      if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE)
      const found = await page.evaluate(async () => {
        const { axe } = window as unknown as { axe: typeof Axe }
        const { violations } = await axe.run(document, {
          /* Of what passes nobody reads the places. */
          resultTypes: ['violations'],
          runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
        })
        return violations.map(
          ({ id, nodes }) => `${id}: ${nodes.map((node) => node.html).join(' | ')}`,
        )
      })
      expect(found, `axe on ${where}`).toEqual([])
    },
  }
}
