/**
 * An expected refusal on its way out: a code, the facts for its sentence, what goes with it. Turned
 * into the one error shape here, with the sentences of the catalogue.
 */
import type { ApiError, ErrorCode } from '@plain-slate/api'
import type { Code, Language } from '@plain-slate/texts'
import { sayWithGaps } from '@plain-slate/texts'

export type Refusal = {
  readonly code: ErrorCode
  readonly facts?: Readonly<Record<string, string | number>>
  readonly more?: Pick<ApiError, never> &
    Partial<Pick<ApiError, 'where' | 'theirs' | 'waitSeconds' | 'role'>>
}

const STATUS: Readonly<Record<ErrorCode, number>> = {
  'input.invalid': 422,
  'input.too-large': 413,
  'input.not-json': 415,
  'edge.host': 421,
  'edge.origin': 403,
  'session.none': 401,
  'session.shell': 401,
  'session.pin': 401,
  'session.slow': 429,
  'act.refused': 403,
  'act.needs-second': 403,
  'act.second-pin': 403,
  'act.second-is-same': 403,
  'slip.unknown': 404,
  'slip.conflict': 409,
  'slip.ended': 409,
  'slip.state': 409,
  'slip.line': 422,
  'slip.reason': 422,
  'rule.final': 422,
  'carry.unread': 409,
  'carry.base': 422,
  'carry.none': 422,
  'carry.twice': 422,
  'carry.other': 422,
  'carry.unlike': 422,
  'house.moved': 409,
  'slip.reading': 422,
  'slip.no-reading': 409,
  'slip.other-device': 409,
  'slip.claimed': 409,
  'slip.no-plan': 409,
  'slip.stale': 409,
  'slip.leaves': 409,
  'slip.not-ready': 409,
  'slip.running': 409,
  'slip.run-lives': 409,
  'slip.stages-open': 409,
  'run.against': 409,
  'run.charge': 409,
  'person.unknown': 404,
  'token.unknown': 404,
  'person.name-taken': 409,
  'person.last-lead': 409,
  'shop.founded': 409,
  'archive.length': 413,
  'archive.room': 507,
  'catalogue.length': 413,
  'permit.unreadable': 400,
  'permit.unsigned': 403,
  'catalogue.unreadable': 400,
  'catalogue.unsigned': 403,
  'catalogue.expired': 409,
  'catalogue.older': 409,
  'archive.broken-off': 400,
  'archive.other': 409,
  'archive.unknown': 404,
  'archive.state': 409,
  'archive.in-use': 409,
  'package.unknown': 404,
  'package.several': 409,
  'package.foreign': 409,
  'port.unknown': 404,
  'port.empty': 409,
  'copies.folder': 422,
  'disk.full': 507,
  'catalogue.late': 422,
  'catalogue.other-key': 403,
  'family.late': 422,
  'port.there': 409,
  'port.address': 422,
  'port.held': 409,
  'port.filed': 409,
  'port.which-bench': 422,
  'cable.there': 409,
  'cable.struck': 409,
  'cable.held': 409,
  'look.driver': 409,
  'look.under-way': 409,
  'look.given-up': 504,
  'port.busy': 409,
  'port.no-agent': 503,
  'device.family': 409,
  'mode.unknown': 404,
  'slip.file': 422,
  'slip.nothing-done': 409,
  'family.unknown': 404,
  'family.older': 409,
  'family.clash': 409,
  'hands.none': 404,
  'plan.none': 409,
  'plan.changed': 409,
  'plan.fails': 409,
  'run.no-slip': 409,
  'run.unknown': 404,
  'run.not-asked': 409,
  'run.over': 409,
  'run.single-copy': 409,
  'run.driven': 409,
  'run.not-there': 409,
  'route.unknown': 404,
  'events.full': 429,
  'database.away': 503,
  'server.fault': 500,
}

export const statusOf = (code: ErrorCode): number => STATUS[code]

/** The error as it leaves, in the house's language. */
export function errorOf(refusal: Refusal, requestId: string, language: Language): ApiError {
  const facts = refusal.facts ?? {}
  /* One whose facts lack what its sentence names is still a refusal, and no fault. */
  const words = (code: Code) => sayWithGaps(language, code, facts)
  return {
    code: refusal.code,
    sentence: words(`error.${refusal.code}`),
    kept: words(`error.${refusal.code}.kept`),
    remedy: words(`error.${refusal.code}.remedy`),
    requestId,
    ...refusal.more,
  }
}
