/** OpenAPI 3.1 written from the contract: the schemas that parse are the schemas that are published. */
import type { Route } from '@plain-slate/api'
import { errorSchema, everyRoute } from '@plain-slate/api'
import { OpenAPIRegistry, OpenApiGeneratorV31 } from '@asteasolutions/zod-to-openapi'
import type { Json } from '@plain-slate/core'
import type { z } from 'zod'

const MEDIA: Readonly<Record<Route['answers'], string>> = {
  json: 'application/json',
  none: 'application/json',
  csv: 'text/csv',
  calendar: 'text/calendar',
  jsonl: 'application/jsonl',
  events: 'text/event-stream',
  pdf: 'application/pdf',
  html: 'text/html',
}

/** The whole contract as an OpenAPI document. */
export function openApi(version: string): Record<string, Json> {
  const registry = new OpenAPIRegistry()
  for (const [name, route] of everyRoute()) register(registry, name, route)
  const document = new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: {
      title: 'Plain Slate',
      version,
      description:
        'Every route states the role it needs. Changes want JSON from the same origin and a session cookie.',
    },
  })
  return JSON.parse(JSON.stringify(document)) as Record<string, Json>
}

function register(registry: OpenAPIRegistry, name: string, route: Route): void {
  const streamed = route.answers !== 'json' && route.answers !== 'none'
  const body = route.method === 'get' ? {} : { body: json(route.body) }
  registry.registerPath({
    method: route.method,
    path: route.path,
    operationId: name,
    summary: route.summary,
    description: `Needs: ${route.needs}${route.secret === true ? ', or the bench secret' : ''}.`,
    request: {
      params: route.params as z.ZodObject,
      query: route.query as z.ZodObject,
      ...body,
    },
    responses: {
      200: streamed
        ? { description: route.summary, content: { [MEDIA[route.answers]]: { schema: {} } } }
        : { description: route.summary, ...json(route.answer) },
      default: { description: 'Refused: the one error shape', ...json(errorSchema) },
    },
  })
}

function json(schema: z.ZodType) {
  return { content: { 'application/json': { schema } } }
}
