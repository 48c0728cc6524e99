/** What is done next: mostly what leads on, as a technician would, and else whatever comes to somebody's mind. */
import { INTAKE, LEAVES, SIGNED } from '../bench/lines.ts'
import type { Dice } from '../faults/dice.ts'
import type { Act, Break, Line } from './act.ts'
import { DEED_NAMES } from './deeds.ts'
import { PEOPLE } from './law-shop.ts'
import type { Who } from './law-shop.ts'
import type { Memory, View } from './memory.ts'

export const linesIn = (answers: Readonly<Record<string, string>>): Line[] =>
  Object.entries(answers).map(([topic, answer]) => ({ topic, answer }))

/** What Intake asks of any device here: nothing of the owner's is on it but what must survive. */
export const ALL: Readonly<Record<string, string>> = { ...INTAKE, 'survive.tickets': 'not-there' }

/** Words against the work, and what takes each back. */
const AGAINST: readonly (readonly [topic: string, against: string, well: string])[] = [
  ['condition.wet', 'wet', 'dry'],
  ['condition.cell', 'damaged', 'sound'],
  ['owner.proof', 'not-shown', 'shown'],
  ['owner.managed', 'not-agreed', 'agreed'],
  ['consent.no-guarantee', 'no', 'yes'],
  ['fate.wiped', 'no', 'yes'],
  ['fate.unpromised', 'no', 'yes'],
  ['fate.unreadable', 'no', 'yes'],
  ['consent.preview', 'no', 'yes'],
]

const AFTER: Readonly<Record<string, string>> = {
  'after.data': 'as-promised',
  ...Object.fromEntries(
    ['screen', 'touch', 'sound', 'cameras', 'sensors', 'charging', 'radio'].map((one) => [
      `after.${one}`,
      'works',
    ]),
  ),
}

/** The act that leads on from here. */
export function leadsOn(memory: Memory, { job, ready, run }: View): Act {
  const who = 'Tavi'
  if (memory.number === undefined) return { do: 'open', who }
  if (job === undefined) return { do: 'wait', ms: 50 }
  if (run !== undefined && run.state !== 'ended' && job.run !== null) {
    if (run.state === 'stopped') return { do: 'run', who, word: 'take-up' }
    return { do: 'follow', who }
  }
  const { at } = job
  if (at === 'intake') return { do: 'say', who, lines: linesIn(ALL) }
  if (at === 'first-start') return { do: 'say', who, lines: linesIn(AFTER) }
  if (at === 'hand-back') return handsBack(job, who)
  if ((job.device?.port ?? null) === null && memory.isRead) return { do: 'hands', act: 'plug' }
  if (!memory.isRead) return { do: 'read', who, deep: false }
  if ((job.leave?.open ?? 0) > 0) return { do: 'say', who, lines: linesIn(LEAVES) }
  /* What its running system does not show is read where more is shown. */
  if (memory.routes === 0 && !memory.isDeep) return { do: 'read', who, deep: true }
  if (job.route === null) return { do: 'pick', who }
  if (job.plan === null || job.plan.stale) return { do: 'take', who }
  if (ready?.signed.some(({ signed }) => !signed) === true) return { do: 'sign', who }
  return { do: 'start', who }
}

function handsBack(job: NonNullable<View['job']>, who: Who): Act {
  const open = job.handBack.filter((topic) => !job.lines.some((line) => line.topic === topic))
  if (open.length === 0) return { do: 'state', who, state: 'closed', reason: '' }
  return { do: 'say', who, lines: open.map((topic) => ({ topic, answer: 'done' })) }
}

/** Anything else. */
export function strays(dice: Dice, memory: Memory, view: View): Act {
  const who = dice.share() < 0.05 ? 'nobody' : dice.one(PEOPLE)
  const { number } = memory
  if (number === undefined) return { do: 'open', who }
  const [topic, against, well] = dice.one(AGAINST)
  const signed = (view.ready?.signed ?? []).map((one) => one.topic)
  const all: readonly (() => Act)[] = [
    () => ({ do: 'say', who, lines: [{ topic, answer: against }] }),
    () => ({ do: 'say', who, lines: [{ topic, answer: against }] }),
    () => ({ do: 'say', who, lines: [{ topic, answer: well }] }),
    () => ({ do: 'say', who, lines: [dice.one(linesIn(ALL))] }),
    () => ({ do: 'say', who, lines: [surviving(dice)] }),
    () => ({ do: 'say', who, lines: [dice.one(linesIn({ ...SIGNED, ...LEAVES }))] }),
    () => ({
      do: 'say',
      who,
      lines: [{ topic: dice.one(['ready.cable', ...signed]), answer: 'taken-back' }],
    }),
    () => ({ do: 'note', who, text: `a note, ${dice.whole(0, 1e9)}` }),
    () => ({
      do: 'state',
      who,
      state: dice.one(['open', 'waiting', 'stopped', 'declined', 'closed']),
      reason: dice.one(['', 'its owner wants it so']),
    }),
    () => ({ do: 'state', who, state: 'open', reason: '' }),
    () => ({ do: 'change', who, field: 'model', to: dice.one(['BRAK-H2K', 'CORV-4N']) }),
    () => ({ do: 'read', who, deep: dice.share() < 0.3 }),
    () => ({ do: 'pick', who }),
    () => ({ do: 'take', who }),
    () => ({ do: 'sign', who }),
    () => ({ do: 'start', who }),
    () => ({ do: 'start', who }),
    () => ({ do: 'run', who, word: dice.one(['stop', 'take-up', 'put-away']) }),
    () => ({ do: 'run', who, word: 'stop' }),
    () => ({ do: 'hands', act: dice.one(['plug', 'unplug', 'keys', 'confirm']) }),
    () => ({ do: 'charge', percent: dice.whole(1, 100) }),
    () => ({ do: 'break', act: dice.one(BREAKS), n: dice.whole(0, 9999) }),
    () => ({ do: 'break', act: dice.one(BREAKS), n: dice.whole(0, 9999) }),
    () => ({ do: 'deed', who, deed: dice.one(DEED_NAMES), n: dice.whole(0, 999_999) }),
    () => ({ do: 'deed', who, deed: dice.one(DEED_NAMES), n: dice.whole(0, 999_999) }),
    () => ({ do: 'deed', who, deed: dice.one(DEED_NAMES), n: dice.whole(0, 999_999) }),
  ]
  return dice.one(all)()
}

const surviving = (dice: Dice): Line => ({
  topic: `survive.${dice.one(['photos', 'apps', 'tickets', 'esim'])}`,
  answer: dice.one(['must', 'may-go', 'not-there']),
})

const BREAKS: readonly Break[] = [
  'key',
  'tear',
  'like',
  'other-in',
  'other-in',
  'hub',
  'cell-out',
  'permit',
]

/** Hard acts are rare, and only some walks have any. */
const HARD: readonly Act[] = [
  { do: 'age', hours: 14 },
  { do: 'age', hours: 24 * 60 },
  { do: 'kill', name: 'server' },
  { do: 'kill', name: 'agent a' },
  { do: 'kill', name: 'stand-ins' },
]

/** The next act of a walk. `hard`: something may be killed, or the clock set on. */
export function nextAct(dice: Dice, memory: Memory, view: View, hard: boolean): Act {
  if (hard && dice.share() < 0.06) return dice.one(HARD)
  return dice.share() < 0.6 ? leadsOn(memory, view) : strays(dice, memory, view)
}
