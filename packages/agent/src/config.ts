/** What the agent is told from outside: where the server is, which ports it holds, where bytes lie. */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { randomUUID } from 'node:crypto'
import { dirname, join, resolve } from 'node:path'
import type { Result } from '@plain-slate/core'
import { ok, readTcpAddress, refuse } from '@plain-slate/core'
import type { Address } from '@plain-slate/link'
import { z } from 'zod'

const portsSchema = z.record(
  z.string(),
  z.union([
    z.object({ address: z.string() }),
    z.object({ command: z.tuple([z.string()], z.string()) }),
  ]),
)

/** Ports that somebody at this machine names beside those of the bench file, which a start may write anew. */
export const ownPortsSchema = z.object({
  format: z.literal('plain-slate/own-ports@1'),
  ports: portsSchema,
})

/**
 * The bench file: each port's address, or the command whose pipes are the device's stream. It stands on
 * this machine only and is never written through the API.
 */
export const benchFileSchema = z.object({
  format: z.literal('plain-slate/bench@1'),
  ports: portsSchema,
  /** What this bench is called, where a shop has more than one. */
  bench: z.exactOptional(z.string().min(1).max(24)),
  /** The file in which a probe of this machine keeps what it sees; a name without a folder is beside this file. */
  computer: z.exactOptional(z.string().min(1)),
})

const environment = z.object({
  PLAIN_SLATE_SERVER: z.url(),
  PLAIN_SLATE_BENCH_SECRET: z.string(),
  PLAIN_SLATE_LINK_SECRET: z.string(),
  PLAIN_SLATE_BENCH: z.string(),
  PLAIN_SLATE_OWN_PORTS: z.string().default(''),
  PLAIN_SLATE_AGENT_FOLDER: z.string(),
  PLAIN_SLATE_VAULT: z.string(),
  PLAIN_SLATE_GLANCE_MS: z.coerce.number().int().min(20).default(700),
})

/** What an agent works with. Secrets are texts here; the files they came from are 0600. */
export type AgentConfig = {
  readonly server: string
  readonly secret: string
  readonly linkSecret: string
  readonly ports: ReadonlyMap<string, Address>
  /** The file of ports that somebody at this machine names; undefined: there is none. */
  readonly ownPorts: string | undefined
  /** Where a probe of this machine keeps what it sees; undefined: there is none. */
  readonly computer: string | undefined
  /** What this bench is called, where a shop has more than one. */
  readonly bench: string | undefined
  readonly folder: string
  /** Between two glances at a port, and between two looks whether what is seen has changed, in ms. */
  readonly glanceMs: number
  readonly vaultFolder: string
  readonly id: string
}

/** Reads the environment and the files it names; a refusal is a sentence. */
export function readConfig(env: NodeJS.ProcessEnv): Result<AgentConfig, string> {
  const parsed = environment.safeParse(env)
  if (!parsed.success) return refuse(z.prettifyError(parsed.error))
  const given = parsed.data
  const file = benchFileSchema.parse(JSON.parse(readFileSync(given.PLAIN_SLATE_BENCH, 'utf8')))
  const ports = addressesOf(file.ports)
  if (!ports.ok) return refuse(`The bench file names no address for ${ports.refusal}.`)
  const folder = given.PLAIN_SLATE_AGENT_FOLDER
  mkdirSync(join(folder, 'runs'), { recursive: true })
  return ok({
    server: given.PLAIN_SLATE_SERVER,
    secret: readFileSync(given.PLAIN_SLATE_BENCH_SECRET, 'utf8').trim(),
    linkSecret: readFileSync(given.PLAIN_SLATE_LINK_SECRET, 'utf8').trim(),
    ports: ports.value,
    ownPorts: given.PLAIN_SLATE_OWN_PORTS === '' ? undefined : given.PLAIN_SLATE_OWN_PORTS,
    bench: file.bench,
    computer:
      file.computer === undefined
        ? undefined
        : resolve(dirname(given.PLAIN_SLATE_BENCH), file.computer),
    folder,
    vaultFolder: given.PLAIN_SLATE_VAULT,
    glanceMs: given.PLAIN_SLATE_GLANCE_MS,
    id: idIn(folder),
  })
}

/** Where each port's device is; the refusal is the name of the one whose address cannot be read. */
function addressesOf(
  named: z.infer<typeof portsSchema>,
): Result<ReadonlyMap<string, Address>, string> {
  const ports = new Map<string, Address>()
  for (const [name, port] of Object.entries(named)) {
    const address: Address | undefined =
      'command' in port ? { kind: 'command', argv: port.command } : readTcpAddress(port.address)
    if (address === undefined) return refuse(name)
    ports.set(name, address)
  }
  return ok(ports)
}

/** The ports that somebody at this machine names; a refusal is a sentence. */
export function readOwnPorts(file: string): Result<ReadonlyMap<string, Address>, string> {
  if (!existsSync(file)) return ok(new Map())
  try {
    const read = ownPortsSchema.parse(JSON.parse(readFileSync(file, 'utf8')))
    const ports = addressesOf(read.ports)
    return ports.ok ? ports : refuse(`${file} names no address for ${ports.refusal}`)
  } catch (error) {
    return refuse(`${file} cannot be read: ${error instanceof Error ? error.message : ''}`)
  }
}

/** This agent's name, kept in its folder. One that was emptied or damaged is made anew, and that is said. */
function idIn(folder: string): string {
  const path = join(folder, 'id')
  const kept = existsSync(path) ? readFileSync(path, 'utf8').trim() : undefined
  if (z.uuid().safeParse(kept).success) return String(kept)
  if (kept !== undefined) console.error(`${path} held no name of an agent: it has a new one`)
  const id = randomUUID()
  writeFileSync(path, `${id}\n`, { mode: 0o600 })
  return id
}
