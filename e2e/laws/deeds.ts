/**
 * Deeds on what a shop has besides one slip: its people, shelf, families, rules, bench; and what is rarely done to a slip.
 * Each calls routes of the contract as a page does, and leaves the shop so that other walks can go on in it.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { HouseRules } from '@plain-slate/core'
import { DEMO_PEOPLE, FAMILIES_FOLDER, demoCatalogue } from '@plain-slate/demo'
import { tarOf } from '@plain-slate/archives'
import type { LawShop, Told, Who } from './law-shop.ts'
import { isRefusal } from './law-shop.ts'
import type { Memory } from './memory.ts'

type At = {
  readonly shop: LawShop
  readonly memory: Memory
  readonly who: Who
  /** Of this walk's choosing: names differ by it. */
  readonly n: number
}
type Deed = {
  /** Names of the contract's routes that it calls. */
  readonly routes: readonly string[]
  readonly does: (at: At) => Promise<Told>
}

const post = ({ shop, who }: At, path: string, body: object = {}) =>
  shop.ask(who, 'POST', path, body)
/** One after the other while nothing is refused; what was said last. */
async function each(...acts: readonly ((before: Told) => Promise<Told>)[]): Promise<Told> {
  let told: Told = { status: 200, body: {} }
  for (const act of acts) {
    told = await act(told)
    if (isRefusal(told.body)) return told
  }
  return told
}
const idIn = ({ body }: Told): string => (body as { readonly id?: string }).id ?? ''
const slip = ({ memory }: At): string => `/api/slips/${memory.number ?? '0'}`
const pinOf = (who: Who): string =>
  DEMO_PEOPLE.find(({ name }) => name.startsWith(who === 'shell' ? 'Pell' : who))?.pin ?? '0000'

export const DEEDS = {
  person: {
    routes: ['personAdd', 'personChange'],
    does: (at) =>
      each(
        () => post(at, '/api/people', { name: `Walker ${at.n}`, role: 'trainee', pin: '1234' }),
        (added) => at.shop.ask(at.who, 'PATCH', `/api/people/${idIn(added)}`, { pin: '4321' }),
        (added) => at.shop.ask(at.who, 'PATCH', `/api/people/${idIn(added)}`, { active: false }),
      ),
  },
  token: {
    routes: ['tokenMake', 'tokenStrike', 'sessionShell'],
    does: (at) =>
      each(
        () => post(at, '/api/people/tokens', { name: `walk ${at.n}`, pin: pinOf(at.who) }),
        ({ body }) =>
          post(at, `/api/people/tokens/${(body as { made: { id: string } }).made.id}/strike`),
      ),
  },
  cable: {
    routes: ['cableAdd', 'cableMove', 'cableStrike'],
    does: (at) => {
      const name = `W${at.n % 10_000}`
      return each(
        () => post(at, '/api/bench/cables/new', { name, port: null }),
        () => post(at, '/api/bench/cables', { cable: name, port: 'P6' }),
        () => post(at, `/api/bench/cables/${name}/strike`),
      )
    },
  },
  port: {
    routes: ['portAdd', 'portStrike'],
    does: (at) => {
      const name = `W${at.n % 10_000}`
      return each(
        () => post(at, '/api/bench/ports', { name, address: 'tcp:127.0.0.1:1' }),
        () => post(at, `/api/bench/ports/${name}/strike`),
      )
    },
  },
  house: {
    routes: ['houseChange'],
    async does(at) {
      type House = { readonly version: number; readonly rules: HouseRules }
      const { version, rules } = await at.shop.get<House>('/api/house')
      const batteryMargin = rules.batteryMargin === 10 ? 11 : 10
      return post(at, '/api/house', {
        version,
        rules: { ...rules, batteryMargin },
        reason: 'a walk',
      })
    },
  },
  family: {
    routes: ['familyTake'],
    does(at) {
      const text = readFileSync(join(FAMILIES_FOLDER, `${at.memory.kind.family}.yaml`), 'utf8')
      return post(at, '/api/families', { text, take: at.n % 2 === 0 })
    },
  },
  shelf: {
    routes: ['shelve', 'archivePublished', 'archiveReadAgain', 'archiveRemove', 'archiveRestore'],
    async does(at) {
      const bytes = tarOf([{ name: 'x.img', bytes: Buffer.from(`walk ${at.n}`) }])
      const sent = await at.shop.upload(at.who, `/api/shelf/archives?name=walk-${at.n}.tar`, bytes)
      if (isRefusal(sent.body)) return sent
      const archive = `/api/shelf/archives/${idIn(sent)}`
      const published = { sha256: 'a'.repeat(64), source: 'person', where: 'a walk' }
      return each(
        () => post(at, `${archive}/published`, published),
        () => post(at, `${archive}/read`),
        () => post(at, `${archive}/remove`),
        () => post(at, `${archive}/restore`),
        () => post(at, `${archive}/remove`),
      )
    },
  },
  catalogue: {
    routes: ['catalogueTake'],
    does: async ({ shop, who }) =>
      shop.upload(who, '/api/shelf/catalogues', Buffer.from(await demoCatalogue())),
  },
  book: { routes: ['bookCheck'], does: (at) => post(at, '/api/book/check') },
  copies: {
    routes: ['copiesName'],
    does: (at) => post(at, '/api/house/copies', { folder: 'nowhere in particular' }),
  },
  judge: {
    routes: ['judge', 'plan'],
    does: (at) =>
      each(
        () => post(at, '/api/judge', { slip: at.memory.number ?? '0' }),
        () =>
          post(at, '/api/plans', {
            slip: at.memory.number ?? '0',
            package: at.memory.kind.packages.at(-1) ?? '',
          }),
      ),
  },
  reading: {
    routes: ['jobReading'],
    does: (at) =>
      post(at, `${slip(at)}/readings`, { fact: 'carrier', value: 'O', source: 'label' }),
  },
  readingBack: {
    routes: ['jobReadingBack'],
    does: (at) =>
      post(at, `${slip(at)}/readings/back`, { fact: 'carrier', value: 'O', source: 'label' }),
  },
  permit: {
    routes: ['jobPermit'],
    does: (at) => post(at, `${slip(at)}/permit`, { text: `no permit ${at.n}` }),
  },
  carry: {
    routes: ['jobCarry'],
    does: (at) =>
      post(at, `${slip(at)}/carry`, {
        archive: '00000000-0000-4000-8000-000000000000',
        package: at.memory.kind.packages.at(-1) ?? '',
      }),
  },
  overrule: {
    routes: ['jobOverrule'],
    does: (at) =>
      post(at, `${slip(at)}/overrule`, {
        rule: ['state.loader.least', 'fit.region', 'state.data.floor'][at.n % 3] ?? '',
        package: at.memory.kind.packages.at(-1) ?? '',
        reason: 'a walk',
      }),
  },
  withdraw: {
    routes: ['slipWithdraw'],
    async does(at) {
      const second = DEMO_PEOPLE.find(({ name }) => name.startsWith('Ilse'))
      const told = await post(at, `${slip(at)}/withdraw`, {
        second: { person: second?.id, pin: second?.pin },
      })
      if (!isRefusal(told.body)) at.memory.notes.splice(0)
      return told
    },
  },
  move: {
    routes: ['runMove'],
    does: (at) =>
      post(at, `/api/runs/${at.memory.run ?? '00000000-0000-4000-8000-000000000000'}/move`, {
        port: at.n % 2 === 0 ? 'P5' : at.memory.port,
      }),
  },
  'port-read': {
    routes: ['portRead'],
    does: (at) => post(at, `/api/bench/ports/${at.memory.port}/read`),
  },
  second: {
    routes: ['slipOpen', 'jobRead'],
    does(at) {
      const { device, model } = at.memory.kind
      return each(
        () => post(at, '/api/slips', { device, model, intent: 'update' }),
        ({ body }) => {
          const { number } = body as { readonly number: string }
          at.memory.others.push(number)
          return post(at, `/api/slips/${number}/read`, { port: at.memory.port })
        },
      )
    },
  },
  file: {
    routes: ['slipFileTake'],
    async does(at) {
      const file = await at.shop.get<object>(`${slip(at)}/file`)
      const told = await post(at, '/api/slips/files', { text: JSON.stringify(file) })
      if (!isRefusal(told.body)) at.memory.others.push((told.body as { number: string }).number)
      return told
    },
  },
  session: {
    routes: ['sessionBegin', 'sessionEnd', 'firstLead'],
    does: (at) =>
      at.n % 2 === 0
        ? at.shop.ask(at.who, 'DELETE', '/api/session')
        : post(at, '/api/first-lead', { name: 'Somebody', pin: '1234', shop: 'x y', place: 'x y' }),
  },
} as const satisfies Readonly<Record<string, Deed>>

export type DeedName = keyof typeof DEEDS
export const DEED_NAMES = Object.keys(DEEDS) as readonly DeedName[]
