/** What the gate is asked of: a job in which all holds, but for what a test says. */
import type { ReadyFacts } from '../job/ready.ts'
import type { Line } from '../terms/line.ts'
import { standingLines } from '../terms/line.ts'

export const linesOf = (more: Readonly<Record<string, string>>, at = 200) =>
  standingLines(Object.entries(more).map(([topic, answer]): Line => ({ topic, answer, at })))
export const SIGNED = {
  'ready.backup': 'opens',
  'ready.battery': 'done',
  'ready.cable': 'done',
  'ready.permission': 'done',
  'ready.bench': 'done',
}
export const plan = {
  takenAt: 100,
  stale: false,
  reaches: true,
  mode: 'normal',
  needs: 44,
  needsAlone: 44,
  seconds: 1500,
  permission: true,
  fates: ['kept'],
  consents: [],
  fromCard: false,
  keepsOwn: false,
} as const
export const pack = { title: 'H2.104.r4', whole: true, published: true, bytes: true }
export const facts = (more: Partial<ReadyFacts> = {}): ReadyFacts => ({
  state: 'open',
  intakeOpen: 0,
  against: undefined,
  now: 300,
  plan,
  agent: true,
  port: 'P2',
  mode: { name: 'normal mode', charges: true },
  percent: 71,
  otherIds: [],
  busy: false,
  cable: { name: 'C', runs: 40, losses: 0 },
  packages: [pack],
  computer: undefined,
  overruled: false,
  doubted: [],
  unasked: [],
  keepData: true,
  leaving: undefined,
  starts: true,
  house: { backup: 'always', cards: 'out', batteryFloor: null },
  idleDrain: 0.2,
  lines: linesOf({}),
  ...more,
})
