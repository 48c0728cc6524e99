/**
 * What server tests share: a database cloned from a template, a server on it, people at browsers.
 * Named after what somebody does, so that a test reads as a claim.
 */
import { randomBytes } from 'node:crypto'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { ApiError } from '@plain-slate/api'
import pg from 'pg'
import { inject } from 'vitest'
import { readConfig } from '../base/config.ts'
import type { BodyTime } from '../edge/body-time.ts'
import { serve } from '../serve.ts'
import type { Running } from '../serve.ts'

declare module 'vitest' {
  interface ProvidedContext {
    superuserUrl: string
    appPassword: string
  }
}

export type Template = 'demo' | 'empty'

/** The demo's people, with their PINs, as the templates hold them. */
export const PEOPLE = {
  Ilse: { id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0001', pin: '2204' },
  Tavi: { id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0002', pin: '3815' },
  Pell: { id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0003', pin: '6092' },
  Juno: { id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0004', pin: '7450' },
} as const
export type Name = keyof typeof PEOPLE

export type Answer<Body> = {
  readonly status: number
  readonly body: Body
  readonly headers: Headers
}

/** A browser: keeps its cookie, sends what browsers send. */
export type Browser = {
  readonly get: <Body = ApiError>(path: string) => Promise<Answer<Body>>
  readonly post: <Body = ApiError>(path: string, body?: object) => Promise<Answer<Body>>
  readonly patch: <Body = ApiError>(path: string, body: object) => Promise<Answer<Body>>
  readonly delete: <Body = ApiError>(path: string) => Promise<Answer<Body>>
  readonly text: (path: string) => Promise<string>
  readonly raw: (path: string, init: RequestInit) => Promise<Response>
  readonly signIn: (name: Name, pin?: string) => Promise<Answer<ApiError>>
}

export type Bench = {
  readonly server: Running
  readonly address: string
  readonly databaseUrl: string
  /** Somebody's browser, signed in. */
  readonly at: (name: Name) => Promise<Browser>
  /** A browser at which nobody is signed in. */
  readonly browser: () => Browser
  /** Runs SQL as the superuser: only to do what the product itself never does. */
  readonly tamper: (sql: string) => Promise<void>
  readonly close: () => Promise<void>
}

/**
 * Opens a bench on a fresh clone of a template; `via` may put something between server and database,
 * `more` sets what the start command would.
 */
export async function openBench(
  template: Template = 'demo',
  via: (url: string) => Promise<string> = (url) => Promise.resolve(url),
  more: NodeJS.ProcessEnv = {},
  options: { readonly bodyTime?: BodyTime } = {},
): Promise<Bench> {
  const { databaseUrl, superuserUrl } = await cloneTemplate(template)
  const server = await serve(configFor(await via(databaseUrl), more), '/nowhere', {
    version: 'test',
    jobs: false,
    ...options,
  })
  const address = `http://127.0.0.1:${server.port}`
  const at = async (name: Name) => {
    const browser = openBrowser(address)
    await browser.signIn(name)
    return browser
  }
  return {
    server,
    address,
    databaseUrl,
    at,
    browser: () => openBrowser(address),
    tamper: (sql) => asSuperuser(superuserUrl, `set search_path = plain_slate, book; ${sql}`),
    close: server.stop,
  }
}

/** A config as the start command would make it. */
export function configFor(databaseUrl: string, more: NodeJS.ProcessEnv = {}) {
  const secrets = join(mkdtempSync(join(tmpdir(), 'plain-slate-')), 'secrets')
  writeFileSync(secrets, 'cookie-secret\nbench-secret\n', { mode: 0o600 })
  const config = readConfig({
    DATABASE_URL: databaseUrl,
    PLAIN_SLATE_SECRETS: secrets,
    PLAIN_SLATE_LOG: 'silent',
    PLAIN_SLATE_VAULT: mkdtempSync(join(tmpdir(), 'plain-slate-vault-')),
    ...more,
  })
  if (!config.ok) throw new Error(config.refusal)
  return config.value
}

/** Clones a template database under a name of its own. */
export async function cloneTemplate(
  template: Template,
): Promise<{ readonly databaseUrl: string; readonly superuserUrl: string }> {
  const name = `t_${randomBytes(6).toString('hex')}`
  const superuser = new URL(inject('superuserUrl'))
  await asSuperuser(superuser.href, `create database ${name} template template_${template}`)
  superuser.pathname = name
  const app = new URL(superuser)
  app.username = 'plain_slate'
  app.password = inject('appPassword')
  return { databaseUrl: app.href, superuserUrl: superuser.href }
}

export async function asSuperuser(url: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  await client.query(sql).finally(() => client.end())
}

function openBrowser(address: string): Browser {
  let cookie = ''
  const raw = async (path: string, init: RequestInit) => {
    const headers = new Headers({ 'sec-fetch-site': 'same-origin', cookie })
    new Headers(init.headers).forEach((value, name) => headers.set(name, value))
    const response = await fetch(address + path, { ...init, headers })
    const set = response.headers.get('set-cookie')
    if (set !== null) cookie = set.split(';')[0] ?? ''
    return response
  }
  const call = async <Body>(method: string, path: string, body?: object): Promise<Answer<Body>> => {
    const response = await raw(path, {
      method,
      ...(method === 'GET'
        ? {}
        : {
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify(body ?? {}),
          }),
    })
    const text = await response.text()
    return {
      status: response.status,
      body: (text === '' ? {} : JSON.parse(text)) as Body,
      headers: response.headers,
    }
  }
  return {
    raw,
    get: (path) => call('GET', path),
    post: (path, body) => call('POST', path, body),
    patch: (path, body) => call('PATCH', path, body),
    delete: (path) => call('DELETE', path),
    text: async (path) => (await raw(path, {})).text(),
    signIn: (name, pin = PEOPLE[name].pin) =>
      call('POST', '/api/session', { person: PEOPLE[name].id, pin }),
  }
}
