/**
 * The ports that this agent holds: those of its bench file, those that somebody at this machine names in a file beside it,
 * those that the house named for it. Reads the two files and what the server says; begins and leaves ports as they come and
 * go. A name is taken by the nearest: bench file, own file, house. A port where something is under way stays until that is over.
 */
import { statSync } from 'node:fs'
import type { Address } from '@plain-slate/link'
import { readTcpAddress } from '@plain-slate/core'
import { pause } from '@plain-slate/link'
import { BenchPort } from './bench-port.ts'
import type { PortPlan } from './bench-port.ts'
import type { AgentConfig } from './config.ts'
import { readOwnPorts } from './config.ts'

type Held = {
  readonly port: BenchPort
  readonly way: string
  /** A file on this machine names it. */
  readonly filed: boolean
  readonly leave: () => void
}
type Wanted = { readonly address: Address; readonly filed: boolean }
export type HousePorts = readonly { readonly name: string; readonly address: string }[]

export class Ports {
  readonly #plan: Omit<PortPlan, 'name' | 'address'>
  readonly #held = new Map<string, Held>()
  readonly #signal: AbortSignal
  #own: ReadonlyMap<string, Address> = new Map()
  #ownStamp = ''
  #house: HousePorts = []

  constructor(plan: Omit<PortPlan, 'name' | 'address'>, signal: AbortSignal) {
    this.#plan = plan
    this.#signal = signal
    this.look()
  }

  get list(): readonly BenchPort[] {
    return [...this.#held.values()].map(({ port }) => port)
  }
  /** Each port with what was seen there, as it is told. */
  get told() {
    return [...this.#held].map(([name, { port, way, filed }]) => ({
      name,
      ...port.seen,
      way,
      filed,
    }))
  }
  at = (name: string): BenchPort | undefined => this.#held.get(name)?.port

  /** The ports that the house named for this agent, as it says now. */
  named(house: HousePorts): void {
    this.#house = house
    this.#settle()
  }

  /** Looks whether the file of own ports changed. One that cannot be read leaves things as they are, and is said. */
  look(): void {
    const { ownPorts } = this.#plan.config
    const stamp = ownPorts === undefined ? '' : stampOf(ownPorts)
    if (ownPorts !== undefined && stamp !== this.#ownStamp) {
      this.#ownStamp = stamp
      const read = readOwnPorts(ownPorts)
      if (read.ok) this.#own = read.value
      else console.error(read.refusal)
    }
    this.#settle()
  }

  #wanted(): ReadonlyMap<string, Wanted> {
    const wanted = new Map<string, Wanted>()
    for (const { name, address } of this.#house) {
      const read = readTcpAddress(address)
      if (read !== undefined) wanted.set(name, { address: read, filed: false })
    }
    for (const files of [this.#own, this.#plan.config.ports])
      for (const [name, address] of files) wanted.set(name, { address, filed: true })
    return wanted
  }

  #settle(): void {
    const wanted = this.#wanted()
    for (const [name, held] of this.#held) {
      const now = wanted.get(name)
      const same = now !== undefined && wayOf(now.address) === held.way && now.filed === held.filed
      if (same || held.port.isBusy) continue
      held.leave()
      this.#held.delete(name)
    }
    for (const [name, { address, filed }] of wanted)
      if (!this.#held.has(name)) this.#held.set(name, this.#begin(name, address, filed))
  }

  #begin(name: string, address: Address, filed: boolean): Held {
    const port = new BenchPort({ ...this.#plan, name, address })
    const leaving = new AbortController()
    const signal = AbortSignal.any([this.#signal, leaving.signal])
    void seeing(port, this.#plan.config, signal)
    return { port, filed, way: wayOf(address), leave: () => leaving.abort() }
  }
}

/** Sees who is at a port, again and again. */
async function seeing(port: BenchPort, config: AgentConfig, signal: AbortSignal): Promise<void> {
  while (!signal.aborted) {
    await port.see(signal).catch((error: unknown) => console.error(error))
    await pause(config.glanceMs, signal)
  }
}

/** As a person reads it: the address, or the command with its arguments. */
function wayOf(address: Address): string {
  if (address.kind === 'command') return address.argv.join(' ').slice(0, WAY_MOST)
  const host = address.host.includes(':') ? `[${address.host}]` : address.host
  return `tcp:${host}:${address.port}`
}
const WAY_MOST = 200

function stampOf(file: string): string {
  try {
    const { mtimeMs, size, ino } = statSync(file)
    return `${mtimeMs} ${size} ${ino}`
  } catch {
    return ''
  }
}
