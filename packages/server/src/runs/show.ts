/** A run as it stands: its row, its journal's mirror, and what its agent showed last. */
import type { RunRow as RunRowShown, RunShown } from '@plain-slate/api'
import type { Command, Family, JournalEntry, LedgeWord, Phase, Step } from '@plain-slate/core'
import {
  handWays,
  ledgeWord,
  modeOfKind,
  placeOf,
  singleCopyInDoubt,
  standingOf,
  stepAt,
  stopWaits,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { shortOf } from './charge.ts'
import type { Sight } from '../tables/devices.ts'
import { listSights } from '../tables/devices.ts'
import type { RunRow } from '../tables/runs.ts'
import { readJournal } from '../tables/journals.ts'
import { listPeople } from '../tables/people.ts'
import { listRuns } from '../tables/runs.ts'
import { kindSeen, modeShown, seenOf } from '../devices/seen.ts'
import { stepShown } from '../plans/shown.ts'
import { leftOf, logOf, looksNow } from './told.ts'
import { whyOf } from '../plans/why.ts'

/** The phase as it is known: from the agent, or from the row where no agent has shown any. */
export function phaseOf(run: RunRow): Phase {
  if (run.state === 'ended') return { kind: 'ended' }
  const shown = run.shown?.phase
  if (run.state === 'stopped') return shown?.kind === 'stopped' ? shown : STOPPED
  return shown === undefined || shown.kind === 'stopped' ? { kind: 'doing' } : shown
}
const STOPPED: Phase = { kind: 'stopped', why: { kind: 'asked' } }

/** Nobody drives it, and nobody was asked to. */
export const isOwnerless = (run: RunRow): boolean =>
  run.state === 'running' && !run.held && !run.wanted

/** The command that a run is at: what was shown, or the journal's place. */
const commandAt = (run: RunRow, next: number): Command | undefined => run.commands[next]

/** The ledge's word for a run: what it asks of whoever stands at the bench. */
function wordOf(families: readonly Family[], run: RunRow, next: number): LedgeWord {
  const facts = run.shown?.waiting?.seen ?? null
  return ledgeWord({
    run: { phase: phaseOf(run), command: commandAt(run, next), ownerless: isOwnerless(run) },
    seen: kindSeen(facts === null ? null : seenOf(families, facts)),
  })
}

/** A run as a row of the list. */
export function runRowOf(families: readonly Family[], run: RunRow): RunRowShown {
  const { id, slip, serial, port, state, by, startedAt, endedAt } = run
  const title = run.plan.packages.at(-1)?.manifest.title ?? run.package
  const word = wordOf(families, run, run.shown?.next ?? 0)
  return {
    id,
    slip,
    serial,
    port,
    package: run.package,
    title,
    state,
    word,
    by,
    startedAt,
    endedAt,
  }
}

/** Everything a page shows of a run. */
export async function showRun(workshop: Workshop, run: RunRow): Promise<RunShown> {
  const journal = await readJournal(workshop.db, run.id)
  const family = workshop.families.find(({ id }) => id === run.plan.family)
  const sights = await listSights(workshop.db)
  const sight = sights.find(({ port }) => port === run.port)
  const next = Math.max(placeOf(journal).next, run.shown?.next ?? 0)
  const step = stepAt(run.steps, next)
  const command = commandAt(run, next)
  const { shown } = run
  const phase = phaseOf(run)
  return {
    ...runRowOf(workshop.families, run),
    word: wordOf(workshop.families, run, next),
    steps: run.steps.map(stepShown),
    step: run.state === 'ended' ? run.steps.length + 1 : (step?.number ?? 1),
    asked: askedOf(run, phase, command, next),
    elsewhere: await elsewhere(workshop, run, { phase, sights }),
    way: wayOf(family, run, step),
    why: phase.kind === 'stopped' ? whyOf(phase.why) : null,
    stop:
      run.state === 'running' ? (stopWaits(run.stop, { held: run.held, command }) ?? null) : null,
    ownerless: isOwnerless(run),
    got: command?.kind === 'put' ? (shown?.got ?? 0) : 0,
    size: command?.kind === 'put' ? command.size : 0,
    stepSeconds: shown === null ? 0 : Math.max(0, shown.at - shown.stepAt) / 1000,
    runSeconds: shown === null ? 0 : Math.max(0, shown.at - shown.runAt) / 1000,
    quiet: run.state === 'running' ? run.quiet : 0,
    waiting: waitingOf(workshop.families, run, { step, command }),
    says: run.state === 'running' ? (shown?.says ?? null) : null,
    hold: holdOf(family, run, phase, journal) ?? null,
    parts: [...standingOf(run.commands, journal)],
    journal: journal.length,
    log: logOf(run, journal, await namesFor(workshop, journal)),
    left: leftOf(run, next, step?.number ?? 1),
    looks: looksNow(family, run, sight?.facts ?? undefined),
    cable: run.cable,
    battery: sight?.facts?.batteryPercent ?? null,
    wall: [...run.wall],
    scale: run.plan.packages.at(-1)?.manifest.scale ?? 1,
    losses: shown?.losses ?? 0,
    against: againstOf(run),
    low: run.low,
    stopBy: run.stopBy,
    short: run.state === 'ended' ? null : (shortOf(family, run, next, sight?.facts) ?? null),
  }
}

/** What was said against it, by its word and by whom. */
const againstOf = ({ against }: RunRow): RunShown['against'] =>
  against === null
    ? null
    : { topic: against.topic, answer: against.answer, by: against.name, at: against.at }

/** Names of people where a journal has one's word by their id. */
async function namesFor(
  { db }: Workshop,
  journal: readonly JournalEntry[],
): Promise<ReadonlyMap<string, string>> {
  const hasWord = journal.some((one) => one.kind === 'done' && one.evidence.is === 'person')
  if (!hasWord) return new Map()
  return new Map((await listPeople(db)).map(({ id, name }) => [id, name]))
}

/** Nobody writes at its port now: it is not over, and may be gone on with elsewhere. */
export const isLeft = (run: RunRow, { kind }: Phase): boolean =>
  run.state !== 'ended' &&
  !run.putAway &&
  (!run.held || ['lost', 'looking', 'stopped'].includes(kind))

/** Another port that no run holds, at which its device is seen while the run waits for it. */
async function elsewhere(
  { db }: Workshop,
  run: RunRow,
  { phase, sights }: { readonly phase: Phase; readonly sights: readonly Sight[] },
): Promise<string | null> {
  const there = sights.find(
    ({ port, facts }) => port !== run.port && facts !== null && facts.serial === run.serial,
  )
  if (!isLeft(run, phase) || there === undefined) return null
  const held = await listRuns(db, 'at-ports')
  return held.some(({ port }) => port === there.port) ? null : there.port
}

/** The way that hands are to go in a step. */
function wayOf(
  family: Family | undefined,
  run: RunRow,
  step: { readonly number: number } | undefined,
): RunShown['way'] {
  const own = handWays(run.plan.steps).find((one) => one.step === step?.number)
  if (own === undefined || run.state !== 'running') return null
  return {
    from: own.from === undefined ? null : modeShown(family, own.from),
    to: modeShown(family, own.to),
  }
}

/** The single copy that is in doubt while the run is not being driven on. */
export function holdOf(
  family: Family | undefined,
  run: RunRow,
  phase: Phase,
  journal: readonly JournalEntry[],
): string | undefined {
  const goes = run.state === 'running' && !isOwnerless(run)
  if (family === undefined || (goes && phase.kind !== 'lost' && phase.kind !== 'looking'))
    return undefined
  return singleCopyInDoubt(family, run.commands, journal)
}

type Place = {
  readonly step: Pick<Step, 'kind'> | undefined
  readonly command: Command | undefined
}

/**
 * What the run waits for, and what answers at its port meanwhile. A proof is made in the system that was started. One that
 * was lost as it was told to restart is met wherever it answers; it is on its way to where it was told to go.
 */
function waitingOf(
  families: readonly Family[],
  run: RunRow,
  { step, command }: Place,
): RunShown['waiting'] {
  const waiting = run.shown?.waiting ?? null
  if (run.state !== 'running' || waiting === null) return null
  const family = families.find(({ id }) => id === run.plan.family)
  const system = step?.kind === 'prove' && family !== undefined && modeOfKind(family, 'system')
  const told = command?.kind === 'restart' ? command.to : null
  const mode = waiting.mode ?? (system || told)
  return {
    mode: mode === null ? null : modeShown(family, mode),
    seen: waiting.seen === null ? null : seenOf(families, waiting.seen),
  }
}

/** What hands are asked for: only while the run waits for it and nobody has said it is done. */
function askedOf(
  run: RunRow,
  phase: Phase,
  command: Command | undefined,
  next: number,
): RunShown['asked'] {
  const waits = run.state === 'running' && phase.kind === 'doing' && command?.kind === 'person'
  if (!waits || run.answers[String(next)] !== undefined) return null
  return { command: next, ask: command.ask, text: command.text }
}
