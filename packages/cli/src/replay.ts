/**
 * Replaying runs that the book says came from a seed: the same plan, device and faults on the twin must
 * give the journal whose digest stands in the entry. Reads ended entries of a verified book; asks the
 * server what each run was made from.
 */
import { createHash } from 'node:crypto'
import type { DeviceFacts, Family, Fault, Manifest, Plan } from '@plain-slate/core'
import {
  deviceFactsSchema,
  digestOfJson,
  familySchema,
  manifestSchema,
  modelled,
  runWithFaults,
} from '@plain-slate/core'
import { z } from 'zod'
import type { Server } from './asks.ts'

/** An entry of a run that was made from a seed. */
export const endedSchema = z.object({
  seq: z.int(),
  act: z.literal('run.ended'),
  facts: z.looseObject({
    run: z.uuid(),
    seed: z.int(),
    plan: z.string(),
    journal: z.string(),
  }),
})
export type EndedEntry = z.infer<typeof endedSchema>

const recipeSchema = z.looseObject({
  pick: z.number(),
  faults: z.array(z.object({ piece: z.int(), kind: z.enum(['cable', 'computer']) })),
  facts: deviceFactsSchema,
  catalogue: z.array(manifestSchema),
})

export type Replayed =
  { readonly kind: 'equal' } | { readonly kind: 'differs'; readonly what: 'plan' | 'journal' }

const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex')
const digestOf = (value: unknown): string => digestOfJson(value, sha256)

type Made = {
  readonly family: Family
  readonly plan: Plan
  readonly facts: DeviceFacts
  readonly catalogue: readonly Manifest[]
  readonly pick: number
  readonly faults: readonly Fault[]
}

/** Runs one again and holds it against its entry. */
export function replay({ facts }: EndedEntry, made: Made): Replayed {
  if (digestOf(made.plan) !== facts.plan) return { kind: 'differs', what: 'plan' }
  const read = { facts: made.facts, table: undefined, digests: new Map<string, string>() }
  const { nature, device } = modelled(made.family, read, made.catalogue, made.pick)
  const { journal } = runWithFaults(nature, device, made.plan, made.faults)
  return digestOf(journal) === facts.journal
    ? { kind: 'equal' }
    : { kind: 'differs', what: 'journal' }
}

/** Asks the server what a run was made from, and replays it. */
export async function replayFrom(server: Server, entry: EndedEntry): Promise<Replayed> {
  const { family, plan, made } = await server.call('jobReplay', {
    params: { id: entry.facts.run },
  })
  const recipe = recipeSchema.parse(made)
  return replay(entry, {
    ...recipe,
    family: familySchema.parse(family),
    plan: plan as unknown as Plan,
  })
}
