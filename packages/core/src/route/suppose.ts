/**
 * What would be, if something were otherwise: a fact, the wish, whether data must survive, what people said, a school of
 * the house. Reads a state and what is supposed; gives the state as it would be then. Nothing of the slip is touched.
 */
import type { FactValue, Standing } from '../device/identity.ts'
import { houseFor } from '../match/told.ts'
import type { Case, Unheld } from '../match/rule.ts'
import type { Fact } from '../terms/device.ts'
import type { Line } from '../terms/line.ts'
import type { SchoolQuestion } from '../terms/schools.ts'
import type { Intent } from '../terms/slip.ts'
import type { DeviceState } from '../plan/state.ts'

export type Supposed = {
  /** `null`: as if nobody had read it. */
  readonly facts?: Readonly<Partial<Record<Fact, FactValue | null>>>
  readonly intent?: Intent
  readonly keepData?: boolean
  /** What people would say, by topic. */
  readonly lines?: Readonly<Record<string, string>>
  readonly house?: Readonly<Partial<Record<SchoolQuestion, string>>>
}

/** The state as it would be; the same one where nothing is supposed. */
export function suppose(state: DeviceState, supposed: Supposed): DeviceState {
  const { at } = state
  const lines = linesIn(at.lines, supposed.lines ?? {})
  const facts = Object.entries(supposed.facts ?? {}) as (readonly [Fact, FactValue | null])[]
  const departed = Object.entries(supposed.house ?? {}).map(
    ([question, answer]) => [`depart.${question}`, lineOf(`depart.${question}`, answer)] as const,
  )
  return {
    ...state,
    at: {
      ...at,
      intent: supposed.intent ?? at.intent,
      keepData: supposed.keepData ?? at.keepData,
      lines,
      house: houseFor(at.house, new Map(departed)),
      identity: {
        ...at.identity,
        ...Object.fromEntries(facts.map(([fact, value]) => [fact, standingOf(value)])),
      },
    },
  }
}

const standingOf = (value: FactValue | null): Standing =>
  value === null ? { kind: 'missing' } : { kind: 'settled', value, claims: [], doubted: false }

const lineOf = (topic: string, answer: string): Line => ({ topic, answer, at: 0 })

/** Where nobody was asked, what is supposed is the first that is said. */
function linesIn(
  lines: Unheld['lines'],
  supposed: Readonly<Record<string, string>>,
): Case['lines'] {
  const said = Object.entries(supposed).map(
    ([topic, answer]) => [topic, lineOf(topic, answer)] as const,
  )
  return said.length === 0 ? lines : new Map([...(lines ?? []), ...said])
}
