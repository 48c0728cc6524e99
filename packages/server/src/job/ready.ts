/**
 * Ready, and the one gate: what is seen of port, device, packages and cable now, what people signed for
 * this plan, and whether its run may start.
 */
import type { Ready } from '@plain-slate/api'
import type { Actor, Family, HouseRules, Mode, ReadyFacts } from '@plain-slate/core'
import {
  chargeWith,
  checksOf,
  confirmationsOf,
  doubtedFacts,
  handWays,
  intakeOpen,
  lastAgainst,
  msOf,
  routeAlong,
  mayStart,
  modeName,
  modeProfile,
  needsNoDigest,
  packsOf,
  settled,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { ProvenPackage } from '../shelf/shelf.ts'
import { modeShown } from '../devices/seen.ts'
import { stateAt } from '../plans/roads.ts'
import type { JobAt } from './job-at.ts'
import { computerOf } from './computer.ts'
import { roadConsentsOf } from './consents.ts'
import { drawsNow, leavingOf, plannedOf } from './leave.ts'
import { whereOf } from './next.ts'
import { lighterOf } from './lighter.ts'
import { isPublished, isVouchedFor, isWhole, routePackages } from './packages.ts'
import { asksRow } from './wanted.ts'

const MIB = 1024 ** 2

/** Everything the gate asks, looked at now. */
async function gateFacts(workshop: Workshop, job: JobAt, stale: boolean): Promise<ReadyFacts> {
  const { sight, family } = job
  const { agent, cables, runs } = job.bench
  return {
    state: job.slip.state,
    intakeOpen: intakeOpen({ ...job, asksRow: asksRow(job), lighter: lighterOf(job) }),
    against: lastAgainst(job.all.map((line) => ({ ...line, at: msOf(line.at) }))),
    now: job.now,
    plan: planOf(job, stale),
    agent,
    port: sight?.port,
    mode: sight === undefined ? undefined : seenMode(family, sight.facts.mode),
    percent: sight?.facts.batteryPercent,
    otherIds: otherIds(job),
    busy: runs.some(({ port }) => port === sight?.port),
    cable: cables.find(({ port }) => port !== null && port === sight?.port),
    computer: computerOf(job),
    packages: await Promise.all(
      routePackages(job).map((one) => packageOf(workshop, one, job.house)),
    ),
    overruled: isVouchedFor(job),
    doubted: job.byEye ? [] : doubtedFacts(job.identity),
    unasked: unaskedOf(job),
    keepData: job.keepData,
    leaving: leavingOf(workshop, job),
    starts: !['not', 'dead'].includes(whereOf(workshop, job).starts ?? ''),
    house: job.house,
    ...restoreOf(job),
    idleDrain: family?.drainPerMinute.idle ?? 0,
    lines: job.lines,
  }
}

/** How long the customer's things take to be copied back, by what was counted and the family's rate of copying. */
function restoreOf({ family, tally }: JobAt): Pick<ReadyFacts, 'restore'> {
  const { copy, push, write } = family?.pace ?? {}
  const figure = copy ?? push ?? write
  const [low, high] = figure !== undefined && 'mibPerSecond' in figure ? figure.mibPerSecond : []
  if (tally.before === null || low === undefined || high === undefined) return {}
  const mib = tally.before.bytes / MIB
  return { restore: { mib: Math.ceil(mib), low: mib / high, high: mib / low } }
}

/** Whether it charges there is the family's to say; of a family nobody knows, that it does not. */
const seenMode = (family: Family | undefined, mode: Mode): ReadyFacts['mode'] => ({
  name: modeName(family, mode),
  charges: (family === undefined ? undefined : modeProfile(family, mode))?.charges === true,
})

/** The taken plan as the gate asks it. */
function planOf(job: JobAt, stale: boolean): ReadyFacts['plan'] {
  const planned = plannedOf(job)
  const { family } = job
  if (planned === undefined || job.taken === undefined || family === undefined) return undefined
  const { shown, made } = job.taken
  const fromCard = packsOf(made.plan.moves).some(({ way }) => way === 'card')
  const needsAlone = chargeWith(drawsNow({ ...job, taken: job.taken }), {
    ...job.house,
    batteryFloor: null,
  })
  return {
    ...planned,
    needsAlone,
    consents: roadConsentsOf(job),
    stale,
    reaches: shown.reaches,
    seconds: shown.time.high,
    fromCard,
  }
}

/** What a finding on the picked package, or on what goes before it, still asks people for. */
function unaskedOf(job: JobAt): readonly string[] {
  const { found, picked } = job
  if (found === undefined || picked === undefined) return []
  const route = routeAlong(stateAt(found), picked.moves)
  const topics = (route?.findings ?? []).flatMap(({ remedy }) => {
    if (remedy?.kind === 'ask') return [remedy.topic]
    return remedy?.kind === 'card' ? ['accessory.card'] : []
  })
  return [...new Set(topics)]
}

const IDS = ['serial', 'model', 'board', 'chipset'] as const

/**
 * Ids of the device at the port that are not those which were settled for this slip. One that its mode does not
 * show is compared when the run meets it in a mode that does, before anything is written.
 */
function otherIds({ sight, identity }: JobAt): readonly string[] {
  if (sight === undefined) return []
  return IDS.filter((id) => {
    const here = sight.facts[id]
    return here !== undefined && String(here) !== String(settled(identity, id) ?? '')
  })
}

/** Bytes are known by size and time of change, as they were when they were read: hashing GiB takes minutes. */
async function packageOf(workshop: Workshop, pack: ProvenPackage, house: HouseRules) {
  const stamps = await Promise.all(
    pack.volumes.map(async ({ sha256, stamps: known }) => {
      const now = await workshop.vault.stamp(sha256)
      return now !== undefined && (known.length === 0 || known.includes(now))
    }),
  )
  return {
    title: pack.manifest.title,
    whole: isWhole(pack),
    published: isPublished(pack) || needsNoDigest(house, pack.manifest),
    bytes: stamps.length > 0 && stamps.every(Boolean),
  }
}

/** Ready as it stands. */
export async function readyOf(workshop: Workshop, job: JobAt, stale: boolean): Promise<Ready> {
  const facts = await gateFacts(workshop, job, stale)
  const newest = new Map(job.all.map((line) => [line.topic, line]))
  return {
    ways: waysShown(job),
    checks: checksOf(facts).map((one) => ({ ...one, facts: { ...one.facts } })),
    signed: confirmationsOf(facts).map(({ topic, answers, answer, signed, ended, facts: own }) => {
      const line = answer === undefined && ended === undefined ? undefined : newest.get(topic)
      return {
        topic,
        answers: [...answers],
        answer: answer ?? null,
        signed,
        ended: ended ?? null,
        facts: { ...own },
        by: line?.by ?? null,
        at: line?.at ?? null,
      }
    }),
  }
}

/** The ways of the taken plan that hands go. */
const waysShown = ({ taken, family }: JobAt): Ready['ways'] =>
  handWays(taken?.made.plan.steps ?? [], taken?.mode).map(({ from, to }) => ({
    from: from === undefined ? null : modeShown(family, from),
    to: modeShown(family, to),
  }))

/** What stands in the way of this job's run, as codes; none: it may start. */
export const inTheWay = async (
  workshop: Workshop,
  job: JobAt,
  { stale, actor }: { readonly stale: boolean; readonly actor: Actor | 'shell' },
): Promise<readonly string[]> => mayStart(await gateFacts(workshop, job, stale), actor)
