/**
 * Where a slip stands, stage by stage: done, open, waiting for one before it, to be done again, or halted.
 * Reads what is known of the job; gives per stage its state and the code of its one-line result. The
 * stage a slip is at is the first that is not done. Once a run has begun, what led to it is history: the
 * device it was true of is gone.
 */
import type { Verdict } from '../verdict/verdict.ts'
import { isTakeable } from '../verdict/verdict.ts'
import type { Stage } from '../terms/slip.ts'
import { STAGES } from '../terms/slip.ts'
import { FUNCTIONS } from '../terms/line.ts'
import type { Lines } from './intake.ts'
import { haltOf, said, unsaid, wishOf } from './intake.ts'
import type { Worse } from './first-start.ts'
import type { Prepared } from './hand-back.ts'
import { handBackTopics } from './hand-back.ts'
import type { LighterName } from './lighter.ts'

export type StageState = 'done' | 'open' | 'waits' | 'again' | 'halted'
export type StageFacts = Readonly<Record<string, string | number>>

export type StageStanding = {
  readonly stage: Stage
  readonly is: StageState
  /** Code of the sentence under the stage's name, without its prefix. */
  readonly says: string
  readonly facts: StageFacts
}

export type JobFacts = {
  readonly closed: boolean
  readonly things: readonly string[]
  readonly lines: Lines
  /** It is asked which variant it is to be. */
  readonly asksRow: boolean
  /** Lighter remedies that are offered and open, and the one that cured it. */
  readonly lighter: { readonly open: number; readonly cured: LighterName | undefined }
  /** Undefined: no family here knows the model, or no model is known. */
  readonly known: { readonly settled: number; readonly open: readonly string[] } | undefined
  readonly route: { readonly title: string; readonly verdict: Verdict } | undefined
  /** Packages of the route; those of them that are not whole, and those nobody outside vouches for. */
  readonly packages: number
  readonly unproven: readonly string[]
  readonly unpublished: readonly string[]
  /** A lead takes them all the same. */
  readonly overruled: boolean
  readonly written:
    { readonly images: number; readonly of: number; readonly read: boolean } | undefined
  readonly plan:
    | {
        readonly steps: number
        readonly low: number
        readonly high: number
        readonly stale: boolean
      }
    | undefined
  readonly ready: { readonly open: number; readonly all: number }
  readonly run:
    | {
        readonly state: 'under-way' | 'stopped' | 'ended'
        readonly step: number
        readonly steps: number
      }
    | undefined
  /** What is worse after the first start, and whether somebody decided on that. */
  readonly worse: readonly Worse[]
  readonly decided: boolean
  readonly prepared: Prepared
}

type Own = Omit<StageStanding, 'stage'>
const own = (is: StageState, says: string, facts: StageFacts = {}): Own => ({ is, says, facts })

/** What a device that something lighter cured is spared. */
const SPARED: readonly Stage[] = STAGES.slice(
  STAGES.indexOf('readings'),
  STAGES.indexOf('first-start'),
)

/** Every stage as it stands. */
export function standingsOf(job: JobFacts): readonly StageStanding[] {
  const { cured } = job.lighter
  const spared = cured !== undefined && job.run === undefined
  const alone = STAGES.map((stage): StageStanding =>
    spared && SPARED.includes(stage)
      ? { stage, ...own('done', 'cured', { by: cured }) }
      : { stage, ...OF[stage](job) },
  )
  const at = alone.findIndex(({ is }) => is !== 'done')
  const blocking = alone[at]
  return alone.map((one, index) => {
    const reached = at < 0 || index <= at || one.is === 'again'
    if (reached || blocking === undefined) return one
    return { stage: one.stage, ...own('waits', 'waits', { stage: blocking.stage }) }
  })
}

/** The first stage that is not done; the last one when all are. */
export const stageAt = (standings: readonly StageStanding[]): Stage =>
  standings.find(({ is }) => is !== 'done')?.stage ?? 'hand-back'

/** Questions of Intake without an answer, with lighter remedies that are still to be tried. */
export const intakeOpen = ({
  things,
  lines,
  asksRow,
  lighter,
}: Pick<JobFacts, 'things' | 'lines' | 'asksRow' | 'lighter'>): number =>
  unsaid(things, lines, asksRow).length + lighter.open

const OF: Readonly<Record<Stage, (job: JobFacts) => Own>> = {
  intake(job) {
    const { lines, things, run } = job
    const wish = wishOf(things, lines)
    /* What is said against the work while it is written stands on the run's page, and holds it. */
    if (run !== undefined) return own('done', `intake.${wish}`)
    const halt = haltOf(lines)
    if (halt !== undefined) return own('halted', `intake.${halt}`)
    const open = intakeOpen(job)
    return open === 0 ? own('done', `intake.${wish}`) : own('open', 'intake.open', { n: open })
  },
  readings({ known, run }) {
    if (known === undefined)
      return run === undefined
        ? own('open', 'readings.unknown')
        : own('done', 'readings.done', { settled: 0 })
    const { settled, open } = known
    if (open.length > 0 && run === undefined)
      return own('open', 'readings.open', { n: open.length, settled })
    return own('done', 'readings.done', { settled })
  },
  firmware({ route, run }) {
    if (route === undefined) return own('open', 'firmware.open')
    const { title, verdict } = route
    if (run !== undefined || isTakeable(verdict)) return own('done', 'firmware.done', { title })
    return own('again', 'firmware.again', { title })
  },
  proof({ packages, unproven, unpublished, overruled, run }) {
    if (run === undefined && unproven.length > 0)
      return own('open', 'proof.open', { titles: unproven.join(', ') })
    if (unpublished.length > 0) {
      const titles = unpublished.join(', ')
      if (overruled) return own('done', 'proof.overruled', { titles })
      if (run === undefined) return own('open', 'proof.unpublished', { titles })
    }
    return own('done', 'proof.done', { n: packages })
  },
  compare({ written, lines, run }) {
    if (written === undefined) return own('open', 'compare.none')
    const { images: n, of, read } = written
    const accepted = said(lines, 'compare.unread') !== undefined
    return run !== undefined || read || accepted
      ? own('done', 'compare.done', { n, of })
      : own('open', 'compare.open', { of })
  },
  plan({ plan, run }) {
    if (plan === undefined) return own('open', 'plan.open')
    const { steps, low, high, stale } = plan
    if (stale && run === undefined) return own('again', 'plan.again')
    return own('done', 'plan.done', { steps, low, high })
  },
  ready({ ready: { open, all }, run }) {
    if (run !== undefined) return own('done', 'ready.began')
    return open === 0
      ? own('done', 'ready.done', { n: all })
      : own('open', 'ready.open', { open, all })
  },
  write({ run }) {
    if (run === undefined) return own('open', 'write.open')
    const { state, step, steps } = run
    if (state === 'ended') return own('done', 'write.done', { steps })
    return own('open', state === 'stopped' ? 'write.stopped' : 'write.step', { step, steps })
  },
  'first-start'({ lines, worse, decided }) {
    const asked = ['after.data', ...FUNCTIONS.map((one) => `after.${one}`)]
    const open = asked.filter((topic) => !lines.has(topic)).length
    if (open > 0) return own('open', 'first-start.open', { n: open })
    if (worse.length === 0) return own('done', 'first-start.done')
    return decided
      ? own('done', 'first-start.decided', { n: worse.length })
      : own('open', 'first-start.worse', { n: worse.length })
  },
  'hand-back'({ lines, closed, prepared }) {
    const open = handBackTopics(lines, prepared).filter((topic) => !lines.has(topic)).length
    if (open > 0) return own('open', 'hand-back.open', { n: open })
    return closed ? own('done', 'hand-back.done') : own('open', 'hand-back.close')
  },
}

/** What is still to be done for a customer whose slip is closed: their word, then the copy. */
export const CARES = ['ask-owner', 'delete-copy', 'none'] as const
export type Care = (typeof CARES)[number]

/** A copy of the data is kept until its owner says that all is well, and is deleted then. */
export function careOf(lines: Lines): Care {
  if (said(lines, 'ready.backup') !== 'opens') return 'none'
  if (said(lines, 'care.backup') !== undefined) return 'none'
  return said(lines, 'care.well') === undefined ? 'ask-owner' : 'delete-copy'
}
