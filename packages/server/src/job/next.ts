/** What to read next of a slip's device, and the runner-up: core's answer with the family's words. */
import type { Job } from '@plain-slate/api'
import type { Case, DeviceFacts, Fact, NextReading, Unheld, Whereabouts } from '@plain-slate/core'
import {
  FACTS,
  candidates,
  familyOf,
  isKind,
  isToldIn,
  nextReadings,
  said,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { modeShown } from '../devices/seen.ts'
import { familyShelf } from '../shelf/shelf.ts'
import { closedDevices } from '../tables/closed.ts'
import { seenAt } from './at-port.ts'
import type { JobAt } from './job-at.ts'
import { onceOf } from './kept.ts'

export async function nextOf(workshop: Workshop, job: JobAt): Promise<Job['next']> {
  const { family, readings } = job
  if (family === undefined || job.run !== undefined) return []
  const at = job.found?.at ?? (await unsettledCase(workshop, job))
  if (at === undefined) return []
  const closed = await closedDevices(workshop.db)
  const own = reckoned(job)
  if (own.closed !== closed) {
    own.closed = closed
    const where = whereOf(workshop, job)
    own.found = nextReadings({ at, readings, judged: candidates(at), closed, where })
  }
  const { found = [] } = own
  const [first, ...others] = found.map((one) => shown(job, one))
  if (first === undefined) return []
  /* What the same look tells is no other thing to do. */
  const second = others.find(({ fact }) => !first.along.includes(fact))
  return second === undefined ? [first] : [first, second]
}

/** What was reckoned for a job: it stays while no other slip is closed, whose devices teach what is told next. */
const reckoned = onceOf((): { closed?: object; found?: readonly NextReading[] } => ({}))

/** The case of a device whose model nobody settled: it is held against all that its family has. */
async function unsettledCase(workshop: Workshop, job: JobAt): Promise<Unheld | undefined> {
  const { family, identity, house, byEye, slip, keepData, lines } = job
  if (family === undefined) return undefined
  const shelf = await familyShelf(workshop.db, family.id)
  return {
    family,
    identity,
    house,
    intent: slip.intent,
    keepData,
    byEye,
    lines,
    shelf,
    placeless: [],
    table: undefined,
    evidence: new Map<string, never>() as Case['evidence'],
    history: { serials: [], permitsUsed: [] },
    today: undefined,
  }
}

/** Where it is, by what answers at a port; how far it started when it was last seen. */
export function whereOf(workshop: Pick<Workshop, 'families'>, job: JobAt): Whereabouts {
  const { device, look } = job
  const here = seenAt(workshop, job)?.facts
  const seen = here ?? device?.facts
  return {
    mode: here?.mode,
    permission: look?.outcome?.kind !== 'found' || look.epoch === null || look.outcome.table,
    starts: seen === undefined ? toldStart(job) : startsBy(workshop, job, seen),
  }
}

/**
 * How far it starts by what is seen of it. A loader that was asked knows of no start that failed since: who was told at the
 * counter that it does not start goes by that, as long as its system is not seen.
 */
function startsBy(
  { families }: Pick<Workshop, 'families'>,
  job: JobAt,
  seen: DeviceFacts,
): Whereabouts['starts'] {
  const by = STARTS[seen.outcome]
  const family = job.family ?? familyOf(families, seen)
  const inSystem = family !== undefined && isKind(family, seen.mode, 'system')
  return by === 'system' && !inSystem ? (toldStart(job) ?? by) : by
}

/** How far it starts by what was said at the counter: no sign of life is no proof that it is dead. */
function toldStart({ lines }: JobAt): Whereabouts['starts'] {
  const told = said(lines, 'history.starts')
  return told === undefined ? undefined : told === 'runs' ? 'system' : 'not'
}
const STARTS = {
  normal: 'system',
  'set-up': 'system',
  'asks-reset': 'not',
  stays: 'not',
  loop: 'not',
  dead: 'dead',
} as const

function shown({ family, identity }: JobAt, one: NextReading): Job['next'][number] {
  const { fact, place, gain, most, least, left, tells } = one
  const told = (other: Fact): boolean =>
    family !== undefined &&
    place.mode !== undefined &&
    identity[other].kind !== 'settled' &&
    isToldIn(family, other, place.mode)
  return {
    fact,
    source: place.source,
    where: place.where,
    mode: place.mode === undefined ? null : modeShown(family, place.mode),
    seconds: place.seconds,
    legs: place.ways.length,
    byCommand: place.ways.every(({ hands }) => !hands),
    gain,
    most,
    least,
    left,
    tells,
    /* What one look over the link tells with it. */
    along: place.source === 'link' ? FACTS.filter((other) => other !== fact && told(other)) : [],
  }
}
