/**
 * Looking at the device at a port: asked here, done by the agent, and what was found is kept when the agent
 * says it. Nobody waits in between: a look is a job, and its end is news.
 */
import { randomUUID } from 'node:crypto'
import type { LookFound, LookShown } from '@plain-slate/api'
import type { DeviceFacts, Family, Mode, Result } from '@plain-slate/core'
import { driverOf, familyOf, isHeard, modeName, modeTaking, ok, refuse } from '@plain-slate/core'
import type { Workshop } from '../base/workshop.ts'
import type { Refusal } from '../base/refusal.ts'
import { errorOf } from '../base/refusal.ts'
import { rangesOf } from './digests.ts'
import { listPorts } from '../tables/bench.ts'
import type { Transaction } from '../tables/database.ts'
import { anyAgent, listComputers, listSights, putDevice, takeEpoch } from '../tables/devices.ts'
import type { LookOutcome, LookRow } from '../tables/looks.ts'
import { GIVEN_UP, endLook, giveUpLooks, insertLook, lastLook, lockLook } from '../tables/looks.ts'
import { tell } from '../tables/news.ts'
import { packagesNaming, packagesOf } from '../tables/packages.ts'
import { listRuns } from '../tables/runs.ts'

export type LookAsked = {
  readonly port: string
  readonly slip: string | null
  /** Into a mode that shows more and back, where the device is in another. */
  readonly deep: boolean
  readonly by: string | null
}

/** A look that found a device. */
export type FoundDevice = LookFound & { readonly facts: DeviceFacts }

/** Asks for a look: facts anywhere; where its mode gives them the table too, and the digests that packages need. */
export async function askLook(
  workshop: Workshop,
  asked: LookAsked,
): Promise<Result<LookRow, Refusal>> {
  const { port, deep, ...whose } = asked
  const known = (await listPorts(workshop.db)).some(({ name }) => name === port)
  if (!known) return refuse({ code: 'port.unknown', facts: { port } })
  if (!(await anyAgent(workshop.db))) return refuse({ code: 'port.no-agent' })
  await giveUpOld(workshop)
  const busy = (await listRuns(workshop.db, 'at-ports')).some(
    (run) => run.port === port && (run.state === 'running' || run.state === 'wanted'),
  )
  if (busy) return refuse({ code: 'port.busy', facts: { port } })
  const id = randomUUID()
  const there = await seenThere(workshop, port)
  const family = there?.family
  const into = (deep && family !== undefined ? modeTaking(family, 'table') : undefined) ?? null
  const lacking =
    into === null || family === undefined ? undefined : await notHeard(workshop, port, family, into)
  if (lacking !== undefined) return refuse(lacking)
  const epoch = into === null ? null : await takeEpoch(workshop.db)
  const digests = there === undefined ? [] : await digestsWanted(workshop, there)
  if (!(await insertLook(workshop.db, { id, port, ...whose, digests, into, epoch })))
    return refuse({ code: 'look.under-way', facts: { port } })
  await tell(workshop.db, 'work', id, 1)
  await tellOf(workshop, { port, slip: asked.slip })
  const row = await lastLook(workshop.db, { port })
  return row === undefined ? refuse({ code: 'port.unknown', facts: { port } }) : ok(row)
}

/** A mode into which nothing is led that would not be heard there: its driver is missing, or too old. */
async function notHeard(
  { db }: Workshop,
  port: string,
  family: Family,
  into: Mode,
): Promise<Refusal | undefined> {
  const computers = await listComputers(db)
  const probe = computers.find(({ ports }) => ports.includes(port))?.computer?.probe
  if (probe === undefined || probe === null || isHeard(family, into, probe)) return undefined
  const driver = driverOf(family, into)?.name ?? ''
  return { code: 'look.driver', facts: { port, driver, mode: modeName(family, into) } }
}

/** Keeps what was found for a slip; a refusal is the look's end. */
type KeepFound = (trx: Transaction, found: FoundDevice) => Promise<Refusal | undefined>

/**
 * Ends a look with what its agent found. What belongs to the bench is kept here; `keep` says what else, in
 * the same transaction. One that has ended already changes nothing.
 */
export async function endWith(
  workshop: Workshop,
  id: string,
  found: LookFound,
  keep: (look: LookRow) => KeepFound,
): Promise<void> {
  const ended = await workshop.db.transaction(async (trx) => {
    const look = await lockLook(trx, id)
    if (look === undefined) return undefined
    await endLook(trx, id, await outcomeOf(workshop, trx, look, found, keep(look)))
    return look
  })
  if (ended !== undefined) await tellOf(workshop, ended)
}

async function outcomeOf(
  workshop: Workshop,
  trx: Transaction,
  { port }: LookRow,
  found: LookFound,
  keep: KeepFound,
): Promise<LookOutcome> {
  const { facts } = found
  if (facts === null) return { kind: 'failed', code: 'port.empty', facts: { port } }
  const refused = await keep(trx, { ...found, facts })
  if (refused !== undefined)
    return { kind: 'failed', code: refused.code, facts: refused.facts ?? {} }
  /* What every mode on the way showed, the last word last. */
  const all = Object.assign({}, ...found.met, facts) as DeviceFacts
  await putDevice(trx, all, found, new Date(await workshop.clock.now()))
  const { digests, table } = found
  return { kind: 'found', serial: facts.serial, digests: digests.length, table: table !== null }
}

/** Looks whose agent never came back are ended: asked before anything is shown or begun. */
async function giveUpOld(workshop: Workshop): Promise<void> {
  for (const look of await giveUpLooks(workshop.db)) await tellOf(workshop, look)
}

async function tellOf(
  workshop: Workshop,
  { port, slip }: Pick<LookRow, 'port' | 'slip'>,
): Promise<void> {
  await tell(workshop.db, 'bench', port, 1)
  if (slip !== null) await tell(workshop.db, 'slip', slip, 1)
}

/**
 * A look as a page shows it; why it failed in a sentence. One whose agent never came back is shown as given
 * up, so that another can be asked for.
 */
export function lookShown(row: LookRow): LookShown {
  const { id, port, epoch, at } = row
  const { old = false } = row
  const outcome = row.outcome ?? (old ? GIVEN_UP : null)
  const plain = { id, port, deep: epoch !== null, at }
  if (outcome === null) return { ...plain, state: 'looking', found: null, trouble: null }
  if (outcome.kind === 'found') {
    const { serial, digests, table } = outcome
    return { ...plain, state: 'found', found: { serial, digests, table }, trouble: null }
  }
  const trouble = errorOf({ code: outcome.code, facts: outcome.facts }, id, 'en-GB')
  return { ...plain, state: 'failed', found: null, trouble }
}

type There = { readonly family: Family; readonly model: string }

/** The family and model of the device that answers at a port; undefined: nobody does, or it is nobody's. */
async function seenThere(workshop: Workshop, port: string): Promise<There | undefined> {
  const sight = (await listSights(workshop.db)).find((one) => one.port === port)
  const facts = sight?.facts ?? undefined
  const family = facts === undefined ? undefined : familyOf(workshop.families, facts)
  return facts === undefined || family === undefined ? undefined : { family, model: facts.model }
}

/** Packages whose images a look asks for; past that a digest is too much to wait for. */
const LOOKED_FOR_MOST = 500

/** The ranges whose digests tell whether an image is there: of what names its model, or of its family where none does. */
async function digestsWanted({ db }: Workshop, { family: itsFamily, model }: There) {
  const { id: family } = itsFamily
  const most = LOOKED_FOR_MOST
  const naming = await packagesNaming(db, { family, models: [model], most })
  const packages = naming.length > 0 ? naming : await packagesOf(db, family, most)
  return rangesOf(
    itsFamily,
    packages.map(({ manifest }) => manifest),
  )
}
