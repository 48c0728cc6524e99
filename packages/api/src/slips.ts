/** Slips: the list, one slip's head, its history, and the acts on it. */
import { CARES, DUES, SLIP_STATES, leastOf } from '@plain-slate/core'
import { z } from 'zod'
import { intentSchema, stageSchema } from './error.ts'
import { factsSchema } from './json.ts'
import { personIdSchema, pinSchema } from './people.ts'
import { oneLine } from './line.ts'
import { route } from './route.ts'

export const slipNumberSchema = z
  .string()
  .regex(/^[0-9]{4,6}$/, 'a slip number, four to six digits')
export const stateSchema = z.enum(SLIP_STATES)
const moment = z.iso.datetime({ precision: 3 })
const line = oneLine(120)
const paragraph = z.string().trim().max(2000)

/** A second person beside whoever acts, with their own PIN. */
export const secondSchema = z.object({ person: personIdSchema, pin: pinSchema })

/** A row of the list. `customer` is null when none was given or when it was withdrawn. */
export const slipRowSchema = z.object({
  number: z.string(),
  device: z.string(),
  model: z.string().nullable(),
  customer: z.string().nullable(),
  intent: intentSchema,
  promise: z.string(),
  stage: stageSchema,
  state: stateSchema,
  due: moment.nullable(),
  openedAt: moment,
  version: z.int(),
})
export type SlipRow = z.infer<typeof slipRowSchema>

/** A slip's head: the row, the customer's own words, and whether personal text was withdrawn. */
export const slipSchema = slipRowSchema.extend({
  words: z.string().nullable(),
  withdrawn: z.boolean(),
  /** Null: at the shell, by nobody who was signed in. */
  openedBy: z.string().nullable(),
})
export type Slip = z.infer<typeof slipSchema>

/** The parts of a head that people change, with their limits. Empty text means "not known". */
export const slipFields = {
  device: line.min(2),
  model: line,
  customer: line,
  intent: intentSchema,
  promise: line,
  words: paragraph,
  due: z.union([moment, z.literal('')]),
} as const
export const SLIP_FIELDS = Object.keys(slipFields) as readonly SlipField[]
export type SlipField = keyof typeof slipFields

const change = <Value extends z.ZodType>(value: Value) =>
  z.exactOptional(z.object({ from: z.string(), to: value }))

/** Each change says what the field said before, so that a colleague's change is never run over. */
export const slipChangeSchema = z.object({
  device: change(slipFields.device),
  model: change(slipFields.model),
  customer: change(slipFields.customer),
  intent: change(slipFields.intent),
  promise: change(slipFields.promise),
  words: change(slipFields.words),
  due: change(slipFields.due),
})
export type SlipChange = z.infer<typeof slipChangeSchema>

export const SLIP_SORTS = ['number', 'device', 'intent', 'stage', 'state', 'due'] as const
const csvOf = <Value extends z.ZodType<string, string>>(value: Value) =>
  z
    .string()
    .transform((text) => text.split(',').filter((part) => part !== ''))
    .pipe(z.array(value))

/** The list's query as it stands in the address; every part may be left out. */
export const slipQuerySchema = z.object({
  q: z.exactOptional(oneLine(80)),
  state: z.exactOptional(csvOf(stateSchema)),
  intent: z.exactOptional(csvOf(intentSchema)),
  stage: z.exactOptional(csvOf(stageSchema)),
  sort: z.exactOptional(z.enum(SLIP_SORTS)),
  dir: z.exactOptional(z.enum(['up', 'down'])),
  /** From 1. */
  page: z.exactOptional(z.coerce.number().pipe(z.int().min(1).max(100_000))),
})
/** Slips of one page of the list. */
export const SLIPS_A_PAGE = 50
export type SlipQuery = z.infer<typeof slipQuerySchema>

/** One line of what happened: an entry of the book with its people and texts in words. */
export const eventLineSchema = z.object({
  seq: z.int(),
  at: moment,
  by: z.string().nullable(),
  act: z.string(),
  slip: z.string().nullable(),
  facts: factsSchema,
  /** By what they are; null: withdrawn. */
  texts: z.record(z.string(), z.string().nullable()),
  hash: z.string(),
})
export type EventLine = z.infer<typeof eventLineSchema>

const byNumber = z.object({ number: slipNumberSchema })

/** What is due after a job: a copy of a customer's data that is still kept, or a day that somebody put down. */
export const careSchema = z.object({
  number: z.string(),
  device: z.string(),
  customer: z.string().nullable(),
  care: z.enum([...CARES, ...DUES]).exclude(['none']),
  due: moment,
})
export type CareShown = z.infer<typeof careSchema>

export const slipRoutes = {
  care: route({
    method: 'get',
    path: '/api/care',
    needs: leastOf('slip.read'),
    summary: 'What is due after jobs: copies of data still kept, days put down, the first first',
    answer: z.array(careSchema),
  }),
  careFile: route({
    method: 'get',
    path: '/api/care.ics',
    needs: leastOf('slip.read'),
    summary: 'The same as iCalendar, without customers’ names',
    answers: 'calendar',
  }),
  slips: route({
    method: 'get',
    path: '/api/slips',
    needs: leastOf('slip.read'),
    summary: 'The list, searched, filtered and sorted',
    query: slipQuerySchema,
    answer: z.object({
      /** Of one page; `found`: how many the search and its filters leave in all. */
      rows: z.array(slipRowSchema),
      found: z.int(),
      page: z.int(),
      pages: z.int(),
      total: z.int(),
      states: z.record(z.string(), z.int()),
    }),
  }),
  slipsCsv: route({
    method: 'get',
    path: '/api/slips.csv',
    needs: leastOf('slip.read'),
    summary: 'The same list as CSV',
    query: slipQuerySchema,
    answers: 'csv',
  }),
  slipOpen: route({
    method: 'post',
    path: '/api/slips',
    needs: leastOf('slip.open'),
    summary: 'Open a slip',
    body: z.object({
      device: slipFields.device,
      intent: slipFields.intent,
      model: slipFields.model.default(''),
      customer: slipFields.customer.default(''),
      promise: slipFields.promise.default(''),
      words: slipFields.words.default(''),
      due: slipFields.due.default(''),
    }),
    answer: slipSchema,
  }),
  slip: route({
    method: 'get',
    path: '/api/slips/{number}',
    needs: leastOf('slip.read'),
    summary: "A slip's head",
    params: byNumber,
    answer: slipSchema,
  }),
  slipChange: route({
    method: 'patch',
    path: '/api/slips/{number}',
    needs: leastOf('slip.change'),
    summary: "Change a slip's head; nobody's change is run over",
    params: byNumber,
    body: slipChangeSchema,
    answer: slipSchema,
  }),
  slipState: route({
    method: 'post',
    path: '/api/slips/{number}/state',
    needs: leastOf('slip.state'),
    summary: 'Let a slip wait, stop it, decline it, close it, open it again',
    params: byNumber,
    body: z.object({ state: stateSchema, reason: paragraph.default('') }),
    answer: slipSchema,
  }),
  slipHistory: route({
    method: 'get',
    path: '/api/slips/{number}/history',
    needs: leastOf('slip.read'),
    summary: 'Who did what on this slip, newest first',
    params: byNumber,
    answer: z.array(eventLineSchema),
  }),
  slipNote: route({
    method: 'post',
    path: '/api/slips/{number}/notes',
    needs: leastOf('slip.note'),
    summary: 'Write a note on a slip',
    params: byNumber,
    body: z.object({ text: paragraph.min(1) }),
    answer: eventLineSchema,
  }),
  slipWithdraw: route({
    method: 'post',
    path: '/api/slips/{number}/withdraw',
    needs: leastOf('text.withdraw'),
    summary: "Withdraw a slip's personal text, with a second person beside you",
    params: byNumber,
    body: z.object({
      second: z.exactOptional(secondSchema),
    }),
    answer: z.object({ withdrawn: z.int(), slip: slipSchema }),
  }),
}
