/** Routes as they are shown, what would open one, and what is judged of one package. Codes and figures only. */
import {
  CUT_CLASSES,
  FATES,
  MISSES,
  MOVE_ACTS,
  PLAN_WAYS,
  SCHOOL_QUESTIONS,
} from '@plain-slate/core'
import type { SchoolQuestion } from '@plain-slate/core'
import { z } from 'zod'
import { rulerSchema } from './job-shapes.ts'
import { candidateSchema, findingSchema, planSchema, rangeSchema, stepSchema } from './runs.ts'

/** A package by its title, or what is done without one. */
const moveSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('package'), title: z.string() }),
  z.object({ kind: z.literal('act'), act: z.enum(MOVE_ACTS) }),
])

export const routeSchema = candidateSchema.extend({
  /** What the route is called: its moves one after the other. */
  route: z.string(),
  /** How its last package goes on. */
  way: z.enum(PLAN_WAYS),
  /** What comes before it, and what is done after it. */
  first: z.array(moveSchema),
  then: z.array(moveSchema),
  /** All of it is on the device already: nothing of it is written. */
  idle: z.boolean(),
  time: rangeSchema,
  hands: rangeSchema,
  fates: planSchema.shape.fates,
  /** Whether its rehearsal is done; until then nothing is said of its worst moment. */
  rehearsed: z.boolean(),
  /** The worst that a cut leaves, and for how many seconds at the longest. */
  worst: z.object({ leaves: z.enum(CUT_CLASSES), seconds: z.number() }).nullable(),
  wayBack: z.string().nullable(),
  /** From its end back to what was on it: what would be put on, what becomes of the data. */
  back: z
    .object({ titles: z.array(z.string()), data: z.enum(FATES), fetch: z.boolean() })
    .nullable(),
  /** Where its rehearsal fails, on what is read so far; null: it does not. */
  fails: planSchema.shape.fails,
  /** What it misses of the wish, the gravest first. */
  misses: z.array(z.enum(MISSES)),
  ruler: rulerSchema.nullable(),
  patchDate: z.string(),
})
export type RouteShown = z.infer<typeof routeSchema>

/** The plan in hand as it would be, had the house answered a question otherwise. */
export const otherwiseSchema = routeSchema
  .pick({ route: true, time: true, hands: true, fates: true, worst: true, fails: true })
  .extend({
    question: z.enum(SCHOOL_QUESTIONS as [SchoolQuestion, ...SchoolQuestion[]]),
    answer: z.string(),
    needs: z.int(),
    restarts: z.int(),
    steps: z.array(stepSchema),
  })
export type OtherwiseShown = z.infer<typeof otherwiseSchema>

/** What would have to be lifted for a way to a package. */
export const blockedSchema = z.object({
  package: z.string(),
  title: z.string(),
  /** What would come before it, and be done after it. */
  first: z.array(moveSchema),
  then: z.array(moveSchema),
  obstacles: z.array(z.object({ package: z.string(), title: z.string(), finding: findingSchema })),
})
export type BlockedShown = z.infer<typeof blockedSchema>

export const routesSchema = z.object({
  routes: z.array(routeSchema),
  /** Routes that are open and not listed: the others come before them. */
  open: z.int(),
  /** The search gave up at its limit: there may be more routes. */
  limit: z.boolean(),
  /** Where no route is open that reaches the wish: the smallest sets of what would open one. */
  blocked: z.array(blockedSchema),
  /**
   * Where no route reaches the wish: the package that would, and what is gravest against it; titles null: none that is known
   * would. Null: a route reaches it, or what it is was not read.
   */
  cannot: z.object({ title: z.string().nullable(), finding: findingSchema.nullable() }).nullable(),
  left: z.array(
    candidateSchema.omit({ findings: true }).extend({
      kind: z.string(),
      /** Its gravest finding. */
      reason: findingSchema.nullable(),
      /** Why there is no plan for one that fits. */
      none: z.string().nullable(),
    }),
  ),
  /** Packages of the family that are left out and not listed. */
  more: z.int(),
  /** The version of the slip that they were looked for at. */
  version: z.int(),
  known: z.int(),
  naming: z.int(),
  /** Packages for devices of other families. */
  foreign: z.int(),
  /** What the picked route is called. */
  picked: z.string().nullable(),
})

/** Everything that is judged of one device: packages alone, routes with what each costs, what would open one. */
export const judgedSchema = z.object({
  candidates: z.array(candidateSchema),
  routes: z.array(
    z.object({
      route: z.string(),
      package: z.string(),
      title: z.string(),
      first: z.array(moveSchema),
      then: z.array(moveSchema),
      way: z.enum(PLAN_WAYS),
      verdict: candidateSchema.shape.verdict,
      findings: z.array(findingSchema),
      misses: z.array(z.enum(MISSES)),
      /** At the longest. */
      minutes: z.int(),
      data: z.enum(FATES),
    }),
  ),
  /** Routes that are open and not listed. */
  open: z.int(),
  blocked: z.array(blockedSchema),
  limit: z.boolean(),
})
export type Judged = z.infer<typeof judgedSchema>

export const whySchema = candidateSchema.extend({
  /** The route's title that is nearest to it and open; null: none is. */
  nearest: z.string().nullable(),
})
