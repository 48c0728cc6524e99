/** The bench as it is: what answers at each port, which run holds it, what each cable went through. */
import type { Bench, Port } from '@plain-slate/api'
import type { Family } from '@plain-slate/core'
import { ledgeWord, stepAt } from '@plain-slate/core'
import { computerShown } from './computers.ts'
import type { Workshop } from '../base/workshop.ts'
import { runRowOf } from '../runs/show.ts'
import type { PortRow } from '../tables/bench.ts'
import { listCables, listPorts } from '../tables/bench.ts'
import type { Sight } from '../tables/devices.ts'
import { listComputers, listSights } from '../tables/devices.ts'
import type { RunRow } from '../tables/runs.ts'
import { slipsBySerial } from '../tables/job.ts'
import { listRuns } from '../tables/runs.ts'
import { newestLooks } from '../tables/looks.ts'
import { lookShown } from '../devices/looks.ts'
import { kindSeen, seenOf } from '../devices/seen.ts'

/** Six small reads side by side, joined by the port's name: what one of them lacks leaves the others whole. */
export async function showBench({ db, families, config }: Workshop): Promise<Bench> {
  const [ports, cables, sights, runs, computers, slips, looks] = await Promise.all([
    listPorts(db),
    listCables(db),
    listSights(db),
    listRuns(db, 'at-ports'),
    listComputers(db),
    slipsBySerial(db),
    newestLooks(db),
  ])
  const at = <One extends { readonly port: string }>(list: readonly One[], port: string) =>
    list.find((one) => one.port === port)
  return {
    ports: ports.map((port) => {
      const run = at(runs, port.name)
      const sight = at(sights, port.name)
      const slip = slips.get(run?.serial ?? sight?.facts?.serial ?? '') ?? null
      const look = at(looks, port.name)
      return {
        ...portOf(families, { port, sight, run }),
        bench: computers.find((one) => one.ports.includes(port.name))?.computer?.bench ?? null,
        slip,
        look: look === undefined ? null : lookShown(look),
      }
    }),
    cables,
    watched: computers.length > 0,
    computers: computers.map((one) => computerShown(families, one)),
    simulated: config.standIns !== undefined,
  }
}

type AtPort = {
  readonly port: PortRow
  readonly sight: Sight | undefined
  readonly run: RunRow | undefined
}

/** A run that holds the port has the word; without one it is the mode of what is seen there. */
function portOf(families: readonly Family[], here: AtPort): Omit<Port, 'slip' | 'look' | 'bench'> {
  const { address, ...port } = here.port
  const { sight, run } = here
  const facts = sight?.facts ?? undefined
  const row = run === undefined ? undefined : runRowOf(families, run)
  const seen = facts === undefined ? null : seenOf(families, facts)
  return {
    ...port,
    way: (sight?.way ?? '') === '' ? address : (sight?.way ?? null),
    ours: address !== null,
    word:
      row?.word ??
      ledgeWord({ run: undefined, seen: kindSeen(seen), odd: typeof sight?.odd === 'string' }),
    seen,
    odd: sight?.odd ?? null,
    run: run === undefined || row === undefined ? null : { ...rowOnPort(run), title: row.title },
  }
}

/** Share done of the step under way: by bytes where it writes, else by the step's longest usual time. */
function rowOnPort(run: RunRow) {
  const next = run.shown?.next ?? 0
  const step = stepAt(run.steps, next)
  const command = run.commands[next]
  const high = step?.seconds.high ?? 0
  const seconds = run.shown === null ? 0 : (run.shown.at - run.shown.stepAt) / 1000
  const done =
    command?.kind === 'put'
      ? (run.shown?.got ?? 0) / command.size
      : high > 0
        ? Math.min(1, seconds / high)
        : null
  return {
    id: run.id,
    slip: run.slip,
    serial: run.serial,
    done: run.state === 'running' ? done : null,
    say: step?.kind ?? '',
  }
}
