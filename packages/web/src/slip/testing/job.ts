/** A job as the server shows it, for tests of its sheets: 0417 with everything done but what is named. */
import type {
  FactShown,
  Job,
  LineShown,
  PaperShown,
  PlanShown,
  RunShown,
  Slip,
} from '@plain-slate/api'
import type { Fact, Stage, StageState } from '@plain-slate/core'
import { STAGES, TOPICS } from '@plain-slate/core'

const AT = '2026-10-15T14:22:00.000Z'
const MIB = 1024 ** 2

/** Stages as they stand: done up to `at`, which is open, the others waiting for it. */
/** How its rehearsal ended, and on what. */
const REHEARSED: Pick<PlanShown, 'ends' | 'fails' | 'assumed'> = {
  ends: { build: 'H2.104.r4', outcome: 'normal', data: 'readable', lock: 'closed', shows: null },
  fails: null,
  assumed: { parts: [], facts: {} },
}

export const NORMAL = { id: 'normal', name: 'normal mode', kind: 'system' } as const
export const LOADER = { id: 'loader', name: 'the loader', kind: 'writing' } as const
const RESCUE = { id: 'rescue', name: 'rescue', kind: 'rescue' } as const

const TARN: Job['family'] = {
  id: 'tarn',
  maker: 'Brakken',
  looks: [
    {
      mode: LOADER,
      looks: 'a grey bar above six small lines',
      confusedWith: [{ name: 'rescue', tell: 'four large lines' }],
    },
    {
      mode: RESCUE,
      looks: 'a menu of four lines',
      confusedWith: [{ name: 'the loader', tell: 'a grey bar' }],
    },
  ],
  permission: 'one switch in the settings',
  shows: 'the loader',
  permissionSteps: [],
  dataKeys: [],
  idleDrain: 0.2,
  carries: false,
  asksAccount: false,
  remedies: [
    { trouble: 'transfer', does: 'again', chance: 55, minutes: 1, hands: 0.5, of: 74 },
    { trouble: 'transfer', does: 'cable', chance: 24, minutes: 2, hands: 1, of: 74 },
    { trouble: 'transfer', does: 'fetch-again', chance: 3, minutes: 9, hands: 1, of: 0 },
    { trouble: 'unseen', does: 'replug', chance: 31, minutes: 1, hands: 1, of: 52 },
  ],
}

export const stagesAt = (
  at: Stage,
  facts: Record<string, string | number> = {},
  is: StageState = 'open',
) =>
  STAGES.map((stage) => {
    const place = STAGES.indexOf(stage) - STAGES.indexOf(at)
    if (place === 0) return { stage, is, says: `${stage}.open`, facts }
    return place < 0
      ? { stage, is: 'done' as const, says: `${stage}.done`, facts: {} }
      : { stage, is: 'waits' as const, says: 'waits', facts: { stage: at } }
  })

export const line = (topic: string, answer: string, more: Partial<LineShown> = {}): LineShown => ({
  topic,
  answer,
  note: null,
  by: 'Ilse Maro',
  at: AT,
  ...more,
})

export const fact = (name: Fact, more: Partial<FactShown> = {}): FactShown => ({
  fact: name,
  kind: 'settled',
  value: 'r4',
  claims: [],
  needed: true,
  where: [],
  greyed: null,
  holdsUp: [],
  ...more,
})

export const job = (at: Stage, more: Partial<Job> = {}): Job => ({
  number: '0417',
  version: 3,
  stages: stagesAt(at),
  at,
  topics: TOPICS.filter(({ stage }) => stage === 'intake').map((one) => ({
    ...one,
    answers: [...one.answers],
    name: null,
    needed: true,
    fate: null,
    say: [],
  })),
  lines: [],
  keepData: true,
  family: TARN,
  facts: [fact('board')],
  next: [],
  leave: null,
  build: null,
  permit: null,
  stands: null,
  faults: [],
  intent: 'update',
  seen: [],
  dues: { standing: [], asked: [] },
  device: {
    serial: 'TRN4490077F31',
    port: 'P2',
    mode: NORMAL,
    battery: 71,
    digests: 0,
    table: false,
    outcome: 'normal',
    returns: 0,
    shows: null,
    marks: [],
    scale: 256,
  },
  ports: [],
  route: {
    name: 'tarn-loader-7-r4~bbbbbbbbbbbb by images > tarn-H2.104.r4~aaaaaaaaaaaa by images',
    package: 'tarn-H2.104.r4~aaaaaaaaaaaa',
    title: 'H2.104.r4',
    keys: ['tarn-loader-7-r4~bbbbbbbbbbbb', 'tarn-H2.104.r4~aaaaaaaaaaaa'],
    claims: 11,
  },
  plan: null,
  run: null,
  look: null,
  tally: { before: null, after: null },
  worse: [],
  decided: false,
  doubted: [],
  unpublished: { keys: [], overruled: true },
  handBack: ['undo.permission', 'undo.key', 'back.told'],
  care: 'none',
  ...more,
})

export const slip = (more: Partial<Slip> = {}): Slip => ({
  number: '0417',
  device: 'Brakken H2K',
  model: 'BRAK-H2K',
  customer: 'Ferry line, handheld 14',
  intent: 'update',
  promise: 'stored tickets',
  stage: 'intake',
  state: 'open',
  due: null,
  openedAt: AT,
  version: 1,
  words: null,
  withdrawn: false,
  openedBy: 'Ilse Maro',
  ...more,
})

const NOTHING_TOLD = { findings: [], order: [], draws: 24, floor: null }

export const plan = (more: Partial<PlanShown> = {}): PlanShown => ({
  ...NOTHING_TOLD,
  package: 'tarn-H2.104.r4',
  title: 'H2.104.r4',
  serial: 'TRN4490077F31',
  port: 'P2',
  verdict: 'fits',
  steps: [
    {
      number: 1,
      kind: 'meet',
      facts: { mode: 'the loader', left: 0 },
      seconds: { low: 2, high: 2 },
      hands: false,
      worst: 'unaffected',
      source: 'plain',
      n: 0,
      silent: 20,
    },
  ],
  time: { low: 1080, high: 1560 },
  hands: { low: 60, high: 60 },
  needs: 44,
  restarts: 3,
  fates: [
    {
      item: 'tickets',
      name: 'stored tickets',
      partition: 'customer',
      fate: 'kept',
      why: 'untouched',
    },
  ],
  writes: [],
  wayBackUntil: 1,
  wayBack: 'H2.0ZC.r4',
  atRisk: { dead: 6 },
  reaches: true,
  ...REHEARSED,
  strip: { stretches: [], hands: [], cable: [], restarts: [] },
  wall: {
    partitions: [
      { name: 'loader', role: 'loader', bytes: 4 * MIB },
      { name: 'customer', role: 'customer', bytes: 900 * MIB },
    ],
    courses: [
      {
        title: 'loader 7',
        bricks: [
          { partition: 'loader', fate: 'written', seconds: { low: 0.1, high: 0.2 } },
          { partition: 'customer', fate: 'customer', seconds: null },
        ],
      },
    ],
  },
  ownRuns: 31,
  digest: 'd'.repeat(64),
  scale: 256,
  ...more,
})

export const run = (more: Partial<RunShown> = {}): RunShown => ({
  hold: null,
  against: null,
  short: null,
  low: null,
  stopBy: null,
  id: '0b8f4a52-6c1e-4d0a-9a54-1f2e7c9d0009',
  slip: '0417',
  serial: 'TRN4490077F31',
  port: 'P2',
  package: 'tarn-H2.104.r4',
  title: 'H2.104.r4',
  state: 'running',
  word: 'hands-off',
  by: 'Ilse Maro',
  startedAt: AT,
  endedAt: null,
  steps: plan().steps,
  step: 1,
  asked: null,
  elsewhere: null,
  way: null,
  why: null,
  stop: null,
  ownerless: false,
  got: 0,
  size: 0,
  stepSeconds: 1,
  quiet: 0,
  runSeconds: 10,
  waiting: null,
  says: null,
  parts: [],
  journal: 4,
  log: [],
  left: { low: 540, high: 900 },
  looks: { mode: LOADER, says: 'a grey bar above six small lines' },
  cable: 'C',
  battery: 68,
  wall: plan().wall.partitions,
  scale: 256,
  losses: 0,
  ...more,
})

/** What the plan page is told: the plan as it would be now, and what was taken. */
export const planPage = (now: PlanShown | null, more: object = {}) => ({
  plan: {
    now,
    why: null,
    taken: null,
    compared: [],
    layout: 'unread',
    differences: [],
    odd: [],
    ...more,
  },
})

/** What the customer's paper is told from: a job that came to its end as promised. */
export const paper = (more: Partial<PaperShown> = {}): PaperShown => ({
  done: { kind: 'ended' },
  things: [],
  marks: ['floor'],
  bears: [],
  worse: [],
  ...more,
})
