/**
 * Laws that hold after any act, in any order. Each is asked of what the walk remembers and of what the server shows: it had
 * no chance to fail, it held, or it is broken, and then it says by what. Numbers are those of `docs/laws.md`.
 */
import type { Act } from './act.ts'
import type { Told } from './law-shop.ts'
import { isRefusal } from './law-shop.ts'
import type { Memory, View, Word } from './memory.ts'
import { isAgainst, standing, standsAgainst } from './memory.ts'

export type Step = {
  readonly memory: Memory
  readonly before: View
  readonly act: Act
  readonly told: Told | undefined
  readonly view: View
  /** By the shop's clock, ms. */
  readonly now: number
  /** Where its device hangs by the bench's own word, as a run was entered; undefined: no run was. */
  readonly hangs: string | null | undefined
}
export type Asked = 'no chance' | 'held' | { readonly broken: string }
export type Law = {
  readonly number: number
  readonly says: string
  readonly ask: (step: Step) => Asked
}

const broken = (sentence: string): Asked => ({ broken: sentence })
const taken = (told: Told | undefined): boolean =>
  told !== undefined && told.status === 200 && !isRefusal(told.body)

const HOUR = 3_600_000
/** Days a signature, a copy and a consent hold at the most, with the hour to which ages are reckoned. */
const HOLDS_HOURS = { signature: 13, copy: 73, consent: 24 * 30 + 1 } as const

/** Why a word for the plan is void as the walk remembers it; undefined: it holds. */
function isVoid(memory: Memory, word: Word | undefined, now: number): string | undefined {
  if (word === undefined || word.answer === 'no') return 'nobody gave it'
  const { topic } = word
  const kind =
    topic === 'ready.backup' ? 'copy' : /^(fate|consent)\./.test(topic) ? 'consent' : 'signature'
  if (now - word.at > HOLDS_HOURS[kind] * HOUR) return 'it is old'
  if (kind === 'copy') return undefined
  if (memory.plan !== undefined && word.act < memory.plan.act) return 'it is older than the plan'
  const against = memory.words.findLast(isAgainst)
  if (against !== undefined && against.act > word.act)
    return `${against.topic} ${against.answer} was said since`
  return undefined
}

/** Everything that must have been said, and how. */
const MUST_BE: readonly string[] = [
  'owner.proof',
  'owner.managed',
  'owner.account',
  'condition.cell',
  'condition.wet',
  'history.before',
  'consent.no-guarantee',
  'function.screen',
  'survive.photos',
]

/** What stands in the way of a start as the walk remembers it; none: it may start. */
function inTheWay({ memory, before, act, now, hangs }: Step): readonly string[] {
  const who = 'who' in act ? act.who : ''
  const against = standsAgainst(memory)
  const unsaid = MUST_BE.filter((topic) => standing(memory, topic) === undefined)
  const fates = ['wiped', 'unreadable', 'unpromised'].filter((fate) => memory.fates.includes(fate))
  const consents = fates.map((fate) => `fate.${fate}`)
  const signatures = ['ready.battery', 'ready.cable', 'ready.bench'].filter((topic) =>
    before.ready?.signed.some((one) => one.topic === topic),
  )
  const voids = [...consents, ...signatures].flatMap((topic) => {
    const why = isVoid(memory, standing(memory, topic), now)
    return why === undefined ? [] : [`${topic}: ${why}`]
  })
  return [
    ...(who === 'Juno' ? ['a trainee'] : []),
    ...(who === 'nobody' ? ['nobody'] : []),
    ...(before.state === 'open' ? [] : [`the slip is ${before.state ?? 'nowhere'}`]),
    ...(memory.plan === undefined ? ['no plan was taken'] : []),
    ...(against === undefined ? [] : [`${against.topic}: ${against.answer}`]),
    ...unsaid.map((topic) => `${topic}: never said`),
    ...voids,
    ...(hangs === undefined || hangs === memory.port
      ? []
      : [`its device hangs at ${hangs ?? 'no port'}`]),
  ]
}

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/
const INTERNAL: readonly RegExp[] = [
  UUID,
  /\b(undefined|null|NaN|true|false)\b/,
  /\[object/,
  /[{}]/,
]

const OVER: readonly string[] = ['stopped', 'declined', 'closed']

export const LAWS: readonly Law[] = [
  {
    number: 1,
    says: 'a run is entered only when it may start; what nobody said counts as no',
    ask(step) {
      if (step.act.do !== 'start') return 'no chance'
      const why = inTheWay(step)
      if (why.length === 0) return 'no chance'
      return taken(step.told) ? broken(`a run was entered over ${why.join('; ')}`) : 'held'
    },
  },
  {
    number: 2,
    says: 'while a run lives its slip is not over, and nobody else has a run of its device',
    ask({ act, before, memory, view }) {
      const over = view.alive.find(({ slipState }) => OVER.includes(slipState))
      if (over !== undefined) return broken(`slip ${over.slip} is ${over.slipState}, its run lives`)
      const serials = view.alive.map(({ serial }) => serial)
      if (new Set(serials).size < serials.length) return broken('two runs of one device live')
      const lived = before.alive.some(({ slip }) => slip === memory.number)
      return lived && (act.do === 'state' || act.do === 'say' || act.do === 'change')
        ? 'held'
        : 'no chance'
    },
  },
  {
    number: 2,
    says: 'a device is claimed by one open slip at the most',
    ask({ act, view, memory }) {
      if (view.claims.length > 1) return broken(`slips ${view.claims.join(', ')} claim it`)
      return act.do === 'deed' && memory.others.length > 0 ? 'held' : 'no chance'
    },
  },
  {
    number: 3,
    says: 'what is said against the work while a run lives stands on it at once, and holds it',
    ask({ memory, view }) {
      const mine = view.alive.find(({ slip }) => slip === memory.number)
      if (mine === undefined || memory.heldSince === undefined) return 'no chance'
      if (mine.against === null) return broken('nothing stands on its run')
      if ((view.run?.against ?? null) === null) return broken('its page does not say it')
      return 'held'
    },
  },
  {
    number: 3,
    says: 'a run that a word holds is not taken up while that word stands',
    ask({ act, before, memory, told }) {
      if (act.do !== 'run' || act.word !== 'take-up') return 'no chance'
      const mine = before.alive.find(({ slip }) => slip === memory.number)
      if (mine === undefined || memory.heldSince === undefined) return 'no chance'
      if ((before.run?.hold ?? null) !== null) return 'no chance'
      return taken(told) ? broken('it was taken up all the same') : 'held'
    },
  },
  {
    number: 4,
    says: 'what ended does not hold again by itself',
    ask({ memory, view, now }) {
      if (view.ready === undefined || memory.run !== undefined) return 'no chance'
      const rows = view.ready.signed.filter(({ topic }) => /^(ready|fate|consent)\./.test(topic))
      const wrong = rows.flatMap(({ topic, signed, answer }) => {
        if (!signed || answer === 'waived') return []
        const why = isVoid(memory, standing(memory, topic), now)
        return why === undefined ? [] : [`${topic} holds, though ${why}`]
      })
      if (wrong.length > 0) return broken(wrong.join('; '))
      const ended = rows.some(({ topic }) => isVoid(memory, standing(memory, topic), now))
      return ended ? 'held' : 'no chance'
    },
  },
  {
    number: 5,
    says: 'a slip closes when each of its stages is done, or with a reason',
    ask({ act, told, before }) {
      if (act.do !== 'state' || act.state !== 'closed' || act.reason !== '') return 'no chance'
      const open = (before.job?.stages ?? []).filter(
        ({ is, says }) => is !== 'done' && says !== 'hand-back.close',
      )
      if (open.length === 0) return 'no chance'
      return taken(told)
        ? broken(`closed over ${open.map(({ stage }) => stage).join(', ')}`)
        : 'held'
    },
  },
  {
    number: 6,
    says: 'what a run has passed is not asked again',
    ask({ view: { job } }) {
      if (job === undefined || job.run === null) return 'no chance'
      const at = job.stages.findIndex(({ stage }) => stage === 'write')
      const open = job.stages.slice(0, at).filter(({ is }) => is !== 'done')
      if (open.length === 0) return 'held'
      return broken(open.map(({ stage, is, says }) => `${stage} is ${is} (${says})`).join(', '))
    },
  },
  {
    number: 7,
    says: 'who has no name does nothing that counts',
    ask({ act, told }) {
      if (!('who' in act) || act.who !== 'nobody' || told === undefined) return 'no chance'
      return taken(told) && act.do !== 'pick' ? broken(`${act.do} was taken of nobody`) : 'held'
    },
  },
  {
    number: 23,
    says: 'no internal word reaches a person',
    ask({ told }) {
      if (told === undefined || !isRefusal(told.body)) return 'no chance'
      const { sentence, kept, remedy } = told.body
      const odd = [sentence, kept, remedy].find((text) => INTERNAL.some((one) => one.test(text)))
      return odd === undefined ? 'held' : broken(odd)
    },
  },
]

/** Laws that are asked by the shop itself: of every answer, and of its book at the end. */
export const OF_THE_SHOP = [
  { number: 7, says: 'whoever acts has a name' },
  { number: 19, says: 'what the journal says was kept is on the device' },
  { number: 29, says: 'no request ends in 500' },
  { number: 32, says: 'every acknowledged word is there, and the chain of the book holds' },
] as const
