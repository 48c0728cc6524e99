/** What the start command understands. */
import { resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { ROOT } from '../bootstrap.mjs'
import { CannotGoOn } from '../machine/debian.ts'

export type StartOptions = {
  /** Undefined: the usual port, or the next free one. */
  readonly port: number | undefined
  readonly dataFolder: string
  readonly empty: boolean
  /** A data folder that was copied becomes a shop of its own, beside its original. */
  readonly asCopy: boolean
  /** How much faster simulated devices live; 0: as fast as bytes go. */
  readonly pace: number
  /** Benches of the demo: one agent, computer and row of ports each. */
  readonly benches: 1 | 2
  /** A database of one's own instead of the private cluster. */
  readonly databaseUrl: string | undefined
}

export const USUAL_PORT = 4173
/** A demo's devices live this much faster than real ones. */
export const DEMO_PACE = 20

export const HELP = `npm start -- [options]

Starts Plain Slate on 127.0.0.1 and prints its address. The first start makes a private database
and fills it with a demo shop.

  --port N      listen on this port (${USUAL_PORT}, or a free one when that is taken)
  --data DIR    keep everything in this folder (./data)
  --empty       no demo: whoever opens the page first founds the shop and becomes its first lead
  --as-copy     the data folder is a copy: make it a shop of its own, with the runs that were under way in doubt
  --pace N      simulated devices live N times as fast as real ones (${DEMO_PACE}; 0: as fast as bytes go)
  --benches 2   the demo has a second bench, with an agent, a computer and ports of its own
  --help        this text

DATABASE_URL=postgres://… uses a PostgreSQL of your own instead of the private one.
Ctrl-C ends everything in order. Logs lie in the data folder.`

/** Reads the command line; 'help' when that was asked for. Throws CannotGoOn with a sentence. */
export function readOptions(
  args: readonly string[],
  env: NodeJS.ProcessEnv,
): StartOptions | 'help' {
  const values = parse(args)
  if (values.help === true) return 'help'
  const port = values.port === undefined ? undefined : Number(values.port)
  if (port !== undefined && !(Number.isInteger(port) && port >= 1 && port <= 65535))
    throw new CannotGoOn(`--port takes a number from 1 to 65535, not “${values.port ?? ''}”.`)
  const pace = values.pace === undefined ? DEMO_PACE : Number(values.pace)
  if (!(pace >= 0 && pace <= 1000))
    throw new CannotGoOn(`--pace takes a number from 0 to 1000, not “${values.pace ?? ''}”.`)
  const benches = Number(values.benches ?? 1)
  if (benches !== 1 && benches !== 2)
    throw new CannotGoOn(`--benches takes 1 or 2, not “${values.benches ?? ''}”.`)
  return {
    port,
    benches,
    dataFolder: resolve(ROOT, values.data ?? 'data'),
    empty: values.empty === true,
    asCopy: values['as-copy'] === true,
    pace,
    databaseUrl: env['DATABASE_URL'],
  }
}

function parse(args: readonly string[]) {
  try {
    return parseArgs({
      args: [...args],
      options: {
        port: { type: 'string' },
        data: { type: 'string' },
        empty: { type: 'boolean' },
        'as-copy': { type: 'boolean' },
        pace: { type: 'string' },
        benches: { type: 'string' },
        help: { type: 'boolean' },
      },
    }).values
  } catch (error) {
    const why = error instanceof Error ? error.message.split('. ')[0] : ''
    throw new CannotGoOn(`${why ?? ''}. See npm start -- --help`)
  }
}
