/** What must be done before a slip's device leaves its running system, as the page shows it and the server holds to it. */
import type { LeaveShown } from '@plain-slate/api'
import type { Fate, LeaveItem, LeavePlan, Leaving, Mode, Plan } from '@plain-slate/core'
import {
  HOLDS_MS,
  chargeWith,
  drawnBy,
  beforeLeaving,
  isLeaveWaived,
  leaveOpen,
  modeName,
  modeOfKind,
  msOf,
  said,
  thingsThere,
  toldOf,
} from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import { seenAt } from './at-port.ts'
import type { JobAt, TakenPlan } from './job-at.ts'
import { whereOf } from './next.ts'

/**
 * Undefined while nothing says that it runs, or once its run has begun. `from`: where somebody says it is, as long as no
 * link tells.
 */
export function leavingOf(
  workshop: Pick<Workshop, 'families'>,
  job: JobAt,
  from?: Mode,
): Leaving | undefined {
  const { family, run, lines, look, device } = job
  if (family === undefined || run !== undefined) return undefined
  const { mode: seen, starts } = whereOf(workshop, job)
  const mode = modeOfKind(family, 'system')
  const here = (seen ?? from) === mode
  if (starts !== 'system' && !(starts === undefined && here)) return undefined
  const now = seenAt(workshop, job)?.facts
  const facts = now ?? device?.facts
  const percent = now?.batteryPercent ?? toldOf(job.identity, 'batteryPercent')
  return {
    family,
    mode,
    here: here || (seen === undefined && from === undefined),
    inUse: facts?.outcome !== 'set-up',
    keepData: job.keepData,
    things: thingsThere(job.things, lines),
    house: job.house,
    plan: plannedOf(job),
    looked: isFresh(job, job.tally.before?.at) || lookedAtIn(job, mode),
    stayedAt: stayed(look),
    screenLock: lockOf(toldOf(job.identity, 'screenLock')),
    percent: percent === undefined ? undefined : Number(percent),
    lines,
    now: job.now,
  }
}

/** What was counted while it was in use is counted anew after some days. */
const isFresh = ({ now }: JobAt, at: string | undefined): boolean =>
  at !== undefined && now - msOf(at) <= HOLDS_MS.copy

/** Percent that a taken plan may draw, by what is known of its device and its cell now. */
export const drawsNow = ({
  taken,
  family,
  identity,
}: Pick<JobAt, 'family' | 'identity'> & { readonly taken: TakenPlan }): number =>
  family === undefined
    ? taken.shown.draws
    : drawnBy(taken.made.plan, { family, identity }, taken.made.own)

/** The plan that was taken: fates of things that are there, each once. */
export function plannedOf({
  taken,
  lines,
  house,
  family,
  identity,
}: Pick<JobAt, 'taken' | 'lines' | 'house' | 'family' | 'identity'>): LeavePlan | undefined {
  if (taken === undefined) return undefined
  const { shown, at, made } = taken
  const there = shown.fates.filter(({ item }) => said(lines, `survive.${item}`) !== 'not-there')
  return {
    takenAt: msOf(at),
    /* By house and cell as they are now: a floor that was decided, or an age that was said since, holds for this plan too. */
    needs: chargeWith(drawsNow({ taken, family, identity }), house),
    permission: shown.steps.some(
      ({ kind, facts }) => kind === 'ready' && facts['what'] === 'permission',
    ),
    keepsOwn: made.plan.packages.some(keepsOwn),
    fates: [...new Set(there.map(({ fate }): Fate => fate))],
  }
}

/** It leaves a part of its owner's own where it is, or brings one. */
const keepsOwn = ({ manifest, decisions }: Plan['packages'][number]): boolean =>
  manifest.carried !== undefined || decisions.some(({ reason }) => reason.kind === 'own')

/** A look over the link met it there, on this slip: elsewhere it counts nothing, and an earlier visit counted other things. */
const lookedAtIn = ({ readings, now }: JobAt, system: Mode): boolean =>
  readings.some(
    ({ fact, source, mode, at }) =>
      fact === 'serial' && source === 'link' && mode === system && now - at <= HOLDS_MS.copy,
  )

const lockOf = (value: unknown): Leaving['screenLock'] =>
  value === 'on' || value === 'off' ? value : undefined

/** When the last look was to go where more is shown, and stayed. */
const stayed = (look: JobAt['look']): number | undefined =>
  look?.outcome?.kind === 'found' && look.epoch !== null && !look.outcome.table
    ? msOf(look.at)
    : undefined

/** Undefined: no leg out of where it is waits for anything. */
export function leaveShown(
  workshop: Pick<Workshop, 'families'>,
  job: JobAt,
  from?: Mode,
): LeaveShown | null {
  const leaving = leavingOf(workshop, job, from)
  if (leaving?.here !== true) return null
  const items = beforeLeaving(leaving)
  if (items.length === 0) return null
  const waived = isLeaveWaived(leaving) ? lineOf(job, 'ready.leave') : null
  return {
    mode: modeName(leaving.family, leaving.mode),
    items: items.map((one) => shown(job, one)),
    open: leaveOpen(leaving).length,
    waived,
  }
}

const lineOf = ({ all }: JobAt, topic: string): LeaveShown['waived'] =>
  all.findLast((line) => line.topic === topic) ?? null

function shown(job: JobAt, one: LeaveItem): LeaveShown['items'][number] {
  const { item, topic, answers, answer, holds, facts } = one
  const line = topic === undefined || answer === undefined ? null : lineOf(job, topic)
  return {
    item,
    topic: topic ?? null,
    answers: [...answers],
    answer: answer ?? null,
    holds,
    facts: { ...facts },
    by: line?.by ?? null,
    at: line?.at ?? null,
  }
}
