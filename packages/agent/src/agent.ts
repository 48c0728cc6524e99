/**
 * The agent: owns its ports and the runs on them. Looks at what is wanted, claims what it can drive,
 * renews its leases, tells what it sees. Needs the server to begin anything, and not to go on.
 */
import type { Work } from '@plain-slate/api'
import { RENEW_MS } from '@plain-slate/api'
import type { DeviceFacts } from '@plain-slate/core'
import type { Address } from '@plain-slate/link'
import { pause } from '@plain-slate/link'
import { openFolder } from '@plain-slate/vault'
import type { Vault } from '@plain-slate/vault'
import type { AgentConfig } from './config.ts'
import type { Claim, Keeper } from './keep-run.ts'
import { keepRun } from './keep-run.ts'
import { lookAt, whoIsAt } from './look.ts'
import type { ServerSide } from './server.ts'
import { serverSide } from './server.ts'

/** News say when to look; this is for the case that one was missed. */
const LOOK_MS = 2000
const SEE_MS = 700
const NEVER = new AbortController().signal

export type RunningAgent = {
  /** Leaves everything as it is: runs are taken up later. */
  readonly stop: () => Promise<void>
}

export async function startAgent(config: AgentConfig): Promise<RunningAgent> {
  const vault = await openFolder(config.vaultFolder, { sweep: false })
  const server = serverSide(config.server, config.secret, config.id)
  const agent = new Agent(config, server, vault)
  const ending = new AbortController()
  const { signal } = ending
  const loops = [
    server.follow(() => agent.wake(), signal),
    agent.every(LOOK_MS, () => agent.work(), signal),
    agent.every(SEE_MS, () => agent.see(), signal),
    agent.every(RENEW_MS, () => agent.renew(), signal),
  ]
  return {
    async stop() {
      ending.abort()
      agent.abandon()
      await Promise.allSettled(loops)
    },
  }
}

class Agent {
  readonly #config: AgentConfig
  readonly #server: ServerSide
  readonly #vault: Vault
  readonly #keepers = new Map<string, Keeper>()
  /** Ports with a run or a look on them: nobody else opens their stream. */
  readonly #taken = new Set<string>()
  /** The port that is being looked at in passing: that takes moments. */
  #passing: string | undefined
  readonly #seen = new Map<string, DeviceFacts | null>()
  #wake: (() => void) | undefined
  #told = ''
  #toldAt = 0

  constructor(config: AgentConfig, server: ServerSide, vault: Vault) {
    this.#config = config
    this.#server = server
    this.#vault = vault
  }

  /** Does something again and again; a wake comes early. Failures are logged, and tried again. */
  async every(ms: number, what: () => Promise<void>, signal: AbortSignal): Promise<void> {
    while (!signal.aborted) {
      await what().catch((error: unknown) => console.error(error))
      const early = new AbortController()
      if (ms === LOOK_MS) this.#wake = () => early.abort()
      await pause(ms, AbortSignal.any([signal, early.signal]))
    }
  }

  wake(): void {
    this.#wake?.()
  }

  abandon(): void {
    for (const keeper of this.#keepers.values()) keeper.abandon()
  }

  /** What is wanted of agents: runs to claim, answers of people, looks. */
  async work(): Promise<void> {
    const work = await this.#server.call('agentWork', {})
    if (work.kind !== 'answered') return
    for (const run of work.answer.runs) {
      const keeper = this.#keepers.get(run.id)
      if (keeper !== undefined) keeper.wanted(run)
      else if (run.wanted) await this.#take(run)
    }
    for (const look of work.answer.looks) await this.#look(look)
  }

  /** The port is ours once nobody looks at it in passing. */
  async #seize(port: string): Promise<void> {
    this.#taken.add(port)
    while (this.#passing === port) await pause(20, NEVER)
  }

  async #take(work: Work['runs'][number]): Promise<void> {
    const address = this.#config.ports.get(work.port)
    if (address === undefined || this.#taken.has(work.port)) return
    const { id: agent } = this.#config
    const claimed = await this.#server.call('agentClaim', { agent, run: work.id })
    if (claimed.kind !== 'answered') return
    await this.#seize(work.port)
    try {
      this.#keep(work, address, claimed.answer)
    } catch (error) {
      this.#taken.delete(work.port)
      throw error
    }
  }

  /** Drives a claimed run; its port is free again when that is over, however it ended. */
  #keep(work: Work['runs'][number], address: Address, claim: Claim): void {
    const { id: agent, folder, linkSecret } = this.#config
    const keeper = keepRun({
      agent,
      folder,
      linkSecret,
      address,
      server: this.#server,
      vault: this.#vault,
      work,
      claim,
      met: (facts) => this.#seen.set(work.port, facts),
    })
    this.#keepers.set(work.id, keeper)
    void keeper.over
      .catch((error: unknown) => console.error(error))
      .finally(() => {
        this.#keepers.delete(work.id)
        this.#taken.delete(work.port)
      })
  }

  async #look(look: Work['looks'][number]): Promise<void> {
    const { id, port } = look
    const address = this.#config.ports.get(port)
    if (address === undefined || this.#taken.has(port)) return
    await this.#seize(port)
    try {
      const found = await lookAt(address, this.#config.linkSecret, look)
      await this.#server.call('agentLook', { id, found })
    } finally {
      this.#taken.delete(port)
    }
  }

  /** Who answers at each free port. Told when it changed, and now and then to say that we live. */
  async see(): Promise<void> {
    for (const [port, address] of this.#config.ports) {
      if (this.#taken.has(port)) continue
      this.#passing = port
      const facts = await whoIsAt(address, this.#config.linkSecret).finally(
        () => (this.#passing = undefined),
      )
      if (!this.#taken.has(port)) this.#seen.set(port, facts)
    }
    const ports = [...this.#config.ports.keys()].map((name) => ({
      name,
      facts: this.#seen.get(name) ?? null,
    }))
    const text = JSON.stringify(ports)
    if (text === this.#told && Date.now() - this.#toldAt < RENEW_MS) return
    const told = await this.#server.call('agentPorts', { agent: this.#config.id, ports })
    if (told.kind !== 'answered') return
    this.#told = text
    this.#toldAt = Date.now()
  }

  async renew(): Promise<void> {
    const held = [...this.#keepers.values()].map(({ run, epoch }) => ({ run, epoch }))
    if (held.length > 0) await this.#server.call('agentRenew', { agent: this.#config.id, held })
  }
}
