/** A job as a page shows it. */
import type { FactShown, Job, LineShown } from '@plain-slate/api'
import type { DeviceFacts, Fact, Reading, Standing } from '@plain-slate/core'
import {
  FACTS,
  linesSince,
  msOf,
  askedFacts,
  partsOn,
  slotSchema,
  candidates,
  careOf,
  doubtedFacts,
  familyOf,
  handBackTopics,
  isoOf,
  modeName,
  readBuild,
  stageAt,
  stillUndone,
  toldOf,
  trustOf,
  waitingFor,
} from '@plain-slate/core'
import { lookShown } from '../devices/looks.ts'
import { modeShown } from '../devices/seen.ts'
import type { Workshop } from '../base/workshop.ts'
import { dayOf } from '../base/workshop.ts'
import { duesShown } from './dues.ts'
import { putStage } from '../tables/slips.ts'
import { tell } from '../tables/news.ts'
import { readRun } from '../tables/runs.ts'
import { freePorts } from './at-port.ts'
import { onceOf } from './kept.ts'
import type { JobAt } from './job-at.ts'
import { leaveShown } from './leave.ts'
import { loadJob, lookedAtOf } from './load.ts'
import { topicsOf } from './topics.ts'
import { rowOf } from '../shelf/shelf.ts'
import { nextOf } from './next.ts'
import { preparedOf } from './prepared.ts'
import { isVouchedFor, isPublished, isWhole, routePackages } from './packages.ts'
import { afterOf } from './after.ts'
import { changesSince, standingOf } from './standing.ts'

/** Shows a job; the stage in the slip's head follows what it stands at. */
export async function showJob(workshop: Workshop, job: JobAt): Promise<Job> {
  const stages = await standingOf(workshop, job)
  const at = stageAt(stages)
  if (at !== job.slip.stage) await putStage(workshop.db, job.slip.number, at)
  const { taken, family, picked, run } = job
  const shownAt = (facts: DeviceFacts) => modeShown(familyOf(workshop.families, facts), facts.mode)
  return {
    number: job.slip.number,
    version: job.slip.version,
    stages: stages.map((one) => ({ ...one, facts: { ...one.facts } })),
    at,
    topics: topicsOf(job),
    lines: newestOf(job),
    intent: job.slip.intent,
    keepData: job.keepData,
    family: family === undefined ? null : familyShown(family),
    facts: factsShown(job),
    next: await nextOf(workshop, job),
    leave: leaveShown(workshop, job),
    build: buildOf(job),
    dues: duesShown(job, await dayOf(workshop)),
    ...broughtShown(job),
    faults: faultsOf(job),
    seen: job.all.filter(({ topic }) => topic === 'seen.text').reverse(),
    device: deviceOf(job),
    ports: freePorts(workshop, job).map(({ port, facts }) => ({
      name: port,
      serial: facts.serial,
      model: facts.model,
      mode: shownAt(facts),
    })),
    route:
      picked === undefined
        ? null
        : {
            name: picked.name,
            package: picked.aim.key,
            title: picked.aim.manifest.title,
            keys: routePackages(job).map(({ key }) => key),
            claims: routePackages(job).reduce((sum, one) => sum + rowOf(one).held, 0),
          },
    plan:
      taken === undefined
        ? null
        : {
            at: taken.at,
            by: taken.by,
            title: taken.shown.title,
            stale: changesSince(job) !== undefined,
          },
    run: run?.id ?? null,
    look: job.look === undefined ? null : lookShown(job.look),
    ...afterShown(job),
    doubted: job.byEye ? [] : [...doubtedFacts(job.identity)],
    unpublished: unpublishedOf(job),
    handBack: [...handBackTopics(job.lines, preparedOf(job))],
    care: careOf(job.lines),
    tally: { ...job.tally },
  }
}

/** What First start is held against; before a run has ended there is nothing worse. */
const afterShown = (job: JobAt): Pick<Job, 'worse' | 'decided'> => {
  const { worse, decided } = afterOf(job)
  return { worse: worse.map((one) => ({ ...one })), decided }
}

/** What stands on it, and the permit that was brought; null: none, or one that nobody trusted signed. */
function broughtShown(job: JobAt): Pick<Job, 'stands' | 'permit'> {
  const stands = standsOf(job)
  if (job.permit === undefined) return { stands, permit: null }
  const { id, device, scope, until, signed: file } = job.permit
  const signed = file === undefined ? null : { ...file, packages: [...file.packages] }
  return { stands, permit: { id, device, scope, until, signed } }
}

/** Keys of the route's packages that nobody outside vouches for. */
const unpublishedOf = (job: JobAt): Job['unpublished'] => ({
  keys: routePackages(job)
    .filter((one) => isWhole(one) && !isPublished(one))
    .map(({ key }) => key),
  overruled: isVouchedFor(job),
})

/** A run that is over moves its slip on. */
export async function followRun(workshop: Workshop, id: string): Promise<void> {
  const number = (await readRun(workshop.db, id))?.slip
  if (typeof number !== 'string') return
  const job = await loadJob(workshop, number)
  if (!job.ok) return
  await showJob(workshop, job.value)
  await tell(workshop.db, 'slip', number, job.value.slip.version)
}

/** The newest line of each topic, of those that count for the work at hand. */
export const newestOf = ({ all, since, device }: JobAt): LineShown[] => {
  const timed = all.map((line) => ({ topic: line.topic, at: msOf(line.at), line }))
  const standing = stillUndone(linesSince(timed, since), lookedAtOf(device))
  return [...new Map(standing.map(({ topic, line }) => [topic, line])).values()]
}

/** As much of a family as a page needs: its words for modes, its permission, what idling drains. */
const familyShown = ({
  id,
  maker,
  modes,
  permission,
  dataKeys,
  drainPerMinute,
  account,
  lock,
  remedies,
}: NonNullable<JobAt['family']>): NonNullable<Job['family']> => ({
  id,
  maker,
  looks: modes.map(({ id: mode, name, kind, looks, confusedWith }) => ({
    mode: { id: mode, name, kind },
    looks,
    confusedWith: confusedWith.map((one) => ({
      name: modeName({ modes }, one.mode),
      tell: one.tell,
    })),
  })),
  permission: permission.what,
  permissionSteps: [...permission.steps],
  dataKeys: [...dataKeys.hangOn],
  shows: modes.find(({ takes }) => takes.table !== undefined)?.name ?? null,
  idleDrain: drainPerMinute.idle,
  carries: lock.opens === 'command',
  asksAccount: account.asksAfterReset,
  remedies: [...remedies],
})

/** Facts with their weighing, the needed ones first. */
const factsShown = onceOf((job): FactShown[] => {
  const { identity, family, found } = job
  const judged = found === undefined ? [] : candidates(found.at)
  const needed = askedFacts(family ?? { facts: {}, modes: [] }, job)
  const order = (fact: Fact) => (needed.includes(fact) ? 0 : 1)
  return [...FACTS]
    .sort((a, b) => order(a) - order(b) || FACTS.indexOf(a) - FACTS.indexOf(b))
    .map((fact): FactShown => {
      const standing = identity[fact]
      return {
        fact,
        kind: standing.kind,
        value: toldOf(identity, fact) ?? null,
        claims: claimsShown(job, fact, standing),
        needed: needed.includes(fact),
        where: (family?.facts[fact] ?? []).map(({ source, where, seconds }) => ({
          source,
          where,
          seconds,
        })),
        greyed: fact === 'lockSwitch' ? greyedOf(job) : null,
        holdsUp: [...waitingFor(fact, judged)],
      }
    })
})

/** Why the switch of its boot lock cannot be turned, as its family has it; null: it can, or nobody read it. */
function greyedOf({ family, identity }: JobAt): FactShown['greyed'] {
  if (family?.lock.opens !== 'command' || toldOf(identity, 'lockSwitch') !== 'greyed') return null
  const carrier = toldOf(identity, 'carrier')
  const never = carrier !== undefined && family.lock.neverOn.includes(String(carrier))
  return never
    ? { carrier: String(carrier), days: null }
    : { carrier: null, days: family.lock.greyedDays }
}

/** Each value that was claimed, with the newest reading of every source that claims it. */
function claimsShown(
  { family, readings, ofLines }: JobAt,
  fact: Fact,
  standing: Standing,
): FactShown['claims'] {
  if (standing.kind === 'missing') return []
  return standing.claims.map(({ value, weight, sources }) => ({
    value,
    weight,
    sources: sources.flatMap((source) => {
      const mine = readings.filter(
        (one) => one.fact === fact && one.source === source && one.value === value,
      )
      const newest = mine.reduce<Reading | undefined>(
        (best, one) => (best === undefined || one.at >= best.at ? one : best),
        undefined,
      )
      if (newest === undefined) return []
      return [
        {
          source,
          trust: trustOf(family ?? { facts: {} }, fact, source),
          at: isoOf(newest.at),
          by: newest.person ?? null,
          mode: newest.mode === undefined ? null : modeName(family, newest.mode),
          typed: source !== 'link' && !ofLines.includes(newest),
        },
      ]
    }),
  }))
}

/** The build cut into its grammar's segments; null where it cannot be read by it. */
function buildOf({ family, identity }: JobAt): Job['build'] {
  const value = toldOf(identity, 'build')
  if (family === undefined || value === undefined) return null
  const read = readBuild(family.build, String(value))
  return read.ok ? read.value.segments.map((one) => ({ ...one })) : null
}

/** What stands on it by its own digests, against every build that is known of it; null: none was read. */
function standsOf({ family, found, device, identity }: JobAt): Job['stands'] {
  if (family === undefined || found === undefined || (device?.digests.length ?? 0) === 0)
    return null
  const manifests = found.at.shelf.map(({ manifest }) => manifest)
  const runs = slotSchema.safeParse(toldOf(identity, 'slot')).data
  const { parts, set } = partsOn(family, found.at.evidence, manifests, runs)
  return {
    parts: parts.map((one) => ({ ...one, builds: [...one.builds] })),
    set: set ?? null,
    told: set !== undefined,
  }
}

/** Known faults of its very board, whatever stands on it. */
function faultsOf({ family, identity }: JobAt): Job['faults'] {
  const [model, board] = [toldOf(identity, 'model'), toldOf(identity, 'board')]
  if (family === undefined || model === undefined || board === undefined) return []
  return family.knownFaults
    .filter(
      ({ models, boards }) =>
        boards.includes(String(board)) && models?.includes(String(model)) !== false,
    )
    .map(({ says, role, from, source, devices, date }) => ({
      ...{ says, role, from, source, devices, date },
    }))
}

/** A mark in its family's words; its id where nobody knows it. */
const markSays = (family: JobAt['family'], id: string): string =>
  family?.marks.find((mark) => mark.id === id)?.says ?? id

/** The device as it answers now, or as it was read last where it does not. */
function deviceOf({ serial, sight, device, family }: JobAt): Job['device'] {
  if (serial === undefined) return null
  const facts = sight?.facts ?? device?.facts
  return {
    serial,
    port: sight?.port ?? null,
    mode: sight === undefined ? null : modeShown(family, sight.facts.mode),
    battery: sight?.facts.batteryPercent ?? null,
    digests: device?.digests.length ?? 0,
    table: device !== undefined && device.disk !== null,
    outcome: facts?.outcome ?? null,
    returns: facts?.returns ?? 0,
    shows: facts?.shows ?? null,
    marks: (facts?.marks ?? []).map((id) => markSays(family, id)),
    scale: facts?.scale ?? 1,
  }
}
