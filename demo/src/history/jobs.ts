/**
 * How far each tarn slip of the demo has come: what was said of it, read of its device, picked, taken,
 * signed, run and seen. One slip, one line; what a stage needs comes with it.
 */
import type { DeviceFacts } from '@plain-slate/core'
import { FUNCTIONS, UNPREPARED, handBackTopics, mustBeSaid, standingLines } from '@plain-slate/core'
import { family, tarnFacts } from './devices.ts'

export type Far =
  | 'intake'
  | 'read'
  | 'picked'
  | 'accepted'
  | 'taken'
  | 'signed'
  | 'running'
  | 'ran'
  | 'seen'
  | 'back'
const ORDER: readonly Far[] = [
  'intake',
  'read',
  'picked',
  'accepted',
  'taken',
  'signed',
  'running',
  'ran',
  'seen',
  'back',
]
export const reached = (far: Far, stage: Far): boolean => ORDER.indexOf(far) >= ORDER.indexOf(stage)

export type DemoJob = {
  readonly number: string
  readonly far: Far
  readonly facts: DeviceFacts
  readonly package: string
  /** Readings by hand, put down after the others: fact, value, source. */
  readonly typed?: readonly (readonly [fact: string, value: string | number, source: string])[]
  /** Lines that differ from the usual answers; an empty answer is one that was not given. */
  readonly says?: Readonly<Record<string, string>>
  /** What was said besides the usual. */
  readonly more?: readonly (readonly [topic: string, answer: string])[]
  /** What the test before found of all its functions; they work when left out. */
  readonly found?: 'works' | 'untested'
  /** All that was said, where it ended there. */
  readonly only?: readonly (readonly [topic: string, answer: string])[]
  /** A reading over the link after the plan was taken. */
  readonly later?: Partial<DeviceFacts>
}

const NEWEST = 'tarn-H2.104.r4'
const job = (
  number: string,
  far: Far,
  more: Partial<DemoJob> & { readonly facts?: DeviceFacts } = {},
): DemoJob => ({
  number,
  far,
  package: NEWEST,
  facts: tarnFacts({ serial: `TRN44900${number}A${number.slice(-1)}`, batteryPercent: 88 }),
  ...more,
})

/** The demo's four devices are read as they are; others are known by their readings alone. */
export const DEMO_JOBS: readonly DemoJob[] = [
  job('0402', 'back'),
  job('0404', 'back'),
  job('0408', 'intake', {
    found: 'untested',
    more: [
      ['history.starts', 'silent'],
      ['lighter.charge', 'no-cure'],
      ['lighter.restart', 'no-cure'],
    ],
    typed: [
      ['model', 'BRAK-H2', 'label'],
      ['serial', '0093', 'label'],
    ],
  }),
  job('0409', 'intake', {
    found: 'untested',
    more: [
      ['history.starts', 'stops'],
      ['lighter.restart', 'no-cure'],
    ],
    typed: [['model', 'BRAK-H2', 'label']],
  }),
  job('0410', 'intake', { only: [['owner.account', 'nobody']] }),
  job('0416', 'intake', { only: [['condition.cell', 'damaged']] }),
  job('0418', 'read', {
    facts: tarnFacts({
      serial: 'TRN5510020A77',
      board: 'r5',
      build: 'H2.0ZP.r5',
      batteryPercent: 58,
    }),
    typed: [['model', 'BRAK-H2K', 'label']],
  }),
  job('0421', 'taken', {
    facts: tarnFacts({ serial: 'TRN449000421B2', batteryPercent: 24 }),
  }),
  job('0425', 'read', { facts: tarnFacts({ serial: 'TRN4490081C04', batteryPercent: 64 }) }),
  job('0426', 'picked', { package: 'tarn-H2.0ZR.r4' }),
  job('0427', 'taken', {
    facts: tarnFacts({ serial: 'TRN449000427C7', build: 'H2.0ZC.r4', loaderVersion: 6, floor: 5 }),
    later: { loaderVersion: 7 },
  }),
  job('0428', 'running'),
  job('0429', 'intake', { says: { 'condition.cell': 'damaged' } }),
  job('0430', 'ran'),
  job('0431', 'seen'),
  job('0432', 'picked'),
  job('0433', 'accepted'),
]

const USUAL: Readonly<Record<string, string>> = {
  'owner.proof': 'shown',
  'owner.managed': 'agreed',
  'owner.account': 'absent',
  'condition.cell': 'sound',
  'condition.wet': 'dry',
  'history.before': 'untouched',
  'consent.no-guarantee': 'yes',
}
const THINGS = family.items.map(({ id }) => id)

/** What was said at Intake: topic and answer, in the order in which it is asked. */
export function intakeLines({
  says = {},
  only,
  found = 'works',
  more = [],
}: DemoJob): readonly (readonly [string, string])[] {
  if (only !== undefined) return only
  const usualLines = mustBeSaid(THINGS).flatMap((topic) => {
    const usual =
      USUAL[topic] ??
      (topic.startsWith('survive.')
        ? THINGS.includes(topic.slice('survive.'.length))
          ? 'must'
          : 'not-there'
        : topic === 'accessory.case'
          ? 'here'
          : topic.startsWith('accessory.')
            ? 'none'
            : found)
    const answer = says[topic] ?? usual
    return answer === '' ? [] : [[topic, answer] as const]
  })
  return [...usualLines, ...more]
}

export const readyLines = ['backup', 'battery', 'cable', 'permission', 'bench'].map(
  (one) => [`ready.${one}`, one === 'backup' ? 'opens' : 'done'] as const,
)
export const afterLines = [
  ['after.data', 'as-promised'] as const,
  ...FUNCTIONS.map((one) => [`after.${one}`, 'works'] as const),
]
export function backLines(job: DemoJob): readonly (readonly [string, string])[] {
  const lines = standingLines(intakeLines(job).map(([topic, answer]) => ({ topic, answer, at: 0 })))
  return handBackTopics(lines, { ...UNPREPARED, permission: true }).map(
    (topic) => [topic, 'done'] as const,
  )
}
