/**
 * The server as the agent's tests play it: what is wanted stands in plain lists, and everything the agent
 * says is kept as it came.
 */
import { mkdirSync, mkdtempSync } from 'node:fs'
import { createServer } from 'node:http'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { BodyOf, Contract, Work } from '@plain-slate/api'
import { contract } from '@plain-slate/api'
import type { Command, JournalEntry } from '@plain-slate/core'
import type { Address } from '@plain-slate/link'
import { startAgent } from '../agent.ts'

type Report = BodyOf<Contract['agentReport']>
type Told = BodyOf<Contract['agentPorts']>['ports']
export type Planned = {
  readonly commands: readonly Command[]
  readonly journal?: readonly JournalEntry[]
  readonly epoch?: number
}

export class PlayedServer {
  runs: Work['runs'] = []
  looks: Work['looks'] = []
  /** The ports that the house named for this agent. */
  named: { name: string; address: string }[] = []
  readonly reports: Report[] = []
  readonly told: Told[] = []
  readonly claims: string[] = []
  readonly folder = mkdtempSync(join(tmpdir(), 'agent-'))
  readonly #planned = new Map<string, Planned>()
  readonly #http = createServer((req, res) => void this.#answer(req, res))
  readonly #streams: ServerResponse[] = []
  #agent: Awaited<ReturnType<typeof startAgent>> | undefined

  /** Starts an agent that holds these ports. */
  async open(ports: Readonly<Record<string, Address>>): Promise<void> {
    await new Promise<void>((resolve) => this.#http.listen(0, '127.0.0.1', resolve))
    const { port } = this.#http.address() as AddressInfo
    mkdirSync(join(this.folder, 'runs'), { recursive: true })
    this.#agent = await startAgent({
      server: `http://127.0.0.1:${port}`,
      secret: 's',
      linkSecret: 's',
      computer: undefined,
      ownPorts: join(this.folder, 'own-ports.json'),
      bench: undefined,
      ports: new Map(Object.entries(ports)),
      folder: this.folder,
      glanceMs: 100,
      vaultFolder: mkdtempSync(join(tmpdir(), 'vault-')),
      id: 'agent a',
    })
  }

  async close(): Promise<void> {
    await this.#agent?.stop()
    this.#http.closeAllConnections()
    this.#http.close()
  }

  /** A run that an agent is to claim at a port. */
  want(id: string, port: string, planned: Planned, stop = 0): void {
    this.#planned.set(id, planned)
    this.runs = [{ id, serial: SERIAL, port, wanted: true, stop, answers: {} }]
    this.#news()
  }

  /** A person's stop, by its number. */
  stop(order: number): void {
    this.runs = this.runs.map((run) => ({ ...run, stop: order }))
    this.#news()
  }

  #news(): void {
    for (const stream of this.#streams) stream.write('event: news\ndata: {}\n\n')
  }

  get last(): Report | undefined {
    return this.reports.at(-1)
  }

  async #answer(req: IncomingMessage, res: ServerResponse): Promise<void> {
    const path = (req.url ?? '').split('?')[0]
    const body: unknown = await bodyOf(req)
    if (path === contract.agentEvents.path) {
      this.#streams.push(res.writeHead(200))
      return void res.flushHeaders()
    }
    res.writeHead(200, { 'content-type': 'application/json' })
    res.end(JSON.stringify(this.#say(path ?? '', body)))
  }

  #say(path: string, body: unknown): object {
    switch (path) {
      case contract.agentWork.path:
        return { runs: this.runs, looks: this.looks }
      case contract.agentPorts.path:
        this.told.push((body as BodyOf<Contract['agentPorts']>).ports)
        return { ports: this.named }
      case contract.agentClaim.path: {
        const { run } = body as { run: string }
        this.claims.push(run)
        this.runs = this.runs.map((one) => ({ ...one, wanted: false }))
        const { commands = [], journal = [], epoch = 5 } = this.#planned.get(run) ?? {}
        const asked = this.runs[0]?.stop ?? 0
        const stop = { asked, met: 0 }
        return { epoch, commands, journal, places: [], leads: [], shown: null, stop }
      }
      case contract.agentReport.path:
        this.reports.push(body as Report)
        return { journal: 0 }
      case contract.agentRenew.path:
        return { held: [] }
      default:
        return {}
    }
  }
}

export const SERIAL = 'TRN4490077F31'

async function bodyOf(req: IncomingMessage): Promise<unknown> {
  let text = ''
  for await (const part of req) text += String(part)
  return text === '' ? undefined : JSON.parse(text)
}

/** Waits until something is so. */
export async function until(what: string, is: () => boolean): Promise<void> {
  const late = Date.now() + 15_000
  while (!is()) {
    if (Date.now() > late) throw new Error(`never: ${what}`)
    await new Promise((resolve) => setTimeout(resolve, 10))
  }
}
