/** What the computer of a job's port tells, as the gate asks it. */
import type { BenchComputer, GateComputer, Mode } from '@plain-slate/core'
import { driverOf, driversFor, isHeard, modeName, modesMet } from '@plain-slate/core'
import type { JobAt } from './job-at.ts'

/** Of the agent that holds its device's port; while nobody sees it, of the only one there is. */
function told({ bench, sight }: Pick<JobAt, 'bench' | 'sight'>): BenchComputer | null | undefined {
  const [only, ...others] = bench.computers
  const port = sight?.port
  const its = bench.computers.find(({ ports }) => port !== undefined && ports.includes(port))
  return (its ?? (others.length === 0 ? only : undefined))?.computer
}

/** The driver for want of which a device is not heard in a mode; undefined: it is, or nobody tells. */
export function unheardIn(job: JobAt, mode: Mode): string | undefined {
  const { family } = job
  const probe = told(job)?.probe ?? undefined
  if (family === undefined || probe === undefined || isHeard(family, mode, probe)) return undefined
  return driverOf(family, mode)?.name
}

/** Undefined where nobody tells. */
export function computerOf(job: JobAt): GateComputer | undefined {
  const { sight, taken, family } = job
  const port = sight?.port
  const computer = told(job)
  if (computer === undefined || computer === null || computer.probe === null) return undefined
  const { rivals, powerSaving, sleepMinutes } = computer.probe
  const steps = taken?.made.plan.steps ?? []
  const drivers =
    family === undefined ? [] : driversFor(family, modesMet(steps, taken?.mode), computer.probe)
  return {
    drivers: drivers.map(({ driver: { name, newest }, is, version, modes }) => ({
      name,
      is,
      behind: version === undefined ? 0 : Math.max(0, newest - version),
      modes: modes.map((mode) => modeName(family, mode)).join(', '),
    })),
    rivals: rivals.filter((one) => port === undefined || one.port === port),
    powerSaving: port !== undefined && powerSaving.includes(port),
    sleepMinutes,
    freeMiB: computer.freeMiB,
  }
}
