/** The way of a slip's device to a mode, as its family has it. */
import type { LegShown, WayShown } from '@plain-slate/api'
import type { Family, Leg, Mode, Result } from '@plain-slate/core'
import { legsTo, modeProfile, ok, refuse, toldOf, wayTopic } from '@plain-slate/core'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { modeShown } from '../devices/seen.ts'
import { seenAt } from './at-port.ts'
import type { JobAt } from './job-at.ts'
import { unheardIn } from './computer.ts'
import { leaveShown } from './leave.ts'
import { whereOf } from './next.ts'

type Asked = { readonly to: Mode; readonly from?: Mode | undefined }

export function wayOf(
  workshop: Pick<Workshop, 'families'>,
  job: JobAt,
  asked: Asked,
): Result<WayShown, Refusal> {
  const { family, identity } = job
  if (family === undefined)
    return refuse({ code: 'device.family', facts: { model: job.slip.model ?? '' } })
  for (const mode of [asked.to, asked.from])
    if (mode !== undefined && modeProfile(family, mode) === undefined)
      return refuse({ code: 'mode.unknown', facts: { mode, family: family.id } })
  /* While a run has its port, what was seen of it there is of before. */
  const seen = job.run?.state === 'running' ? undefined : seenAt(workshop, job)?.facts.mode
  const from = seen ?? asked.from
  const loader = toldOf(identity, 'loaderVersion')
  const going = {
    permission: whereOf(workshop, job).permission,
    loader: loader === undefined ? undefined : Number(loader),
    byHand: job.run?.state === 'running',
  }
  const legs = from === undefined ? undefined : legsTo(family, from, asked.to, going)
  return ok({
    from: from === undefined ? null : modeShown(family, from),
    seen: seen !== undefined,
    to: modeShown(family, asked.to),
    shows: family.modes.map(({ id, looks }) => ({ mode: modeShown(family, id), looks })),
    outline: family.outline,
    legs: legs?.map((leg) => legShown(family, leg)) ?? null,
    missed: missedOf(job, asked.to),
    permission: family.permission.what,
    permissionSteps: family.permission.steps,
    first: leaveShown(workshop, job, from),
    unheard: unheardIn(job, asked.to) ?? null,
    drains: drainsThere(job, asked.to),
  })
}

/** What it loses in a mode that does not charge; while it is off nothing drains it. */
function drainsThere({ family, identity }: JobAt, to: Mode): WayShown['drains'] {
  const mode = family === undefined ? undefined : modeProfile(family, to)
  if (family === undefined || mode === undefined || mode.charges) return null
  const here = toldOf(identity, 'batteryPercent')
  return {
    perMinute: family.drainPerMinute.idle,
    here: here === undefined ? null : Math.round(Number(here)),
  }
}

/** Tries that missed since the last that arrived. */
function missedOf({ all }: JobAt, to: Mode): number {
  const tries = all.filter(({ topic }) => topic === wayTopic(to)).map(({ answer }) => answer)
  return tries.slice(tries.lastIndexOf('arrived') + 1).length
}

function legShown(family: Family, leg: Leg): LegShown {
  const shown = (mode: Mode) => modeShown(family, mode)
  const nameOf = (id: string) => family.outline.keys.find((key) => key.id === id)?.name ?? id
  const { acts, hurdle, presses, alike, slip, from, to, ...rest } = leg
  return {
    ...rest,
    from: shown(from),
    to: shown(to),
    acts: acts.map((act) => ({
      do: act.do,
      keys: (act.keys ?? []).map((id) => ({ id, name: nameOf(id) })),
      seconds: act.seconds ?? null,
      until: act.until ?? null,
      within: act.within ?? null,
      say: act.say ?? null,
    })),
    hurdle: hurdle?.say ?? null,
    menus: presses.map(({ upToLoader, presses: n, lines }) => ({
      upToLoader: upToLoader ?? null,
      presses: n,
      lines: lines.map(({ name, danger }) => ({ name, danger: danger === true })),
    })),
    raises: leg.starts && family.floors.rules.some(({ rises }) => rises.includes('first-start')),
    alike: alike.map((one) => ({ ...one, mode: shown(one.mode) })),
    slip:
      slip === undefined
        ? null
        : {
            say: slip.say,
            leads: shown(slip.leads),
            back: slip.back?.map(({ say }) => say) ?? null,
          },
  }
}
