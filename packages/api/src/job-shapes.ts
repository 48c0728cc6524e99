/**
 * The job of a slip: where it stands stage by stage, what was said and read, routes, the plan that was
 * taken, readiness, its run. Codes and figures only; sentences are the catalogue's.
 */
import {
  CARES,
  DATA_KEYS,
  remedySchema,
  CHECKS,
  ENDS,
  FACTS,
  FATES,
  LIGHTER,
  SOURCES,
  STAGES,
  STANDINGS,
  TABLE_PROBLEMS,
  partRoleSchema,
} from '@plain-slate/core'
import { z } from 'zod'
import { duesSchema } from './dues.ts'
import { permitShownSchema } from './permit-shape.ts'
import { takenSchema } from './taken.ts'
import { lookSchema } from './look.ts'
import { modeShownSchema } from './mode.ts'
import { intentSchema, stageSchema } from './error.ts'
import { planSchema } from './runs.ts'
import { leaveSchema } from './ways.ts'

const moment = z.iso.datetime({ precision: 3 })
const facts = z.record(z.string(), z.union([z.string(), z.number()]))
export const stageStandingSchema = z.object({
  stage: stageSchema,
  is: z.enum(['done', 'open', 'waits', 'again', 'halted']),
  says: z.string(),
  facts,
})
export type StageShown = z.infer<typeof stageStandingSchema>

/** The newest line of a topic. `note` is personal text; null: none, or withdrawn. */
export const lineSchema = z.object({
  topic: z.string(),
  answer: z.string(),
  note: z.string().nullable(),
  by: z.string().nullable(),
  at: moment,
})
export type LineShown = z.infer<typeof lineSchema>

export const topicSchema = z.object({
  topic: z.string(),
  stage: z.enum(STAGES),
  group: z.string(),
  answers: z.array(z.string()),
  /** The family's own name of the thing, where it is one of its own. */
  name: z.string().nullable(),
  needed: z.boolean(),
  /** What becomes of the thing as far as a plan, or its having no place, says so; null: nothing says. */
  fate: z.enum(FATES).nullable(),
  /** How hands do it on this family. */
  say: z.array(z.string()),
})
export type TopicShown = z.infer<typeof topicSchema>

const factValue = z.union([z.string(), z.number()])
export const claimSchema = z.object({
  value: factValue,
  weight: z.number(),
  sources: z.array(
    z.object({
      source: z.enum(SOURCES),
      trust: z.number(),
      at: moment,
      by: z.string().nullable(),
      mode: z.string().nullable(),
      /** It was put down by hand, and can be taken back. */
      typed: z.boolean(),
    }),
  ),
})
export const factSchema = z.object({
  fact: z.enum(FACTS),
  kind: z.enum(STANDINGS),
  value: factValue.nullable(),
  claims: z.array(claimSchema),
  needed: z.boolean(),
  /** Where it can be read on this family: source, place, seconds. */
  where: z.array(z.object({ source: z.enum(SOURCES), where: z.string(), seconds: z.number() })),
  /** Of a switch that cannot be turned: on which carrier it never is, or how many days after the first set-up it is. */
  greyed: z.object({ carrier: z.string().nullable(), days: z.number().nullable() }).nullable(),
  /** Titles of packages that cannot be told for want of it. */
  holdsUp: z.array(z.string()),
})
export type FactShown = z.infer<typeof factSchema>

/** A reading worth making: the fact, where it is read, the way there and the reading together in seconds. */
export const nextSchema = z.object({
  fact: z.enum(FACTS),
  source: z.enum(SOURCES),
  where: z.string(),
  /** The mode it is read in; null: it stands on the housing. */
  mode: modeShownSchema.nullable(),
  seconds: z.number(),
  /** Ways to that mode from where it is; whether all of them go by command. */
  legs: z.int(),
  byCommand: z.boolean(),
  /** Of so many packages that are left how many it is expected to rule out, at most and at least. */
  left: z.int(),
  gain: z.number(),
  most: z.int(),
  least: z.int(),
  /** Findings that cannot be told for want of it. */
  tells: z.int(),
  /** What the same look over the link tells with it. */
  along: z.array(z.enum(FACTS)),
})
export type NextShown = z.infer<typeof nextSchema>

export const rulerPartSchema = z.object({
  name: z.string(),
  from: z.string(),
  to: z.string(),
  mark: z.enum(['same', 'deciding', 'differs']),
})
export const rulerSchema = z.object({
  parts: z.array(rulerPartSchema),
  order: z.enum(['older', 'same', 'newer', 'incomparable']),
  /** By which segment, how many of what; of two without an order which segment keeps them apart. */
  far: z.object({
    segment: z.string(),
    n: z.int(),
    unit: z.enum(['week', 'fortnight', 'count', 'word', 'none']),
    here: z.string(),
    there: z.string(),
  }),
})
export type RulerShown = z.infer<typeof rulerSchema>

export const tallySchema = z.object({
  items: z.int(),
  bytes: z.int(),
  opens: z.boolean(),
  at: moment,
})

/** A thing that is not as it was, or as it was promised. */
export const worseSchema = z.object({ what: z.string(), was: z.string(), now: z.string() })
export type WorseShown = z.infer<typeof worseSchema>

export const jobSchema = z.object({
  number: z.string(),
  /** Rises with everything that is said or read of it. */
  version: z.int(),
  stages: z.array(stageStandingSchema),
  at: stageSchema,
  topics: z.array(topicSchema),
  lines: z.array(lineSchema),
  /** What the work at hand is for; a slip on which more is done than it was opened for has another then. */
  intent: intentSchema,
  keepData: z.boolean(),
  family: z
    .object({
      id: z.string(),
      maker: z.string(),
      looks: z.array(
        z.object({
          mode: modeShownSchema,
          looks: z.string(),
          /** Modes that it is taken for, and how to tell them apart. */
          confusedWith: z.array(z.object({ name: z.string(), tell: z.string() })),
        }),
      ),
      permission: z.string(),
      /** How it is given, step by step. */
      permissionSteps: z.array(z.string()),
      /** What the keys of the customer's data hang on, besides device and lock. */
      dataKeys: z.array(z.enum(DATA_KEYS)),
      /** The mode that shows what stands on a device: its name; null: none does. */
      shows: z.string().nullable(),
      idleDrain: z.number(),
      /** Whether an image of an owner's own could start: its lock is no one's alone to open. */
      carries: z.boolean(),
      /** Whether it asks, once wiped, for the account that was on it. */
      asksAccount: z.boolean(),
      /** What is tried when it fails. */
      remedies: z.array(remedySchema),
    })
    .nullable(),
  facts: z.array(factSchema),
  /** What to read next, and the runner-up; none: nothing is worth it. */
  next: z.array(nextSchema),
  /** Before it leaves its running system; null: it does not run, or nothing is to be done first. */
  leave: leaveSchema.nullable(),
  build: z.array(z.object({ name: z.string(), text: z.string() })).nullable(),
  /** The permit of its maker's that was brought; signed: by its file, otherwise it is a lead's word. */
  permit: permitShownSchema.nullable(),
  /** What stands on it by its own digests; `set`: the build of all that is signed together, null: of several. */
  stands: z
    .object({
      parts: z.array(
        z.object({ partition: z.string(), role: partRoleSchema, builds: z.array(z.string()) }),
      ),
      set: z.string().nullable(),
      /** Two parts of the set were read, and each is of a build that is known. */
      told: z.boolean(),
    })
    .nullable(),
  /** Days on which something of it is due. */
  dues: duesSchema,
  /** What was seen and kept word for word, the newest first. */
  seen: z.array(lineSchema),
  /** What is known of this board to go wrong, whoever found it. */
  faults: z.array(
    z.object({
      says: z.string(),
      role: partRoleSchema,
      from: z.string(),
      source: z.string(),
      devices: z.int(),
      date: z.string(),
    }),
  ),
  device: z
    .object({
      serial: z.string(),
      port: z.string().nullable(),
      mode: modeShownSchema.nullable(),
      battery: z.int().nullable(),
      digests: z.int(),
      table: z.boolean(),
      outcome: z.string().nullable(),
      returns: z.int(),
      /** What its screen says since its last start, and the marks it bears, in its family's words. */
      shows: z.string().nullable(),
      marks: z.array(z.string()),
      scale: z.int(),
    })
    .nullable(),
  /** Ports at which a device answers that no other open slip claims. */
  ports: z.array(
    z.object({ name: z.string(), serial: z.string(), model: z.string(), mode: modeShownSchema }),
  ),
  /** The picked route: its aim, and every package of it in the order in which they go on. */
  route: z
    .object({
      /** What it is called. */
      name: z.string(),
      package: z.string(),
      title: z.string(),
      keys: z.array(z.string()),
      /** Claims of all of them that hold. */
      claims: z.int(),
    })
    .nullable(),
  plan: z
    .object({ at: moment, by: z.string().nullable(), title: z.string(), stale: z.boolean() })
    .nullable(),
  run: z.string().nullable(),
  /** The look at its device that was asked last. */
  look: lookSchema.nullable(),
  tally: z.object({ before: tallySchema.nullable(), after: tallySchema.nullable() }),
  /** What is worse after the first start, and whether somebody decided on it. */
  worse: z.array(worseSchema),
  decided: z.boolean(),
  /** Facts that the fuses settle against others of weight, of which nobody looked at the board. */
  doubted: z.array(z.string()),
  /** Whole packages of the route that nobody outside vouches for, and whether a lead overruled that. */
  unpublished: z.object({ keys: z.array(z.string()), overruled: z.boolean() }),
  /** What is still to be done for the customer's copy. */
  /** What Hand back asks: topics, each once. */
  handBack: z.array(z.string()),
  care: z.enum(CARES),
})
export type Job = z.infer<typeof jobSchema>

export const partComparedSchema = z.object({
  partition: z.string(),
  package: z.string(),
  bytes: z.int(),
  write: z.boolean(),
  reason: z.string(),
  facts,
  /** First digits of the image's digest, and of the device's own. */
  image: z.string(),
  device: z.string().nullable(),
})
export const planPageSchema = z.object({
  /** What would be planned now; null where there is none, or a run has begun. */
  now: planSchema.nullable(),
  why: z.string().nullable(),
  taken: takenSchema.nullable(),
  compared: z.array(partComparedSchema),
  layout: z.enum(['unread', 'equal', 'differs']),
  differences: z.array(z.object({ partition: z.string(), how: z.string() })),
  /** What is odd about the device's own table, whatever it should be. */
  odd: z.array(
    z.object({ kind: z.enum(TABLE_PROBLEMS), names: z.array(z.string()), what: z.string() }),
  ),
})
export type PlanPage = z.infer<typeof planPageSchema>

export const readySchema = z.object({
  /** `seen` is false where there was nothing to look at: no device at a port, no cable on it. */
  checks: z.array(
    z.object({ check: z.enum(CHECKS), holds: z.boolean(), seen: z.boolean(), facts }),
  ),
  signed: z.array(
    z.object({
      topic: z.string(),
      answers: z.array(z.string()),
      /** What was answered for this plan; "no" is an answer and signs nothing. */
      answer: z.string().nullable(),
      signed: z.boolean(),
      /** Why the word that was given holds no more; null: it holds, or none was given. */
      ended: z.enum(ENDS).nullable(),
      facts,
      by: z.string().nullable(),
      at: moment.nullable(),
    }),
  ),
  /** The ways of the plan that hands go, in order; `from`: null where it may begin in several modes. */
  ways: z.array(z.object({ from: modeShownSchema.nullable(), to: modeShownSchema })),
})
export type Ready = z.infer<typeof readySchema>

/** A fact promised, as it was, and as the device says it now. */
export const provenFactSchema = z.object({
  fact: z.string(),
  was: factValue.nullable(),
  promised: factValue.nullable(),
  now: factValue.nullable(),
  holds: z.boolean().nullable(),
})

/** What the customer's paper tells: what was done, how each thing was found, what stays. */
export const paperSchema = z.object({
  done: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('nothing') }),
    z.object({ kind: z.literal('cured'), by: z.enum(LIGHTER) }),
    z.object({ kind: z.literal('ended') }),
    z.object({
      kind: z.literal('broken-off'),
      step: z.int(),
      steps: z.int(),
      whole: z.array(z.string()),
      part: z.array(z.string()),
    }),
  ]),
  things: z.array(
    z.object({
      item: z.string(),
      name: z.string(),
      fate: z.enum(FATES),
      found: z.enum(['as-promised', 'not-as-promised', 'unseen']),
    }),
  ),
  marks: z.array(z.enum(['floor', 'loader'])),
  bears: z.array(z.string()),
  worse: z.array(worseSchema),
})
export type PaperShown = z.infer<typeof paperSchema>
