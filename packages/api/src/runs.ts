/** Plans and runs: what would be done to the device at a port, and what is being done. */
import {
  BRICK_FATES,
  CUT_CLASSES,
  FATES,
  FATE_WHYS,
  LEDGE_WORDS,
  ORDER_CODES,
  OVERRULERS,
  REMEDIES,
  STOP_WAITS,
  VERDICTS,
  evidenceSchema,
  leastOf,
  startOutcomeSchema,
  stepSaidSchema,
} from '@plain-slate/core'
import { z } from 'zod'
import { planAsked } from './asked.ts'
import { factsSchema } from './json.ts'
import { route } from './route.ts'
import { modeShownSchema } from './mode.ts'
import { seenSchema } from './bench.ts'

const moment = z.iso.datetime({ precision: 3 })
export const rangeSchema = z.object({ low: z.number(), high: z.number() })
const range = rangeSchema
const verdictSchema = z.enum(VERDICTS)

export const markSchema = z.object({
  kind: z.enum(['irreversible', 'risky', 'old', 'thin', 'person']),
  seconds: z.exactOptional(z.number()),
  date: z.exactOptional(z.string()),
  devices: z.exactOptional(z.int()),
})
/** What can be done about a finding; what a kind does not need is not there. */
export const remedySchema = z.object({
  kind: z.enum(REMEDIES),
  facts: z.exactOptional(z.array(z.string())),
  what: z.exactOptional(z.string()),
  topic: z.exactOptional(z.string()),
  first: z.exactOptional(z.string()),
})
export type RemedyShown = z.infer<typeof remedySchema>
export const findingSchema = z.object({
  rule: z.string(),
  verdict: verdictSchema,
  code: z.string(),
  facts: z.record(z.string(), z.union([z.string(), z.number()])),
  marks: z.array(markSchema),
  remedy: remedySchema.nullable(),
  /** Who may overrule its rule. */
  overruled: z.enum(OVERRULERS),
})
export type FindingShown = z.infer<typeof findingSchema>

export const candidateSchema = z.object({
  package: z.string(),
  title: z.string(),
  build: z.string(),
  verdict: verdictSchema,
  findings: z.array(findingSchema),
})
export type Candidate = z.infer<typeof candidateSchema>

/** A step as its sentence needs it, with its model seconds and the worst that a cut in it leaves. */
const stepFiguresSchema = z.object({
  number: z.int(),
  seconds: range,
  hands: z.boolean(),
  worst: z.enum(CUT_CLASSES),
  /** Where its time comes from, and how many measurements are behind it. */
  source: z.enum(['family', 'own', 'plain']),
  n: z.int(),
  /** Seconds without a sign after which it is stuck; null: silence alone never makes it so. */
  silent: z.number().nullable(),
})
export const stepSchema = z.intersection(stepSaidSchema, stepFiguresSchema)
export type StepShown = z.infer<typeof stepSchema>

export const planSchema = z.object({
  package: z.string(),
  title: z.string(),
  serial: z.string(),
  port: z.string(),
  verdict: verdictSchema,
  findings: z.array(findingSchema),
  steps: z.array(stepSchema),
  /** Why they stand in this order. */
  order: z.array(z.object({ code: z.enum(ORDER_CODES), facts: factsSchema })),
  time: range,
  hands: range,
  /** Percent of charge that must be there. */
  needs: z.int(),
  /** What may be drawn of that, without margin and floor; the floor of the house, where it has one. */
  draws: z.number(),
  floor: z.int().nullable(),
  restarts: z.int(),
  /** What becomes of each of the customer's things, where it lies, and what decides that. */
  fates: z.array(
    z.object({
      item: z.string(),
      name: z.string(),
      partition: z.string(),
      fate: z.enum(FATES),
      why: z.enum(FATE_WHYS),
    }),
  ),
  writes: z.array(
    z.object({
      partition: z.string(),
      write: z.boolean(),
      reason: z.string(),
      facts: factsSchema,
      bytes: z.int(),
    }),
  ),
  /** The last step after which the way back is open; null: there is none. */
  wayBackUntil: z.int().nullable(),
  /** Seconds of the plan in which a cut would leave each class, at the longest. */
  atRisk: z.partialRecord(z.enum(CUT_CLASSES), z.number()),
  /** Whether the rehearsal on the device's twin ended as the plan promises. */
  reaches: z.boolean(),
  /** How it ended. */
  ends: z.object({
    build: z.string(),
    outcome: startOutcomeSchema,
    data: z.enum(['readable', 'unreadable', 'none']),
    lock: z.string(),
    /** The sentence on its screen then; null: none of its family's. */
    shows: z.string().nullable(),
  }),
  /** Where the rehearsal fails, and why; both null: its end is another than promised. Null: it does not. */
  fails: z
    .object({
      step: z.int().nullable(),
      why: z.object({ code: z.string(), facts: factsSchema }).nullable(),
    })
    .nullable(),
  /** What was not read and assumed for the rehearsal: partitions, and facts with what was assumed. */
  assumed: z.object({
    parts: z.array(z.string()),
    facts: z.record(z.string(), z.union([z.string(), z.number()])),
  }),
  wayBack: z.string().nullable(),
  strip: z.object({
    stretches: z.array(
      z.object({
        from: z.int(),
        to: z.int(),
        leaves: z.enum(CUT_CLASSES),
        seconds: range,
      }),
    ),
    hands: z.array(z.int()),
    cable: z.array(z.int()),
    restarts: z.array(z.int()),
  }),
  wall: z.object({
    partitions: z.array(z.object({ name: z.string(), role: z.string(), bytes: z.int() })),
    courses: z.array(
      z.object({
        title: z.string(),
        bricks: z.array(
          z.object({
            partition: z.string(),
            fate: z.enum(BRICK_FATES),
            seconds: range.nullable(),
          }),
        ),
      }),
    ),
  }),
  /** Measurements of this bench behind the rate of writing; 0: the family's figure. */
  ownRuns: z.int(),
  /** Digest of the plan's own JSON: what is started must be what was shown. */
  digest: z.string(),
  scale: z.int(),
})
export type PlanShown = z.infer<typeof planSchema>

export const RUN_STATES = ['wanted', 'running', 'stopped', 'ended'] as const
export const partStandingSchema = z.object({
  partition: z.string(),
  image: z.string(),
  bytes: z.int(),
  kept: z.int(),
  doubt: z.int(),
  readBack: z.boolean(),
})

export const runRowSchema = z.object({
  id: z.string(),
  slip: z.string().nullable(),
  serial: z.string(),
  port: z.string(),
  package: z.string(),
  title: z.string(),
  state: z.enum(RUN_STATES),
  word: z.enum(LEDGE_WORDS),
  by: z.string().nullable(),
  startedAt: moment,
  endedAt: moment.nullable(),
})
export type RunRow = z.infer<typeof runRowSchema>

export const runSchema = runRowSchema.extend({
  steps: z.array(stepSchema),
  /** The step under way, by number; and the command of a person who is asked, by its place. */
  step: z.int(),
  asked: z.object({ command: z.int(), ask: z.string(), text: z.string() }).nullable(),
  /** Another port at which its device is seen, and that no run holds: it can go on there; null: none, or it need not. */
  elsewhere: z.string().nullable(),
  /** The way that hands are to go in this step; null: none. */
  way: z.object({ from: modeShownSchema.nullable(), to: modeShownSchema }).nullable(),
  why: z.object({ code: z.string(), facts: factsSchema }).nullable(),
  /** What a stop waits for that was asked and not met; null: none was. */
  stop: z.enum(STOP_WAITS).nullable(),
  /** Nobody drives it: its agent is gone, and it waits to be taken up. */
  ownerless: z.boolean(),
  /** Bytes kept of the piece under way. */
  got: z.int(),
  size: z.int(),
  /** Model time: since the step began, and since the run did, in seconds. */
  stepSeconds: z.number(),
  /** Seconds, on the server's clock, in which nothing moved; 0 where it is not under way. */
  quiet: z.number(),
  runSeconds: z.number(),
  waiting: z.object({ mode: modeShownSchema.nullable(), seen: seenSchema.nullable() }).nullable(),
  /** What the device showed or asked by itself in this step; null: nothing. */
  says: z.string().nullable(),
  /** The part kept once, or the lock, that is in doubt while nobody writes: null where none is. */
  hold: z.string().nullable(),
  /** What was said against the work since it began, and stands: it waits where that is safe; null: nothing. */
  against: z
    .object({ topic: z.string(), answer: z.string(), by: z.string().nullable(), at: moment })
    .nullable(),
  /** Its device has less charge than the rest of it may draw, both in percent; null: enough, or nobody knows. */
  short: z.object({ charge: z.int(), needs: z.int() }).nullable(),
  /** The same as it was when the run was stopped for that; null: it was not, or it was taken up since. */
  low: z.object({ charge: z.int(), needs: z.int() }).nullable(),
  /** Who asked for its stop, by name; null: nobody did, or it was taken up since. */
  stopBy: z.string().nullable(),
  parts: z.array(partStandingSchema),
  journal: z.int(),
  /** What was done, in order: the device's time, the step's words, seconds it took. */
  log: z.array(
    z.intersection(
      stepSaidSchema,
      z.object({
        at: moment,
        seconds: z.number().nullable(),
        evidence: evidenceSchema,
      }),
    ),
  ),
  /** Seconds from now to the end of the plan, by its steps' ranges. */
  left: range,
  /** What the mode it is in looks like; null while it is not known. */
  looks: z.object({ mode: modeShownSchema, says: z.string() }).nullable(),
  cable: z.string().nullable(),
  battery: z.int().nullable(),
  wall: z.array(z.object({ name: z.string(), role: z.string(), bytes: z.int() })),
  scale: z.int(),
  losses: z.int(),
})
export type RunShown = z.infer<typeof runSchema>

const runParams = z.object({ id: z.uuid() })
export const runRoutes = {
  plan: route({
    method: 'post',
    path: '/api/plans',
    needs: leastOf('run.prepare'),
    secret: true,
    summary: 'Plan a package or a route for one device, rehearsed with its cuts',
    body: planAsked,
    answer: planSchema,
  }),
  runs: route({
    method: 'get',
    path: '/api/runs',
    needs: leastOf('bench.read'),
    secret: true,
    summary: 'Runs, the newest first',
    answer: z.array(runRowSchema),
  }),
  run: route({
    method: 'get',
    path: '/api/runs/{id}',
    needs: leastOf('bench.read'),
    secret: true,
    summary: 'One run as it stands',
    params: runParams,
    answer: runSchema,
  }),
  runDone: route({
    method: 'post',
    path: '/api/runs/{id}/done',
    needs: leastOf('run.hands'),
    summary: 'Say that what a run asked of hands is done',
    params: runParams,
    body: z.object({ command: z.int().nonnegative() }),
    answer: runSchema,
  }),
  runStop: route({
    method: 'post',
    path: '/api/runs/{id}/stop',
    needs: leastOf('run.hands'),
    summary: 'Stop a run after the piece under way',
    params: runParams,
    answer: runSchema,
  }),
  runTakeUp: route({
    method: 'post',
    path: '/api/runs/{id}/take-up',
    needs: leastOf('run.start'),
    summary: 'Take up a run that stopped, or that nobody drives any more',
    params: runParams,
    answer: runSchema,
  }),
  runMove: route({
    method: 'post',
    path: '/api/runs/{id}/move',
    needs: leastOf('run.start'),
    summary: 'Go on with a run at another port, where its device is seen now',
    params: runParams,
    body: z.object({ port: z.string().min(1).max(12) }),
    answer: runSchema,
  }),
  runPutAway: route({
    method: 'post',
    path: '/api/runs/{id}/put-away',
    needs: leastOf('run.hands'),
    summary: 'Take a run that is over off its port',
    params: runParams,
    answer: runSchema,
  }),
}
