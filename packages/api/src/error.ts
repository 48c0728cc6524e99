/**
 * The one shape in which anything is refused: a code for programs, a sentence for people, what was
 * kept, what to try, and the id under which the server's log tells the rest.
 */
import { STAGES, INTENTS } from '@plain-slate/core'
import { z } from 'zod'

export const ERROR_CODES = [
  'input.invalid',
  'input.too-large',
  'input.not-json',
  'edge.host',
  'edge.origin',
  'session.none',
  'session.pin',
  'session.slow',
  'act.refused',
  'act.needs-second',
  'act.second-pin',
  'act.second-is-same',
  'slip.unknown',
  'slip.conflict',
  'slip.ended',
  'slip.state',
  'slip.line',
  'slip.reason',
  'rule.final',
  'carry.unread',
  'carry.base',
  'carry.none',
  'carry.twice',
  'carry.other',
  'carry.unlike',
  'house.moved',
  'slip.reading',
  'slip.other-device',
  'slip.no-plan',
  'slip.stale',
  'slip.leaves',
  'slip.not-ready',
  'slip.running',
  'person.unknown',
  'person.name-taken',
  'person.last-lead',
  'shop.founded',
  'archive.length',
  'archive.room',
  'catalogue.length',
  'catalogue.unreadable',
  'catalogue.unsigned',
  'catalogue.expired',
  'catalogue.older',
  'archive.broken-off',
  'archive.other',
  'archive.unknown',
  'archive.state',
  'archive.in-use',
  'package.unknown',
  'package.several',
  'package.foreign',
  'port.unknown',
  'port.empty',
  'copies.folder',
  'disk.full',
  'catalogue.late',
  'catalogue.other-key',
  'family.late',
  'port.there',
  'port.address',
  'port.held',
  'port.filed',
  'port.which-bench',
  'cable.there',
  'cable.struck',
  'cable.held',
  'look.driver',
  'look.under-way',
  'look.given-up',
  'port.busy',
  'port.no-agent',
  'device.family',
  'mode.unknown',
  'slip.file',
  'slip.nothing-done',
  'family.unknown',
  'family.older',
  'family.clash',
  'hands.none',
  'plan.none',
  'plan.changed',
  'plan.fails',
  'run.no-slip',
  'run.unknown',
  'run.not-asked',
  'run.over',
  'run.single-copy',
  'run.driven',
  'run.not-there',
  'route.unknown',
  'events.full',
  'database.away',
  'server.fault',
] as const
export type ErrorCode = (typeof ERROR_CODES)[number]

/** A field somebody else changed meanwhile: what it says now, and who wrote it. */
export const theirsSchema = z.object({
  field: z.string(),
  value: z.string().nullable(),
  by: z.string(),
  at: z.iso.datetime({ precision: 3 }),
})
export type Theirs = z.infer<typeof theirsSchema>

export const errorSchema = z.object({
  code: z.enum(ERROR_CODES),
  sentence: z.string(),
  kept: z.string(),
  remedy: z.string(),
  requestId: z.string(),
  /** Where in the input, for `input.invalid`. */
  where: z.exactOptional(z.array(z.object({ path: z.string(), problem: z.string() }))),
  /** For `slip.conflict`. */
  theirs: z.exactOptional(z.array(theirsSchema)),
  /** For `session.slow`: whole seconds to wait. */
  waitSeconds: z.exactOptional(z.int()),
  /** For `act.needs-second`: the role the second person must have. */
  role: z.exactOptional(z.string()),
})
export type ApiError = z.infer<typeof errorSchema>

export const intentSchema = z.enum(INTENTS)
export const stageSchema = z.enum(STAGES)
