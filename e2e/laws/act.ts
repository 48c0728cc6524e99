/** Acts of people, devices and processes, as data: what is printed of a walk can be done again. */
import type { PlanPage, RunShown, StandInAct } from '@plain-slate/api'
import type { Name } from '../bench/whole-shop.ts'
import { actFor } from '../jobs/technician.ts'
import type { DeedName } from './deeds.ts'
import { DEEDS } from './deeds.ts'
import { breaks } from './breaks.ts'
import type { LawShop, Told, Who } from './law-shop.ts'
import { isRefusal } from './law-shop.ts'
import type { Memory, View } from './memory.ts'

export type Line = { readonly topic: string; readonly answer: string; readonly note?: string }
export type Act =
  | { readonly do: 'open'; readonly who: Who }
  | { readonly do: 'say'; readonly who: Who; readonly lines: readonly Line[] }
  | { readonly do: 'note'; readonly who: Who; readonly text: string }
  | { readonly do: 'state'; readonly who: Who; readonly state: string; readonly reason: string }
  | { readonly do: 'change'; readonly who: Who; readonly field: string; readonly to: string }
  | { readonly do: 'read'; readonly who: Who; readonly deep: boolean }
  | { readonly do: 'pick'; readonly who: Who }
  | { readonly do: 'take'; readonly who: Who }
  | { readonly do: 'sign'; readonly who: Who }
  | { readonly do: 'start'; readonly who: Who }
  | { readonly do: 'follow'; readonly who: Who }
  | { readonly do: 'run'; readonly who: Who; readonly word: 'stop' | 'take-up' | 'put-away' }
  | { readonly do: 'hands'; readonly act: 'plug' | 'unplug' | 'keys' | 'confirm' }
  | { readonly do: 'break'; readonly act: Break; readonly n: number }
  | { readonly do: 'deed'; readonly who: Who; readonly deed: DeedName; readonly n: number }
  | { readonly do: 'charge'; readonly percent: number }
  | { readonly do: 'wait'; readonly ms: number }
  | { readonly do: 'age'; readonly hours: number }
  | { readonly do: 'kill'; readonly name: Name }

/** What goes wrong in hands. */
export type Break = 'key' | 'tear' | 'like' | 'other-in' | 'hub' | 'cell-out' | 'permit'

/** Names of the contract's routes that an act calls. */
export const ROUTES: Readonly<Record<Act['do'], readonly string[]>> = {
  open: ['slipOpen'],
  say: ['jobLines'],
  note: ['slipNote'],
  state: ['slipState'],
  change: ['slipChange'],
  read: ['jobRead'],
  pick: ['jobRoutes', 'jobLines'],
  take: ['jobPlan', 'jobTake'],
  sign: ['jobReady', 'jobLines'],
  start: ['jobStart'],
  follow: ['runDone'],
  run: ['runStop', 'runTakeUp', 'runPutAway'],
  hands: ['handsAct'],
  charge: ['handsAct'],
  break: ['handsAct'],
  deed: Object.values(DEEDS).flatMap(({ routes }) => [...routes]),
  wait: [],
  age: [],
  kill: [],
}

/** Does an act; answers what the server said of it, where it was asked. */
export async function doAct(
  shop: LawShop,
  memory: Memory,
  view: View,
  act: Act,
): Promise<Told | undefined> {
  const at = `/api/slips/${memory.number ?? '0'}`
  switch (act.do) {
    case 'open': {
      const { device, model } = memory.kind
      const told = await shop.ask(act.who, 'POST', '/api/slips', {
        device,
        model,
        intent: 'update',
      })
      if (!isRefusal(told.body)) memory.number = (told.body as { number: string }).number
      return told
    }
    case 'say':
      return say(shop, memory, act.who, act.lines)
    case 'note': {
      const told = await shop.ask(act.who, 'POST', `${at}/notes`, { text: act.text })
      if (!isRefusal(told.body)) memory.notes.push(act.text)
      return told
    }
    case 'state':
      return shop.ask(act.who, 'POST', `${at}/state`, { state: act.state, reason: act.reason })
    case 'change': {
      const { body } = await shop.ask('Ilse', 'GET', at)
      const from = String((body as Record<string, unknown>)[act.field] ?? '')
      return shop.ask(act.who, 'PATCH', at, { [act.field]: { from, to: act.to } })
    }
    case 'read':
      return read(shop, memory, act)
    case 'pick':
      return pick(shop, memory, act.who)
    case 'take':
      return take(shop, memory, act.who)
    case 'sign':
      return sign(shop, memory, view, act.who)
    case 'start': {
      const body = { digest: memory.plan?.digest ?? 'f'.repeat(64) }
      const told = await shop.ask(act.who, 'POST', `${at}/start`, body)
      if (!isRefusal(told.body)) memory.run = (told.body as RunShown).id
      return told
    }
    case 'run':
      return shop.ask(act.who, 'POST', `/api/runs/${memory.run ?? NOBODY}/${act.word}`, {})
    case 'follow':
      return follow(shop, memory, view, act.who)
    case 'wait':
      await new Promise((resolve) => setTimeout(resolve, act.ms))
      return undefined
    case 'age':
      await shop.ages(act.hours * 3_600_000)
      return undefined
    case 'kill':
      await shop.killed(act.name)
      return undefined
    case 'deed':
      return DEEDS[act.deed].does({ shop, memory, who: act.who, n: act.n })
    case 'break':
      return breaks(shop, memory, act)
    case 'hands':
    case 'charge':
      return hands(shop, memory, act)
  }
}

const NOBODY = '00000000-0000-4000-8000-000000000000'

/** Waits for what is about to be so; a device may be off, or a look given up: the walk goes on all the same. */
export async function soon(is: () => Promise<boolean>): Promise<void> {
  const late = Date.now() + SOON_MS
  while (!(await is()) && Date.now() < late)
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
}
const SOON_MS = 3000
const LOOK_MS = 60

/** By the shop's clock. */
const nowIn = (shop: LawShop): number => Date.now() + shop.ahead

async function say(shop: LawShop, memory: Memory, who: Who, lines: readonly Line[]): Promise<Told> {
  const path = `/api/slips/${memory.number ?? '0'}/lines`
  const told = await shop.ask(who, 'POST', path, { lines })
  if (!isRefusal(told.body) && told.status === 200)
    for (const { topic, answer } of lines)
      memory.words.push({ topic, answer, act: memory.act, at: nowIn(shop) })
  return told
}

/** Looks over the link, and waits for what that found. */
async function read(
  shop: LawShop,
  memory: Memory,
  { who, deep }: { readonly who: Who; readonly deep: boolean },
): Promise<Told> {
  const at = `/api/slips/${memory.number ?? '0'}`
  const told = await shop.ask(who, 'POST', `${at}/read`, { port: memory.port, deep })
  if (isRefusal(told.body)) return told
  await soon(() => shop.lacks(`looks where slip = $1 and state = 'looking'`, memory.number ?? '0'))
  memory.isRead = true
  memory.isDeep ||= deep
  memory.routes = undefined
  return told
}

/** Picks the best route there is. */
async function pick(shop: LawShop, memory: Memory, who: Who): Promise<Told> {
  const path = `/api/slips/${memory.number ?? '0'}/routes`
  type Roads = { readonly routes?: readonly { readonly route: string }[] }
  const told = await shop.ask(who, 'GET', path)
  const roads = (told.body as Roads).routes ?? []
  const [best] = roads
  memory.routes = roads.length
  if (best === undefined) return told
  return say(shop, memory, who, [
    { topic: 'route.package', answer: best.route },
    { topic: 'compare.unread', answer: 'write-all' },
  ])
}

async function take(shop: LawShop, memory: Memory, who: Who): Promise<Told> {
  const path = `/api/slips/${memory.number ?? '0'}/plan`
  const page = await shop.ask(who, 'GET', path)
  const digest = isRefusal(page.body) ? undefined : (page.body as PlanPage).now?.digest
  const told = await shop.ask(who, 'POST', path, { digest: digest ?? 'f'.repeat(64) })
  if (isRefusal(told.body) || told.status !== 200) return told
  const { taken } = told.body as PlanPage
  memory.plan = { digest: digest ?? '', act: memory.act, at: nowIn(shop) }
  memory.fates = (taken?.shown.fates ?? [])
    .filter(({ item }) => !memory.words.some((one) => isNotThere(memory, one.topic, item)))
    .map(({ fate }) => fate)
  return told
}
function isNotThere({ words }: Memory, topic: string, item: string): boolean {
  if (topic !== `survive.${item}`) return false
  return words.findLast((one) => one.topic === topic)?.answer === 'not-there'
}

/** Signs what is open at Ready, each with its first answer. */
async function sign(shop: LawShop, memory: Memory, { ready }: View, who: Who) {
  const open = (ready?.signed ?? []).filter((one) => !one.signed)
  if (open.length === 0) return undefined
  const answerOf = (answers: readonly string[]) =>
    ['opens', 'yes'].find((one) => answers.includes(one)) ?? answers[0] ?? 'done'
  return say(
    shop,
    memory,
    who,
    open.map(({ topic, answers }) => ({ topic, answer: answerOf(answers) })),
  )
}

/** Does what the run asks of hands, and says so; else waits a moment. */
async function follow(
  shop: LawShop,
  memory: Memory,
  { run }: View,
  who: Who,
): Promise<Told | undefined> {
  if (run === undefined || run.asked === null) {
    await new Promise((resolve) => setTimeout(resolve, 150))
    return undefined
  }
  const act = await actFor(
    shop.whole,
    { ask: run.asked.ask, to: run.way?.to.id },
    memory.serial,
  ).catch(() => undefined)
  if (act !== undefined) await shop.hands(act)
  return shop.ask(who, 'POST', `/api/runs/${run.id}/done`, { command: run.asked.command })
}

/** Whatever hangs at the port is taken off before another device is put there. */
async function hands(
  shop: LawShop,
  memory: Memory,
  act: Extract<Act, { do: 'hands' | 'charge' }>,
): Promise<Told> {
  const { serial, port } = memory
  if (act.do === 'charge') return shop.hands({ kind: 'charge', serial, percent: act.percent })
  if (act.act !== 'plug') return shop.hands(handsOf(act.act, serial))
  for (const one of await shop.devices())
    if (one.port === port && one.serial !== serial)
      await shop.hands({ kind: 'unplug', serial: one.serial })
  const told = await shop.hands({ kind: 'plug', serial, port })
  await soon(async () => !(await shop.lacks(SEEN_AT, port, serial)))
  return told
}

const SEEN_AT = `port_sights where port = $1 and facts ->> 'serial' = $2`

function handsOf(act: 'unplug' | 'keys' | 'confirm', serial: string): StandInAct {
  return act === 'keys' ? { kind: 'keys', serial, to: 'loader' } : { kind: act, serial }
}
