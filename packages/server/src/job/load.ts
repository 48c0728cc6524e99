/**
 * A slip's job as everything about it reads it: what was said and read, the device where it is now, the
 * shelf, the picked route, the plan that was taken, its run. Joins tables into core's shapes; decides
 * nothing.
 */
import type { Slip } from '@plain-slate/api'
import type {
  Changed,
  DeviceFacts,
  FactValue,
  Family,
  HouseRules,
  Identity,
  Intent,
  LastRun,
  Lines,
  Mode,
  Reading,
  Result,
} from '@plain-slate/core'
import {
  AGAIN_TOPIC,
  INTENTS,
  againSince,
  houseFor,
  linesSince,
  stillUndone,
  modeOfKind,
  saysAsSeen,
  identify,
  modelOf,
  ms,
  msOf,
  ok,
  overruledIn,
  permitIn,
  readingsOldBefore,
  refuse,
  said,
  settledFacts,
  standingLines,
  standingReadings,
  thingsThere,
  toldOf,
  wishOf,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { dayOf } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import type { AtPort, Wanted } from '../devices/case.ts'
import { concerns, deviceRead, judgeable, knowing } from '../devices/case.ts'
import type { JobAt, TakenPlan } from './job-at.ts'
import { keepJob, keptJob } from './kept.ts'
import { permitFiles } from './permit-files.ts'
import { namesIn, pickedIn } from './picked.ts'
import type { Database } from '../tables/database.ts'
import type { Sight } from '../tables/devices.ts'
import { readSince } from '../tables/devices.ts'
import type { JobMarks } from '../tables/job-mark.ts'
import { jobMarks } from '../tables/job-mark.ts'
import type { Parts } from './parts.ts'
import { partsUnder, readAll } from './parts.ts'
import type { SlipRead } from './slip-read.ts'
import { slipRead } from './slip-read.ts'
import type { PlanRow } from '../tables/job.ts'
import type { MadePlan } from '../plans/made.ts'
import { showPlan } from '../plans/made.ts'
import type { RunRow } from '../tables/runs.ts'

/** A slip's job; the one that is kept where nothing changed that it rests on. */
export async function loadJob(workshop: Workshop, number: string): Promise<Result<JobAt, Refusal>> {
  const hour = hourIn(await workshop.clock.now())
  const markOf = (marks: JobMarks) =>
    `${Object.values(marks).join('|')} ${hour} ${workshop.familiesMark()}`
  const mark = markOf(await jobMarks(workshop.db, number))
  const kept = keptJob(workshop, number, mark)
  if (kept !== undefined) return ok(kept)
  /* Of one moment: a look that ends meanwhile is in all of it, or in nothing. */
  const read = await workshop.db.transaction(
    async (trx) => {
      const marks = await jobMarks(trx, number)
      const job = await loadJobIn(workshop, number, trx, partsUnder(workshop, marks))
      return { job, mark: markOf(marks) }
    },
    { isolationLevel: 'repeatable read', readOnly: true },
  )
  if (read.job.ok) keepJob(workshop, number, { mark: read.mark, job: read.job.value })
  return read.job
}

const HOUR_MS = 3_600_000
const hourIn = (now: number): number => now - (now % HOUR_MS)

/**
 * Reads a job, one query after the other: the database may be a transaction, which takes one at a time. `parts`: what is
 * known of it by its marks; nothing where the transaction writes.
 */
export async function loadJobIn(
  workshop: Workshop,
  number: string,
  db: Database,
  parts: Parts = readAll,
): Promise<Result<JobAt, Refusal>> {
  const read = slipRead(db, number, parts)
  const opened = await read.slip()
  if (opened === undefined) return refuse({ code: 'slip.unknown', facts: { number } })
  const all = await read.lines()
  const kept = standingReadings(await read.readings())
  const sights = await read.sights()
  const besideIt = await readBesides(read)
  const work = await readWork(workshop, read, all)
  const { taken, lines } = work
  const slip = { ...opened, intent: intentOf(opened, work) }
  const family = familyFor(workshop.families, slip, kept)
  const trusting = family ?? { facts: {} }
  const serial = toldOf(identify(trusting, kept), 'serial')
  const today = await dayOf(workshop)
  const changed = await changedOf(read, serial, today)
  const sight = sightOf(sights, serial === undefined ? undefined : String(serial))
  const now = await workshop.clock.now()
  const ofLines = besides(lines, sight?.facts, now)
  const readings = [...kept, ...ofLines]
  const identity = identify(trusting, readings, changed)
  const row = serial === undefined ? undefined : await read.device(String(serial))
  const device = row === undefined ? undefined : readSince(row, slip.openedAt)
  const things = family?.items.map(({ id }) => id) ?? []
  const wanted: Wanted = {
    intent: slip.intent,
    byEye: lookedAt(identity, readings, lines),
    history: { serials: serialsIn(kept), permitsUsed: await read.permits() },
    today,
    ...toldIn(things, lines, await permitFiles(workshop, db, lines)),
  }
  const house = houseFor((await read.house()).rules, lines)
  const known = { slip, identity, sight, device, taken, wanted, house }
  const answer = said(lines, 'route.package')
  const found = family === undefined ? undefined : await foundFor(read, family, known, answer)
  const shelf = found?.shelf ?? (await read.named(namesIn(answer)))
  return ok({
    ...known,
    now: hourIn(now),
    shelf,
    keepData: wanted.keepData,
    permit: wanted.permit,
    things,
    byEye: wanted.byEye,
    ...besideIt,
    ...work,
    lines: undoneIn(lines, device),
    ...{ all, readings, ofLines, changed, family },
    serial: serial === undefined ? undefined : String(serial),
    sights,
    found,
    picked: pickedIn(found, shelf, answer),
  })
}

/** When it was last looked at over the link, ms of the shop's clock; undefined: never. */
export const lookedAtOf = (device: JobAt['device']): number | undefined =>
  device === undefined ? undefined : msOf(device.at)

const undoneIn = (lines: Lines, device: JobAt['device']): Lines =>
  new Map(stillUndone([...lines.values()], lookedAtOf(device)).map((line) => [line.topic, line]))

/** When it was changed, and from when on readings are too old. */
const changedOf = async (
  read: SlipRead,
  serial: FactValue | undefined,
  today: string,
): Promise<Changed> => ({
  ...(serial === undefined ? {} : await read.changes(String(serial))),
  oldBefore: ms(readingsOldBefore(today)),
})

/** The work at hand: what counts of lines, plan, tallies and runs since the newest piece of it began. */
async function readWork(
  { families }: Workshop,
  read: SlipRead,
  all: JobAt['all'],
): Promise<Pick<JobAt, 'since' | 'lines' | 'taken' | 'tally' | 'run'>> {
  const planned = takenOf(families, await read.plan())
  const last = await read.run()
  const since = againSince(
    all.map(({ topic, at }) => ({ topic, at: msOf(at) })),
    last && lastRun(last),
  )
  const isBefore = (at: string) => since !== undefined && msOf(at) < since
  return {
    since,
    lines: linesIn(all, since),
    taken: planned === undefined || isBefore(planned.at) ? undefined : planned,
    tally: await read.tallies(since),
    run: last === undefined || isBefore(last.startedAt) || isPutAway(last) ? undefined : last,
  }
}

/** What the work at hand is for: as the slip was opened, or as it was begun anew. */
function intentOf({ intent }: Slip, { since, lines }: Pick<JobAt, 'since' | 'lines'>): Intent {
  const said = since === undefined ? undefined : lines.get(AGAIN_TOPIC)?.answer
  return INTENTS.find((one) => one === said) ?? intent
}

/** A run that came to its end is told on its slip even when it holds no port any more. */
const isPutAway = ({ state, putAway }: RunRow): boolean => state === 'stopped' && putAway

const lastRun = ({ state, startedAt, endedAt }: RunRow): LastRun => ({
  startedAt: msOf(startedAt),
  endedAt: state === 'ended' && endedAt !== null ? msOf(endedAt) : undefined,
})

/** What else stands beside a slip's own: the bench, other slips, the look that was asked last. */
async function readBesides(read: SlipRead): Promise<Pick<JobAt, 'bench' | 'others' | 'look'>> {
  const bench = await read.bench()
  return { bench, others: await read.others(), look: await read.look() }
}

/** A taken plan, shown afresh; one whose family nobody knows any more is none. */
function takenOf(families: readonly Family[], row: PlanRow | undefined): TakenPlan | undefined {
  if (row === undefined) return undefined
  const made = row.made as unknown as MadePlan
  const family = families.find(({ id }) => id === made.plan.family)
  return family === undefined
    ? undefined
    : { ...row, made, shown: showPlan(made, family, row.digest) }
}

/** The family whose model was read, or, before any was, whose model the slip's head names. */
function familyFor(
  families: readonly Family[],
  slip: Slip,
  readings: readonly Reading[],
): Family | undefined {
  const models = readings.filter(({ fact }) => fact === 'model').map(({ value }) => String(value))
  const codes = models.length > 0 ? [...models].reverse() : [slip.model ?? '']
  return codes
    .map((code) => families.find((family) => modelOf(family, code) !== undefined))
    .find((family) => family !== undefined)
}

/** Where this very device answers now, told by its serial number. */
function sightOf(sights: readonly Sight[], serial: string | undefined): JobAt['sight'] {
  for (const { port, facts } of sights)
    if (facts !== null && facts.serial === serial) return { port, facts }
  return undefined
}

/** The line of each topic that stands. */
const linesIn = (all: JobAt['all'], since: number | undefined): Lines =>
  standingLines(
    linesSince(
      all.map(({ topic, answer, at, by }) => ({ topic, answer, at: msOf(at), by })),
      since,
    ),
  )

/** What people said, as rules take it. */
const toldIn = (
  things: readonly string[],
  lines: Lines,
  files: Parameters<typeof permitIn>[1],
): Pick<Wanted, 'keepData' | 'placeless' | 'lines' | 'permit' | 'overruled'> => ({
  keepData: wishOf(things, lines) === 'must',
  placeless: thingsThere(things, lines).filter((thing) => !things.includes(thing)),
  lines,
  permit: permitIn(lines, files),
  overruled: overruledIn(lines),
})

/** Serial numbers by which it answered over the link, the newest last. */
const serialsIn = (readings: readonly Reading[]): readonly string[] => [
  ...new Set(
    readings
      .filter(({ fact, source }) => fact === 'serial' && source === 'link')
      .map(({ value }) => String(value)),
  ),
]

/** What follows from lines and from the port: the cell's look, the account, the charge as it is now. */
function besides(lines: Lines, seen: DeviceFacts | undefined, now: number): readonly Reading[] {
  const by = { mode: undefined, person: undefined }
  const line = (
    topic: string,
    fact: 'batteryHealth' | 'accountLock',
    valueOf = (answer: string) => answer,
  ): readonly Reading[] => {
    const one = lines.get(topic)
    return one === undefined
      ? []
      : [{ ...by, fact, value: valueOf(one.answer), source: 'person', at: ms(one.at) }]
  }
  const charge: readonly Reading[] =
    seen?.batteryPercent === undefined
      ? []
      : [
          {
            ...by,
            fact: 'batteryPercent',
            value: seen.batteryPercent,
            source: 'link',
            at: ms(now),
            mode: seen.mode,
          },
        ]
  return [
    ...line('condition.cell', 'batteryHealth'),
    /* Who can sign in to it is no reading: one is on it either way. */
    ...line('owner.account', 'accountLock', (answer) =>
      answer === 'absent' ? 'absent' : 'present',
    ),
    ...charge,
  ]
}

/** Whether the board was looked at since whatever disagrees with its fuses was read. */
function lookedAt(identity: Identity, readings: readonly Reading[], lines: Lines): boolean {
  const looked = lines.get('eye.board')
  return looked !== undefined && saysAsSeen(identity, readings, ms(looked.at))
}

type Known = Pick<JobAt, 'slip' | 'identity' | 'sight' | 'device' | 'taken'> & {
  readonly wanted: Wanted
  readonly house: HouseRules
}

/**
 * The case to be judged. Identity goes before what the link said last: a fact that people settled against the
 * link is judged as settled. Undefined while not even its model is known. `answer`: the route that was picked.
 */
async function foundFor(
  read: SlipRead,
  family: Family,
  known: Known,
  answer: string | undefined,
): Promise<AtPort | undefined> {
  const { identity, sight, device, wanted, house } = known
  const mode = modeOf(family, known)
  const facts = settledFacts(identity, mode, sight?.facts ?? device?.facts)
  if (facts === undefined) return undefined
  const shelf = await read.shelf(concerns(family, facts, device))
  const own = deviceRead(facts, device, shelf)
  const at = judgeable({ family, facts, read: own, shelf, house, identity, mode }, wanted)
  return knowing(at, await read.named(namesIn(answer)))
}

/** The mode it is in; where it is not seen, the one the plan was taken in, and else that it is off. */
const modeOf = (family: Family, { sight, taken, device }: Known): Mode =>
  sight?.facts.mode ?? taken?.mode ?? device?.facts.mode ?? modeOfKind(family, 'off')
