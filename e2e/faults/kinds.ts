/** Every way in which a shop is hurt here. Each acts on a run under way, and answers when it is healed. */
import type { ApiError, RunShown } from '@plain-slate/api'
import type { Dice } from './dice.ts'
import type { FaultShop } from './fault-shop.ts'

type At = { readonly shop: FaultShop; readonly run: RunShown; readonly dice: Dice }
export type Kind = { readonly name: string; readonly hurt: (at: At) => Promise<unknown> }

const MIB = 1024 * 1024
const STOP_MS = [200, 2500] as const

/** A loader that is whole and proven: taking the cell out cannot kill it any more. */
const isPastLoader = ({ parts }: RunShown): boolean =>
  parts.some(({ partition, readBack }) => partition === 'loader' && readBack)

const killed = (name: 'server' | 'agent a' | 'stand-ins'): Kind => ({
  name: `${name} killed`,
  hurt: ({ shop }) => shop.killed(name),
})
const stopped = (name: 'server' | 'agent a' | 'stand-ins'): Kind => ({
  name: `${name} stopped and continued`,
  hurt: ({ shop, dice }) => shop.stopped(name, dice.whole(...STOP_MS)),
})

export const KINDS: readonly Kind[] = [
  killed('server'),
  killed('agent a'),
  killed('stand-ins'),
  stopped('server'),
  stopped('agent a'),
  stopped('stand-ins'),
  { name: 'database away', hurt: ({ shop, dice }) => shop.databaseAway(dice.whole(100, 1500)) },
  { name: 'cable pulled', hurt: ({ shop, dice }) => shop.cut('cable', dice.whole(0, MIB)) },
  {
    name: 'battery out',
    hurt: ({ shop, run, dice }) =>
      shop.cut(isPastLoader(run) ? 'battery' : 'cable', dice.whole(0, MIB)),
  },
  { name: 'stream broken', hurt: ({ shop, dice }) => shop.cut('computer', dice.whole(0, MIB)) },
  {
    name: 'disk full under the journal',
    hurt: ({ shop, run, dice }) => shop.diskFull(run.id, dice.whole(0, 60), dice.whole(300, 1500)),
  },
  { name: 'journal torn', hurt: ({ shop, run }) => shop.tornJournal(run.id) },
  { name: 'journal with an entry astray', hurt: ({ shop, run }) => shop.entryAstray(run.id) },
  { name: 'words of people at once', hurt: atOnce },
  { name: 'stop', hurt: stopAndSee },
]

/** Three take-ups, two stops and a put-away in one moment: whatever comes first, they do not contradict. */
async function atOnce({ shop, run }: At): Promise<void> {
  const words = ['take-up', 'stop', 'take-up', 'put-away', 'stop', 'take-up']
  await Promise.all(words.map((word) => shop.ask('POST', `/api/runs/${run.id}/${word}`)))
  await atRest(shop, run.id)
}

/** As much of a run as tells why it goes on. */
function standing(run: Awaited<ReturnType<FaultShop['run']>>): string {
  if (run === undefined || !('state' in run)) return JSON.stringify(run)
  const { state, word, step, steps, stop, ownerless, asked, waiting, battery } = run
  const { kind } = steps[step - 1] ?? { kind: '' }
  return JSON.stringify({ state, word, step, kind, stop, ownerless, asked, waiting, battery })
}

async function stopAndSee({ shop, run }: At): Promise<void> {
  const late = Date.now() + 60_000
  /* A word that nobody acknowledged was not given: it is said again, as who presses would. */
  let said = await shop.ask<RunShown | ApiError>('POST', `/api/runs/${run.id}/stop`)
  for (;;) {
    const now = await shop.run(run.id)
    if (now !== undefined && 'state' in now && now.state !== 'running') break
    const answer = JSON.stringify(said !== undefined && 'code' in said ? said.code : 'heard')
    if (Date.now() > late) throw new Error(`a stop was never met (${answer}): ${standing(now)}`)
    if (said === undefined || 'code' in said)
      said = await shop.ask<RunShown | ApiError>('POST', `/api/runs/${run.id}/stop`)
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  await atRest(shop, run.id)
}

/** What says that it is stopped writes nothing any more: its journal stands still. */
async function atRest(shop: FaultShop, id: string): Promise<void> {
  const shown = await shop.run(id)
  if (shown === undefined || !('state' in shown) || shown.state !== 'stopped') return
  const before = shop.journalOf(id).length
  await new Promise((resolve) => setTimeout(resolve, 300))
  const after = shop.journalOf(id).length
  if (after !== before) throw new Error(`stopped at ${before} entries, and wrote ${after}`)
}
