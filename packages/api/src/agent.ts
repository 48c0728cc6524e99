/**
 * What the agent and the server say to each other. The agent dials: it reads what is wanted of it,
 * claims runs under a lease, and reports. Everything under the bench secret.
 */
import {
  benchComputerSchema,
  commandSchema,
  deviceFactsSchema,
  journalEntrySchema,
  modeSchema,
  phaseSchema,
} from '@plain-slate/core'
import { z } from 'zod'
import { route } from './route.ts'

const agent = z.string().min(1).max(64)
const run = z.uuid()
const epoch = z.int().positive()

/** How long a lease lasts, and how often its holder renews it. */
export const LEASE_MS = 10_000
export const RENEW_MS = 3_000

/** What a run shows: where it is, besides its journal. */
export const shownSchema = z.object({
  phase: phaseSchema,
  next: z.int().nonnegative(),
  got: z.int().nonnegative(),
  /** The device's own time, ms of model time; when the run and when its step began. */
  at: z.number().nonnegative(),
  runAt: z.number().nonnegative(),
  stepAt: z.number().nonnegative(),
  waiting: z.object({ mode: modeSchema.nullable(), seen: deviceFactsSchema.nullable() }).nullable(),
  /** What the device showed or asked last by itself, in this step. */
  says: z.string().nullable().default(null),
  losses: z.int().nonnegative(),
})
export type ShownRun = z.infer<typeof shownSchema>

export const workRunSchema = z.object({
  id: run,
  serial: z.string(),
  port: z.string(),
  /** True: it may be claimed, to be driven or to be stopped. */
  wanted: z.boolean(),
  /** The number of the stop that is to be met; 0: none is. */
  stop: z.int().nonnegative(),
  /** Acts of people, by the command's place. */
  answers: z.record(z.string(), z.string()),
})
export const workSchema = z.object({
  runs: z.array(workRunSchema),
  looks: z.array(
    z.object({
      id: run,
      port: z.string(),
      digests: z.array(z.object({ partition: z.string(), size: z.int().positive() })),
      /** Into this mode and back, under this epoch; both null: as it is. */
      into: modeSchema.nullable(),
      epoch: z.int().positive().nullable(),
    }),
  ),
})
export type Work = z.infer<typeof workSchema>

export const imagePlaceSchema = z.object({
  image: z.string(),
  archive: z.string(),
  offset: z.int().nonnegative(),
  size: z.int().positive(),
})

export const claimedSchema = z.object({
  epoch,
  commands: z.array(commandSchema),
  journal: z.array(journalEntrySchema),
  places: z.array(imagePlaceSchema),
  /** Whence its device is told over the link into which mode. */
  leads: z.array(z.object({ from: z.string(), to: z.string() })),
  /** What the one before showed last. */
  shown: shownSchema.nullable(),
  /** Stops by number: those up to `met` are bygone. */
  stop: z.object({ asked: z.int().nonnegative(), met: z.int().nonnegative() }),
})

/** What a look found. Bytes are base64. `tally`: the customer's things, counted by its system. */
export const lookFoundSchema = z.object({
  facts: deviceFactsSchema.nullable(),
  /** What it said in every mode it was met in on the way, in order: each shows its own. */
  met: z.array(deviceFactsSchema),
  table: z
    .object({
      sectorBytes: z.int().positive(),
      diskBytes: z.int().positive(),
      ranges: z.array(z.object({ at: z.int().nonnegative(), bytes: z.string() })).max(8),
    })
    .nullable(),
  digests: z.array(
    z.object({ partition: z.string(), size: z.int().positive(), sha256: z.string() }),
  ),
  tally: z.object({ items: z.int(), bytes: z.int(), opens: z.boolean() }).nullable(),
})
export type LookFound = z.infer<typeof lookFoundSchema>

export const agentRoutes = {
  agentEvents: route({
    method: 'get',
    path: '/api/agent/events',
    needs: 'agent',
    secret: true,
    summary: 'News for an agent, as server-sent events',
    query: z.object({ agent }),
    answers: 'events',
  }),
  agentWork: route({
    method: 'get',
    path: '/api/agent/work',
    needs: 'agent',
    secret: true,
    summary: 'What is wanted of agents',
    answer: workSchema,
  }),
  agentPorts: route({
    method: 'post',
    path: '/api/agent/ports',
    needs: 'agent',
    secret: true,
    summary: 'What answers at each port, and what the computer tells of itself',
    body: z.object({
      agent,
      ports: z.array(
        z.object({
          name: z.string(),
          facts: deviceFactsSchema.nullable(),
          /** Why what answers there cannot be used; null: nothing answers, or it can. */
          odd: z.string().max(200).nullable(),
          /** The address or the command behind it, and whether a file on its machine names it. */
          way: z.string().max(200).default(''),
          filed: z.boolean().default(true),
        }),
      ),
      computer: benchComputerSchema.nullable().default(null),
      /** True: it holds these ports and no others. */
      whole: z.boolean().default(false),
    }),
    /** The ports that the house named for this agent. */
    answer: z.object({
      ports: z.array(z.object({ name: z.string(), address: z.string() })).default([]),
    }),
  }),
  agentLook: route({
    method: 'post',
    path: '/api/agent/look',
    needs: 'agent',
    secret: true,
    summary: 'What a look at a device found',
    body: z.object({ id: run, found: lookFoundSchema }),
    answer: z.object({}),
  }),
  agentClaim: route({
    method: 'post',
    path: '/api/agent/claim',
    needs: 'agent',
    secret: true,
    summary: 'Take a run under a lease, at a higher epoch than anybody had',
    body: z.object({ agent, run }),
    answer: claimedSchema,
  }),
  agentRenew: route({
    method: 'post',
    path: '/api/agent/renew',
    needs: 'agent',
    secret: true,
    summary: 'Renew the leases of runs; those that are no longer held are not answered',
    body: z.object({ agent, held: z.array(z.object({ run, epoch })) }),
    answer: z.object({ held: z.array(run) }),
  }),
  agentReport: route({
    method: 'post',
    path: '/api/agent/report',
    needs: 'agent',
    secret: true,
    summary: 'Mirror a journal and show where a run is',
    body: z.object({
      agent,
      run,
      epoch,
      from: z.int().nonnegative(),
      entries: z.array(journalEntrySchema),
      /** The number of the newest stop it has heard. */
      heard: z.int().nonnegative(),
      shown: shownSchema,
    }),
    answer: z.object({ journal: z.int() }),
  }),
}
