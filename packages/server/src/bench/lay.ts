/**
 * Laying out a bench: ports and cables that the house names and strikes out. Agents are told by the news of the bench and
 * hold what is theirs from then on. An address on a page is this machine's own: the link's secret goes there.
 */
import type { Actor, Result } from '@plain-slate/core'
import { isOwnAddress, ok, readTcpAddress, refuse } from '@plain-slate/core'
import { enter } from '../book/append.ts'
import type { Refusal } from '../base/refusal.ts'
import type { Workshop } from '../base/workshop.ts'
import { addCable, addPort, hangRuns, moveCable, strikeCable, strikePort } from '../tables/bench.ts'
import type { Transaction } from '../tables/database.ts'
import { listComputers } from '../tables/devices.ts'
import { tell } from '../tables/news.ts'

type By = Actor
type Done = Promise<Result<undefined, Refusal>>

type NewPort = {
  readonly name: string
  readonly address: string
  readonly note: string
  readonly agent?: string
}

/** Names a port for the agent that is said, or for the only one that lives. */
export async function layPort(workshop: Workshop, port: NewPort, by: By): Done {
  const { name, note, address } = port
  const read = readTcpAddress(address)
  if (read === undefined || !isOwnAddress(read))
    return refuse({ code: 'port.address', facts: { address } })
  const agents = (await listComputers(workshop.db)).map((one) => one.agent)
  const only = agents.length === 1 ? agents[0] : undefined
  const agent = agents.find((one) => one === port.agent) ?? only
  if (agent === undefined) return refuse({ code: 'port.which-bench', facts: { n: agents.length } })
  return laid(workshop, by, async (trx, entered) => {
    if ((await addPort(trx, { name, note, address, agent })) === 'there')
      return refuse({ code: 'port.there', facts: { port: name } })
    await entered('port.added', { port: name, address })
    return ok(undefined)
  })
}

export const takePortOut = (workshop: Workshop, port: string, by: By): Done =>
  laid(workshop, by, async (trx, entered) => {
    const done = await strikePort(trx, port)
    if (done === 'unknown') return refuse({ code: 'port.unknown', facts: { port } })
    if (done !== 'struck') return refuse({ code: `port.${done}`, facts: { port } })
    await hangRuns(trx)
    await entered('port.struck', { port })
    return ok(undefined)
  })

type NewCable = { readonly name: string; readonly port: string | null; readonly note: string }

export const layCable = (workshop: Workshop, cable: NewCable, by: By): Done =>
  laid(workshop, by, async (trx, entered) => {
    const { name, port, note } = cable
    const added = await addCable(trx, { name, note })
    if (added !== 'added') return refuse({ code: `cable.${added}`, facts: { cable: name } })
    if ((await moveCable(trx, name, port)) === undefined)
      return refuse({ code: 'port.unknown', facts: { port: port ?? '' } })
    await hangRuns(trx)
    await entered('cable.added', { cable: name, to: port ?? '' })
    return ok(undefined)
  })

export const takeCableOut = (workshop: Workshop, cable: string, by: By): Done =>
  laid(workshop, by, async (trx, entered) => {
    const done = await strikeCable(trx, cable)
    if (done === 'unknown') return refuse({ code: 'port.unknown', facts: { port: cable } })
    if (done === 'held') return refuse({ code: 'cable.held', facts: { cable } })
    await entered('cable.struck', { cable })
    return ok(undefined)
  })

type Entered = (
  act: 'port.added' | 'port.struck' | 'cable.added' | 'cable.struck',
  facts: Readonly<Record<string, string>>,
) => Promise<void>

/** One act in one transaction, entered and told; a refusal leaves nothing behind. */
async function laid(
  workshop: Workshop,
  by: By,
  act: (trx: Transaction, entered: Entered) => Done,
): Done {
  const outcome = { refused: undefined as Refusal | undefined }
  await workshop.db
    .transaction(async (trx) => {
      const done = await act(trx, async (name, facts) => {
        await enter(workshop, trx, { by: by.id, act: name, facts })
        await tell(trx, 'bench', 'laid', 1)
      })
      if (done.ok) return
      outcome.refused = done.refusal
      throw new Undone()
    })
    .catch((error: unknown) => {
      if (!(error instanceof Undone)) throw error
    })
  return outcome.refused === undefined ? ok(undefined) : refuse(outcome.refused)
}
class Undone extends Error {}
