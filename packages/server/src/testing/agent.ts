/** An agent as tests play it: what it says of a port, under the bench secret. */
import { demoPersonAt } from '@plain-slate/demo'
import type { BenchComputer, DeviceFacts } from '@plain-slate/core'

/** What the demo's lead device says of itself in its loader. */
export const LEAD_FACTS: DeviceFacts = {
  model: 'BRAK-H2K',
  board: 'r4',
  chipset: 'Slate 2',
  storageGb: 32,
  region: 'HI',
  carrier: 'O',
  serial: 'TRN4490077F31',
  mode: 'loader',
  build: 'H2.0ZC.r4',
  release: 4,
  patchDate: '2026-06-01',
  loaderVersion: 6,
  floor: 5,
  bootLock: 'closed',
  batteryPercent: 71,
  outcome: 'normal',
  returns: 0,
  scale: 256,
}
export const BENCH_SECRET = { authorization: 'Bearer bench-secret' } as const

type Headed = Readonly<Record<string, string>>
const known = new Map<string, Promise<Headed>>()

/** The header by which the lead acts at the shell of a shop; asked for once a shop. */
export function atShell(address: string): Promise<Headed> {
  const headers = known.get(address) ?? demoPersonAt(address, 'bench-secret', 'Ilse')
  known.set(address, headers)
  return headers
}

/** What an agent asks is asked under the secret; everything else by the lead, at the shell. */
export const headersTo = async (address: string, path: string): Promise<Headed> =>
  path.startsWith('/api/agent') ? BENCH_SECRET : atShell(address)

/** Says what answers at a port: the lead device but for what is named, or nothing; and what its computer tells. */
export async function agentSees(
  address: string,
  port: string,
  facts: Partial<DeviceFacts> | null,
  computer: BenchComputer | null = null,
): Promise<void> {
  const told = facts === null ? null : { ...LEAD_FACTS, ...facts }
  const response = await fetch(`${address}/api/agent/ports`, {
    method: 'POST',
    headers: { ...BENCH_SECRET, 'content-type': 'application/json' },
    body: JSON.stringify({
      agent: 'agent a',
      ports: [{ name: port, facts: told, odd: null }],
      computer,
    }),
  })
  if (!response.ok) throw new Error(await response.text())
}

type Found = { readonly digests?: object[]; readonly tally?: object }
type Work = { readonly looks: { readonly id: string; readonly port: string }[] }

/** The agent's part of a look: takes what is wanted and answers what it found; answers the port. */
export async function answerLook(
  address: string,
  facts: Partial<DeviceFacts> | null,
  { digests = [], tally }: Found = {},
): Promise<string> {
  const headers = { ...BENCH_SECRET, 'content-type': 'application/json' }
  for (;;) {
    const response = await fetch(`${address}/api/agent/work`, { headers })
    const [look] = ((await response.json()) as Work).looks
    if (look === undefined) continue
    const told = facts === null ? null : { ...LEAD_FACTS, ...facts }
    const met = told === null ? [] : [told]
    const found = { facts: told, met, table: null, tally: tally ?? null, digests }
    const body = JSON.stringify({ id: look.id, found })
    await fetch(`${address}/api/agent/look`, { method: 'POST', headers, body })
    return look.port
  }
}
