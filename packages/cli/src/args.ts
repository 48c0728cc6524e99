/** Command lines: what follows a command, read by Node's own reader, with the house's sentences. */
import { parseArgs } from 'node:util'
import { INTENTS } from '@plain-slate/core'
import type { Intent } from '@plain-slate/core'
import { Cannot } from './server.ts'
import { say } from './outcome.ts'

export type Args = {
  readonly files: readonly string[]
  readonly data: string
  /** An option that may be left out. */
  readonly option: (name: string) => string | undefined
  /** An option that must be there. Throws Cannot. */
  readonly needed: (name: string) => string
  readonly flag: (name: string) => boolean
}

/** Reads what follows a command; `names` take a value, `flags` none. Throws Cannot. */
export function readArgs(
  args: readonly string[],
  names: readonly string[] = [],
  flags: readonly string[] = [],
): Args {
  const options = Object.fromEntries([
    ...['data', ...names].map((name) => [name, { type: 'string' }] as const),
    ...flags.map((name) => [name, { type: 'boolean' }] as const),
  ])
  try {
    const read = parseArgs({ args: [...args], options, allowPositionals: true })
    const values: Readonly<Record<string, unknown>> = read.values
    const option = (name: string) => {
      const value = values[name]
      return typeof value === 'string' ? value : undefined
    }
    return {
      files: read.positionals,
      data: option('data') ?? 'data',
      option,
      needed: (name) => option(name) ?? missing(name),
      flag: (name) => values[name] === true,
    }
  } catch (error) {
    if (error instanceof Cannot) throw error
    throw new Cannot(`${(error as Error).message}\n\n${say('cli.usage')}`)
  }
}

function missing(name: string): never {
  throw new Cannot(`${say('cli.needs', { name })}\n\n${say('cli.usage')}`)
}

/** What is wanted of a device, as fit, plan, rehearse and run share it. */
export const WANTED = ['port', 'package', 'intent'] as const
export const WANTED_FLAGS = ['data-may-go'] as const

export function wantedOf(args: Args): { readonly intent: Intent; readonly keepData: boolean } {
  const asked = args.option('intent') ?? 'update'
  const intent = INTENTS.find((one) => one === asked)
  if (intent === undefined)
    throw new Cannot(say('cli.no-intent', { asked, intents: INTENTS.join(', ') }))
  return { intent, keepData: !args.flag('data-may-go') }
}
