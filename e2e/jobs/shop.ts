/** A shop for jobs: one whole shop a file, everything as fast as bytes go, its devices lying on the shelf. */
import type { ApiError } from '@plain-slate/api'
import type { HouseRules } from '@plain-slate/core'
import { DEMO_PEOPLE, idOf } from '@plain-slate/demo'
import type { DemoName } from '@plain-slate/demo'
import { cloneTemplate } from '@plain-slate/server/testing'
import { WholeShop } from '../bench/whole-shop.ts'
import type { Added } from '../bench/world.ts'

export async function openShop(
  packages: readonly string[],
  serials: readonly string[],
  added: Added = {},
): Promise<WholeShop> {
  const { databaseUrl } = await cloneTemplate('demo')
  const shop = new WholeShop(databaseUrl, 0)
  await shop.open([...packages], serials, added)
  return shop
}

/** Somebody of the shop at a browser of their own. */
export async function person(shop: WholeShop, name: DemoName) {
  const { id, pin = '' } = DEMO_PEOPLE.find((one) => one.id === idOf(name)) ?? { id: '' }
  const headers = { 'sec-fetch-site': 'same-origin', 'content-type': 'application/json' }
  const begun = await fetch(`${shop.address}/api/session`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ person: id, pin }),
  })
  const cookie = begun.headers.get('set-cookie')?.split(';')[0] ?? ''
  const call = async <Body>(method: 'GET' | 'POST', path: string, body?: object) => {
    const response = await fetch(shop.address + path, {
      method,
      headers: { ...headers, cookie },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    return (await response.json()) as Body & Partial<ApiError>
  }
  /** Decides a house rule. */
  const decides = async (rules: Partial<HouseRules>) => {
    const now = await call<{ version: number; rules: HouseRules }>('GET', '/api/house')
    const body = { version: now.version, rules: { ...now.rules, ...rules }, reason: 'for a test' }
    const { code, sentence } = await call<object>('POST', '/api/house', body)
    if (code !== undefined) throw new Error(sentence)
  }
  /** Overrules a rule of fit for a package of a slip. */
  const overrules = (slip: string, rule: string, key: string, reason: string) =>
    call<object>('POST', `/api/slips/${slip}/overrule`, { rule, package: key, reason })
  return { call, decides, overrules }
}
