/** The shop itself, its bench, the find box, events and the server's own health. */
import { NEEDS } from '@plain-slate/core'
import { z } from 'zod'
import { factsSchema } from './json.ts'
import { oneLine } from './line.ts'
import { route } from './route.ts'

/** `now` is the shop's clock when the answer was made; in the demo it runs beside the real one. */
export const shopSchema = z.object({
  name: z.string(),
  place: z.string(),
  zone: z.string(),
  now: z.iso.datetime({ precision: 3 }),
  demo: z.boolean(),
  /** True until the first lead is made. */
  empty: z.boolean(),
})
export type Shop = z.infer<typeof shopSchema>

/** One hit of the find box. A new kind is one more arm here and its search on the server. */
export const hitSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('slip'), number: z.string(), title: z.string(), detail: z.string() }),
  z.object({ kind: z.literal('person'), id: z.string(), title: z.string(), detail: z.string() }),
  z.object({ kind: z.literal('package'), id: z.string(), title: z.string(), detail: z.string() }),
  z.object({ kind: z.literal('device'), port: z.string(), title: z.string(), detail: z.string() }),
])
export type Hit = z.infer<typeof hitSchema>

/** What changed, never how: the client fetches again. */
export const TOPICS = [
  'slip',
  'book',
  'people',
  'bench',
  'run',
  'shelf',
  'work',
  'shop',
  'session',
] as const
export const newsSchema = z.object({
  topic: z.enum(TOPICS),
  id: z.string(),
  version: z.int(),
})
export type News = z.infer<typeof newsSchema>
export type Topic = News['topic']

export const rightsSchema = z.array(
  z.object({ method: z.string(), path: z.string(), needs: z.enum(NEEDS), summary: z.string() }),
)

export const shopRoutes = {
  shop: route({
    method: 'get',
    path: '/api/shop',
    needs: 'nobody',
    summary: 'Whose shop this is, and its clock',
    answer: shopSchema,
  }),
  find: route({
    method: 'get',
    path: '/api/find',
    needs: 'trainee',
    summary: 'Find slips and people',
    query: z.object({ q: oneLine(80) }),
    answer: z.array(hitSchema),
  }),
  rights: route({
    method: 'get',
    path: '/api/rights',
    needs: 'trainee',
    summary: 'Every route and the role it needs',
    answer: rightsSchema,
  }),
  events: route({
    method: 'get',
    path: '/api/events',
    needs: 'trainee',
    summary: 'News of what changed, as server-sent events',
    answers: 'events',
  }),
  health: route({
    method: 'get',
    path: '/api/health',
    needs: 'nobody',
    summary: 'The process is alive',
    answer: z.object({ alive: z.literal(true), version: z.string() }),
  }),
  ready: route({
    method: 'get',
    path: '/api/ready',
    needs: 'nobody',
    summary: 'The database answers and its tables are up to date',
    answer: z.object({ ready: z.boolean(), database: z.boolean(), tables: z.boolean() }),
  }),
  openapi: route({
    method: 'get',
    path: '/api/openapi.json',
    needs: 'nobody',
    summary: 'This contract as OpenAPI',
    answer: factsSchema,
  }),
  docs: route({
    method: 'get',
    path: '/api/docs',
    needs: 'nobody',
    summary: 'This contract, to read',
    answers: 'html',
  }),
}
