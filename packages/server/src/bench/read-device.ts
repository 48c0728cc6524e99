/** Reading the device at a port: the agent is asked to look, and what it found is kept. */
import { randomUUID } from 'node:crypto'
import type { LookFound } from '@plain-slate/api'
import type { Result } from '@plain-slate/core'
import type { DeviceFacts } from '@plain-slate/core'
import { ok, refuse } from '@plain-slate/core'
import type { House } from '../house.ts'
import type { Refusal } from '../refusal.ts'
import { familyOf } from '../runs/case.ts'
import { provenPackages } from '../shelf/shelf.ts'
import { listPorts } from '../tables/bench.ts'
import {
  anyAgent,
  insertLook,
  listSights,
  putDevice,
  takeEpoch,
  takeLook,
} from '../tables/devices.ts'
import { tell } from '../tables/news.ts'
import { listRuns } from '../tables/runs.ts'

/** A look that finds nothing by then is over; a device digests some GiB in a minute or two. */
const LOOK_MS = 600_000
const AGAIN_MS = 100

export type ReadDone = {
  readonly serial: string
  readonly digests: number
  readonly table: boolean
}

/** A look that found a device. */
export type FoundDevice = LookFound & { readonly facts: DeviceFacts }

/** Looks: its facts anywhere, its table and the digests that packages need in the loader. */
export async function lookAtPort(
  house: House,
  port: string,
  deep: boolean,
): Promise<Result<FoundDevice, Refusal>> {
  const known = (await listPorts(house.db)).some(({ name }) => name === port)
  if (!known) return refuse({ code: 'port.unknown', facts: { port } })
  if (!(await anyAgent(house.db))) return refuse({ code: 'port.no-agent' })
  const busy = (await listRuns(house.db, 'at-ports')).some(
    (run) => run.port === port && (run.state === 'running' || run.state === 'wanted'),
  )
  if (busy) return refuse({ code: 'port.busy', facts: { port } })
  const id = randomUUID()
  const epoch = deep ? await takeEpoch(house.db) : null
  await insertLook(house.db, { id, port, digests: await digestsWanted(house, port), epoch })
  await tell(house.db, 'work', id, 1)
  const found = await waitForLook(house, id)
  if (found === undefined || found.facts === null)
    return refuse({ code: 'port.empty', facts: { port } })
  await putDevice(house.db, found.facts, found, new Date(await house.clock.now()))
  await tell(house.db, 'bench', port, 1)
  return ok({ ...found, facts: found.facts })
}

/** The same, as the Bench tells it. */
export async function readAtPort(house: House, port: string): Promise<Result<ReadDone, Refusal>> {
  const found = await lookAtPort(house, port, false)
  if (!found.ok) return found
  const { facts, digests, table } = found.value
  return ok({ serial: facts.serial, digests: digests.length, table: table !== null })
}

/** The ranges whose digests tell whether an image is there: those of the family's packages. */
async function digestsWanted(house: House, port: string) {
  const sight = (await listSights(house.db)).find((one) => one.port === port)
  const facts = sight?.facts ?? undefined
  const family = facts === undefined ? undefined : familyOf(house.families, facts)
  if (family === undefined) return []
  const packages = (await provenPackages(house.db)).filter(
    ({ manifest }) => manifest.family === family.id,
  )
  const ranges = packages.flatMap(({ manifest }) =>
    manifest.images.map(({ partition, size }) => ({ partition, size })),
  )
  const distinct = new Map(ranges.map((range) => [range.partition, range]))
  return [...distinct.values()]
}

async function waitForLook(house: House, id: string): Promise<LookFound | undefined> {
  const until = Date.now() + LOOK_MS
  while (Date.now() < until) {
    const found = await takeLook(house.db, id)
    if (found !== undefined) return found
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS))
  }
  return undefined
}
