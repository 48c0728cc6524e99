/**
 * The computer of the simulated bench: which drivers are installed on it, who else holds a port, what it saves power on.
 * Kept in the file that the agent reads. A device whose mode needs a driver that is not there is not heard, nor one at
 * a port that another program holds.
 */
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import type { StandInAct } from '@plain-slate/api'
import type { Computer, Family, Mode } from '@plain-slate/core'
import { COMPUTER_FORMAT, computerFileSchema, isHeard } from '@plain-slate/core'

export type ComputerAct = Extract<
  StandInAct,
  { readonly kind: 'driver' | 'rival' | 'power-saving' | 'hub' | 'sleep' }
>

export class StandInComputer {
  readonly #path: string | undefined
  readonly #families: readonly Family[]
  #told: Computer

  /** A file that is not there yet is made: every driver in its newest version, nobody beside us. */
  constructor(path: string | undefined, families: readonly Family[]) {
    this.#path = path
    this.#families = families
    this.#told =
      path !== undefined && existsSync(path)
        ? computerFileSchema.parse(JSON.parse(readFileSync(path, 'utf8')))
        : newest(families)
    this.#save()
  }

  /** Whether a device in a mode is heard at a port. */
  hears(family: Family, mode: Mode, port: string): boolean {
    return isHeard(family, mode, this.#told) && this.#told.rivals.every((one) => one.port !== port)
  }

  /** Whether a hub lies between it and what hangs at a port. */
  hasHub = (port: string): boolean => this.#told.hubs.includes(port)

  /** What somebody does with the computer; a sentence when that cannot be done. */
  act(act: ComputerAct): string | undefined {
    const { drivers, rivals, powerSaving } = this.#told
    if (act.kind === 'driver') {
      const known = this.#families.flatMap((family) => family.drivers)
      const driver = known.find(({ id }) => id === act.driver)
      if (driver === undefined) return `No family has a driver ${act.driver}.`
      if (act.version !== null && act.version > driver.newest)
        return `Its maker gives out none newer than ${driver.newest}.`
      const others = drivers.filter(({ id }) => id !== act.driver)
      const now = act.version === null ? [] : [{ id: act.driver, version: act.version }]
      this.#told = { ...this.#told, drivers: [...others, ...now] }
    }
    if (act.kind === 'rival') {
      const others = rivals.filter(({ port }) => port !== act.port)
      const now = act.program === null ? [] : [{ port: act.port, program: act.program }]
      this.#told = { ...this.#told, rivals: [...others, ...now] }
    }
    if (act.kind === 'power-saving') {
      const others = powerSaving.filter((port) => port !== act.port)
      this.#told = { ...this.#told, powerSaving: act.on ? [...others, act.port].sort() : others }
    }
    if (act.kind === 'hub') {
      const others = this.#told.hubs.filter((port) => port !== act.port)
      this.#told = { ...this.#told, hubs: act.on ? [...others, act.port].sort() : others }
    }
    if (act.kind === 'sleep') this.#told = { ...this.#told, sleepMinutes: act.minutes }
    this.#save()
    return undefined
  }

  /** Whole or not at all: the agent may be reading. */
  #save(): void {
    if (this.#path === undefined) return
    const draft = `${this.#path}.new`
    writeFileSync(draft, JSON.stringify({ format: COMPUTER_FORMAT, ...this.#told }, undefined, 2))
    renameSync(draft, this.#path)
  }
}

const newest = (families: readonly Family[]): Computer => ({
  drivers: families.flatMap(({ drivers }) =>
    drivers.map(({ id, newest: version }) => ({ id, version })),
  ),
  rivals: [],
  powerSaving: [],
  hubs: [],
  sleepMinutes: null,
})

/** The computer of a port; of none, the first. */
export type Computers = (port: string | undefined) => StandInComputer

/** Each file is a computer with its ports; the last has all that are left. */
export function computersOf(
  files: readonly { readonly file: string; readonly ports: readonly string[] }[] | undefined,
  families: readonly Family[],
): Computers {
  const all = (files ?? []).map(({ file, ports }) => ({
    ports,
    computer: new StandInComputer(file, families),
  }))
  const last = all.at(-1)?.computer ?? new StandInComputer(undefined, families)
  const first = all[0]?.computer ?? last
  return (port) =>
    port === undefined ? first : (all.find(({ ports }) => ports.includes(port))?.computer ?? last)
}
