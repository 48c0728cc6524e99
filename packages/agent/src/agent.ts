/**
 * The agent: owns its ports and the runs on them. Hears what is wanted, sees who answers at its ports, says
 * that it lives and renews its leases: four things that never wait on each other, nor one port on another.
 * It needs the server to begin anything, and not to go on.
 */
import { setMaxListeners } from 'node:events'
import type { Work } from '@plain-slate/api'
import { RENEW_MS } from '@plain-slate/api'
import { pause } from '@plain-slate/link'
import { openFolder } from '@plain-slate/vault'
import { ComputerProbe } from './computer.ts'
import type { AgentConfig } from './config.ts'
import { Ports } from './ports.ts'
import type { ServerSide } from './server.ts'
import { serverSide } from './server.ts'

/** News say when to hear; this is for the case that one was missed. */
const HEAR_MS = 2000

export type RunningAgent = {
  /** Leaves everything as it is: runs are taken up later. */
  readonly stop: () => Promise<void>
}

export async function startAgent(config: AgentConfig): Promise<RunningAgent> {
  const vault = await openFolder(config.vaultFolder, { sweep: false })
  const server = serverSide(config.server, config.secret, config.id)
  const ending = new AbortController()
  const { signal } = ending
  /* Each port waits on it now and then, with every try to meet its device. */
  setMaxListeners(0, signal)
  const ports = new Ports({ config, server, vault }, signal)
  const probe = new ComputerProbe(config.folder, config.computer, config.bench)
  const agent = new Agent(config.id, server, ports, probe)
  const loops = [
    server.follow(() => agent.wake(), signal),
    agent.hearing(signal),
    every(config.glanceMs, () => agent.live(), signal),
    every(RENEW_MS, () => agent.renew(), signal),
  ]
  return {
    async stop() {
      ending.abort()
      for (const { keeper } of ports.list) keeper?.abandon()
      await Promise.allSettled(loops)
    },
  }
}

/** Does something again and again. Failures are logged, and tried again. */
async function every(ms: number, what: () => Promise<void>, signal: AbortSignal): Promise<void> {
  while (!signal.aborted) {
    await what().catch((error: unknown) => console.error(error))
    await pause(ms, signal)
  }
}

class Agent {
  readonly #id: string
  readonly #server: ServerSide
  readonly #ports: Ports
  #wake = new AbortController()
  #told = ''
  #toldAt = 0
  #why = ''
  readonly #probe: ComputerProbe

  constructor(id: string, server: ServerSide, ports: Ports, probe: ComputerProbe) {
    this.#probe = probe
    this.#id = id
    this.#server = server
    this.#ports = ports
  }

  /** Hears what is wanted soon, also when news came while it was being heard. */
  wake(): void {
    this.#wake.abort()
  }

  async hearing(signal: AbortSignal): Promise<void> {
    while (!signal.aborted) {
      this.#wake = new AbortController()
      await this.#hear().catch((error: unknown) => console.error(error))
      await pause(HEAR_MS, AbortSignal.any([signal, this.#wake.signal]))
    }
  }

  /** What is wanted: words of people for the runs kept here, runs to claim, looks. Awaits none of them. */
  async #hear(): Promise<void> {
    const work = await this.#server.call('agentWork', {})
    if (work.kind !== 'answered') return
    for (const run of work.answer.runs) this.#hearRun(run)
    for (const look of work.answer.looks) left(this.#ports.at(look.port)?.look(look))
  }

  #hearRun(run: Work['runs'][number]): void {
    const port = this.#ports.at(run.port)
    /* It goes on at another port, of this bench or of another: here it is let go. */
    for (const { name, keeper } of this.#ports.list)
      if (keeper?.run === run.id && name !== run.port) keeper.abandon()
    if (port?.keeper?.run === run.id) port.keeper.wanted(run)
    else if (run.wanted) left(port?.take(run))
  }

  /** Says that this agent lives, what it sees and what its computer tells: when that changed, and now and then. */
  async live(): Promise<void> {
    this.#ports.look()
    const ports = this.#ports.told
    const computer = await this.#probe.told()
    const text = JSON.stringify([ports, computer])
    if (text === this.#told && performance.now() - this.#toldAt < RENEW_MS) return
    const told = await this.#server.call('agentPorts', {
      agent: this.#id,
      ports,
      computer,
      whole: true,
    })
    if (told.kind === 'refused') this.#refused(told.code)
    if (told.kind !== 'answered') return
    this.#told = text
    this.#toldAt = performance.now()
    this.#ports.named(told.answer.ports)
  }

  /** A server that will have nothing to do with this agent: said once in its log, not in silence. */
  #refused(code: string): void {
    if (this.#why !== code) console.error(`the server refuses what this agent says: ${code}`)
    this.#why = code
  }

  async renew(): Promise<void> {
    const held = this.#ports.list.flatMap(({ keeper }) =>
      keeper === undefined ? [] : [{ run: keeper.run, epoch: keeper.epoch }],
    )
    if (held.length > 0) await this.#server.call('agentRenew', { agent: this.#id, held })
  }
}

/** Something that goes on by itself; what goes wrong in it is logged. */
function left(going: Promise<void> | undefined): void {
  going?.catch((error: unknown) => console.error(error))
}
