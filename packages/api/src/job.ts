/** What is asked of a slip's job, and what people do with it. */
import {
  FACTS,
  SLIP_FILE_BYTES,
  SOURCES,
  leastOf,
  modeSchema,
  slipFileSchema,
} from '@plain-slate/core'
import { z } from 'zod'
import {
  jobSchema,
  paperSchema,
  planPageSchema,
  provenFactSchema,
  readySchema,
} from './job-shapes.ts'
import { sayableSchema } from './sayable.ts'
import { anyJson } from './json.ts'
import { judgedSchema, otherwiseSchema, routesSchema, whySchema } from './route-shapes.ts'
import { oneLine } from './line.ts'
import { route } from './route.ts'
import { askedOf } from './asked.ts'
import { findingSchema, runSchema } from './runs.ts'
import { sha256Schema } from './shelf.ts'
import { secondSchema, slipNumberSchema } from './slips.ts'
import { waySchema } from './ways.ts'

const byNumber = z.object({ number: slipNumberSchema })

const newLine = z.object({
  topic: z.string().min(1).max(60),
  /* The longest is a route: several packages by name. */
  answer: oneLine(1200).min(1),
  note: z.string().trim().max(2000).default(''),
})

export const jobRoutes = {
  judge: route({
    method: 'post',
    path: '/api/judge',
    needs: leastOf('run.prepare'),
    secret: true,
    summary:
      'Hold every package of the shelf against one device: at a port, of a slip, of readings',
    body: askedOf,
    answer: judgedSchema,
  }),
  job: route({
    method: 'get',
    path: '/api/slips/{number}/job',
    needs: leastOf('slip.read'),
    secret: true,
    summary: 'Where a slip stands, and everything that was said and read',
    params: byNumber,
    answer: jobSchema,
  }),
  jobLines: route({
    method: 'post',
    path: '/api/slips/{number}/lines',
    needs: leastOf('slip.line'),
    summary: 'Say something of a slip: lines under your name',
    params: byNumber,
    body: z.object({ lines: z.array(newLine).min(1).max(40) }),
    answer: jobSchema,
  }),
  jobSayable: route({
    method: 'get',
    path: '/api/slips/{number}/topics',
    needs: leastOf('slip.read'),
    secret: true,
    summary: 'Everything that may be said of a slip as a line, and with what',
    params: byNumber,
    answer: z.array(sayableSchema),
  }),
  jobOverrule: route({
    method: 'post',
    path: '/api/slips/{number}/overrule',
    needs: leastOf('rule.overrule'),
    summary: 'Overrule a rule for a package, with a reason, or take that back',
    params: byNumber,
    body: z.object({
      rule: z.string().min(1).max(60),
      package: oneLine(300).min(1),
      reason: z.string().trim().max(2000).default(''),
      stands: z.boolean().default(true),
      second: z.exactOptional(secondSchema),
    }),
    answer: jobSchema,
  }),
  jobCarry: route({
    method: 'post',
    path: '/api/slips/{number}/carry',
    needs: leastOf('slip.change'),
    summary: 'Carry an owner’s image over into a package, held against it block by block',
    params: byNumber,
    body: z.object({ archive: z.uuid(), package: oneLine(300).min(1) }),
    answer: jobSchema,
  }),
  jobReading: route({
    method: 'post',
    path: '/api/slips/{number}/readings',
    needs: leastOf('slip.line'),
    summary: 'Put down a reading by hand, with its source',
    params: byNumber,
    body: z.object({
      fact: z.enum(FACTS),
      value: oneLine(80).min(1),
      source: z.enum(SOURCES).exclude(['link']),
    }),
    answer: jobSchema,
  }),
  jobReadingBack: route({
    method: 'post',
    path: '/api/slips/{number}/readings/back',
    needs: leastOf('slip.line'),
    summary: 'Take back a reading that was put down by hand: it stays on record and counts no more',
    params: byNumber,
    body: z.object({
      fact: z.enum(FACTS),
      value: z.union([oneLine(80).min(1), z.number()]),
      source: z.enum(SOURCES).exclude(['link']),
    }),
    answer: jobSchema,
  }),
  jobRead: route({
    method: 'post',
    path: '/api/slips/{number}/read',
    needs: leastOf('slip.line'),
    summary: 'Read the device at a port over the link; deep: into the loader and back',
    params: byNumber,
    body: z.object({ port: z.string().min(1).max(12), deep: z.boolean().default(false) }),
    answer: jobSchema,
  }),
  jobRoutes: route({
    method: 'get',
    path: '/api/slips/{number}/routes',
    needs: leastOf('slip.read'),
    secret: true,
    summary:
      'Every route worth taking, rehearsed in the background; the left-out with their first reason',
    params: byNumber,
    answer: routesSchema,
  }),
  jobWhy: route({
    method: 'get',
    path: '/api/slips/{number}/why',
    needs: leastOf('slip.read'),
    secret: true,
    summary: 'Every finding on one package of the shelf, and the nearest that would fit',
    params: byNumber,
    query: z.object({ package: oneLine(200).min(1) }),
    answer: whySchema,
  }),
  jobCase: route({
    method: 'get',
    path: '/api/slips/{number}/case',
    needs: leastOf('slip.read'),
    secret: true,
    summary:
      'The device as it stands with what names its model, for a browser that judges by itself',
    params: byNumber,
    answer: z.object({
      /** As the core packs it; null: too little is known of its device. */
      state: anyJson,
    }),
  }),
  jobWay: route({
    method: 'get',
    path: '/api/slips/{number}/way',
    needs: leastOf('slip.read'),
    secret: true,
    summary: 'The way into a mode as hands go it, from where its device is or is said to be',
    params: byNumber,
    query: z.object({ to: modeSchema, from: z.exactOptional(modeSchema) }),
    answer: waySchema,
  }),
  jobPlan: route({
    method: 'get',
    path: '/api/slips/{number}/plan',
    needs: leastOf('slip.read'),
    secret: true,
    summary:
      'The plan of the picked route, rehearsed; the one that was taken, and what changed since',
    params: byNumber,
    answer: planPageSchema,
  }),
  jobOtherwise: route({
    method: 'get',
    path: '/api/slips/{number}/otherwise',
    needs: leastOf('slip.read'),
    secret: true,
    summary: 'Plans of the picked route as they would be if the house had decided otherwise',
    params: byNumber,
    answer: z.object({ others: z.array(otherwiseSchema) }),
  }),
  jobTake: route({
    method: 'post',
    path: '/api/slips/{number}/plan',
    needs: leastOf('slip.plan'),
    summary: 'Take the plan that was shown',
    params: byNumber,
    body: z.object({ digest: sha256Schema }),
    answer: planPageSchema,
  }),
  jobReady: route({
    method: 'get',
    path: '/api/slips/{number}/ready',
    needs: leastOf('slip.read'),
    secret: true,
    summary: 'What is seen by the system and what people signed before a write',
    params: byNumber,
    answer: readySchema,
  }),
  jobStart: route({
    method: 'post',
    path: '/api/slips/{number}/start',
    needs: leastOf('run.start'),
    summary: 'Start the plan that was taken; everything of Ready must hold',
    params: byNumber,
    body: z.object({ digest: sha256Schema }),
    answer: runSchema,
  }),
  jobProof: route({
    method: 'get',
    path: '/api/slips/{number}/proof',
    needs: leastOf('slip.read'),
    summary: 'What was promised, and what the device says after its first start',
    params: byNumber,
    answer: z.object({
      facts: z.array(provenFactSchema),
      /** The plan's marks that stay. */
      marks: z.array(findingSchema),
      /** What journal, tally, answers and the device itself show, as the customer's paper tells it. */
      paper: paperSchema,
    }),
  }),
  jobLabel: route({
    method: 'get',
    path: '/api/slips/{number}/label.pdf',
    needs: leastOf('slip.read'),
    summary: 'The label for the device, with its number as QR and Code 128',
    params: byNumber,
    answers: 'pdf',
  }),
  slipFile: route({
    method: 'get',
    path: '/api/slips/{number}/file',
    needs: leastOf('slip.read'),
    summary:
      'The slip as one file for another shop; without personal texts unless they are asked for',
    params: byNumber,
    query: z.object({ texts: z.enum(['with', 'without']).default('without') }),
    answer: slipFileSchema,
  }),
  slipFileTake: route({
    method: 'post',
    path: '/api/slips/files',
    needs: leastOf('slip.open'),
    summary: 'Open a slip from the file of another shop',
    body: z.object({ text: z.string().min(1).max(SLIP_FILE_BYTES) }),
    answer: z.object({
      number: z.string(),
      /** Answers taken over; those that stay behind, since nobody here heard them; readings. */
      lines: z.int(),
      left: z.int(),
      readings: z.int(),
    }),
  }),
  jobSheet: route({
    method: 'get',
    path: '/api/slips/{number}/sheet.pdf',
    needs: leastOf('slip.read'),
    summary: 'The sheet for the customer, with the head of the book',
    params: byNumber,
    query: z.object({ texts: z.enum(['with', 'without']).default('with') }),
    answers: 'pdf',
  }),
  jobPaper: route({
    method: 'get',
    path: '/api/slips/{number}/slip.pdf',
    needs: leastOf('slip.read'),
    summary: 'The slip as it stands, for paper; handed on without personal texts',
    params: byNumber,
    query: z.object({ texts: z.enum(['with', 'without']).default('with') }),
    answers: 'pdf',
  }),
  jobCard: route({
    method: 'get',
    path: '/api/slips/{number}/card.pdf',
    needs: leastOf('slip.read'),
    summary: 'The bench card: the plan that was taken, step by step, with the slip’s number as QR',
    params: byNumber,
    answers: 'pdf',
  }),
  jobReplay: route({
    method: 'get',
    path: '/api/runs/{id}/made',
    needs: leastOf('book.read'),
    secret: true,
    summary: 'What a run of the twin was made from, to run it again',
    params: z.object({ id: z.uuid() }),
    answer: z.object({ family: anyJson, plan: anyJson, made: anyJson, seconds: z.number() }),
  }),
}
