/**
 * One port of this agent: it does one thing at a time there (a run, a look, or seeing in passing who
 * answers), and whatever it does ends with the port free again. No port waits on another.
 */
import type { Work } from '@plain-slate/api'
import type { DeviceFacts } from '@plain-slate/core'
import type { Address } from '@plain-slate/link'
import type { Vault } from '@plain-slate/vault'
import type { AgentConfig } from './config.ts'
import type { Keeper } from './keep-run.ts'
import { brokenKeeper, keepRun } from './keep-run.ts'
import type { PortSight } from './look.ts'
import { lookAt, whoIsAt } from './look.ts'
import type { ServerSide } from './server.ts'

type WorkRun = Work['runs'][number]
const NOBODY: PortSight = { facts: null, odd: null }

type WorkLook = Work['looks'][number]

export type PortPlan = {
  readonly name: string
  readonly address: Address
  readonly config: AgentConfig
  readonly server: ServerSide
  readonly vault: Vault
}

export class BenchPort {
  readonly #plan: PortPlan
  /** True while a run or a look holds the port, or is about to: nobody else opens its stream. */
  #taken = false
  /** Ends when nobody looks at the port in passing any more: that takes moments. */
  #passing: Promise<void> = Promise.resolve()
  #keeper: Keeper | undefined
  #seen: PortSight = NOBODY

  constructor(plan: PortPlan) {
    this.#plan = plan
  }

  get name(): string {
    return this.#plan.name
  }
  /** What was seen here last. */
  get seen(): PortSight {
    return this.#seen
  }
  /** True while a run or a look is at it here. */
  get isBusy(): boolean {
    return this.#taken
  }
  /** The run that is kept here. */
  get keeper(): Keeper | undefined {
    return this.#keeper
  }

  /** Who answers here, unless somebody is at it. */
  async see(signal: AbortSignal): Promise<void> {
    if (!this.#isFree()) return
    const { address, config } = this.#plan
    const looked = whoIsAt(address, config.linkSecret, signal)
    this.#passing = looked.then(
      () => undefined,
      () => undefined,
    )
    const seen = await looked
    /* Whoever took the port meanwhile knows better. */
    if (this.#isFree()) this.#seen = seen
  }

  /** Looks at the device here and tells what was found; nothing where the port is taken. */
  look(look: WorkLook): Promise<void> {
    return this.#hold(async () => {
      const { address, config, server } = this.#plan
      const found = await lookAt(address, config.linkSecret, look)
      await server.call('agentLook', { id: look.id, found })
    })
  }

  /**
   * Claims a wanted run and drives it to where it stands still; nothing where the port is taken. A fault
   * of this bench on the way, before or after the claim, ends the run in a state that says so.
   */
  take(work: WorkRun): Promise<void> {
    return this.#hold(async () => {
      const { config, server, vault, address } = this.#plan
      const claimed = await server.call('agentClaim', { agent: config.id, run: work.id })
      if (claimed.kind !== 'answered') return
      const plan = {
        agent: config.id,
        folder: config.folder,
        linkSecret: config.linkSecret,
        address,
        server,
        vault,
        work,
        claim: claimed.answer,
        met: (facts: DeviceFacts) => (this.#seen = { facts, odd: null }),
      }
      this.#keeper = kept(plan)
      await this.#keeper.over.finally(() => (this.#keeper = undefined))
    })
  }

  #isFree = (): boolean => !this.#taken

  async #hold(what: () => Promise<void>): Promise<void> {
    if (this.#taken) return
    this.#taken = true
    try {
      await this.#passing
      await what()
    } finally {
      this.#taken = false
    }
  }
}

/** Keeps a claimed run; one that cannot even be begun here is told, and over. */
function kept(plan: Parameters<typeof keepRun>[0]): Keeper {
  try {
    return keepRun(plan)
  } catch (error) {
    return brokenKeeper(plan, error)
  }
}
