/** Command lines: what follows a command, read by Node's own reader, with the house's sentences. */
import { readFile } from 'node:fs/promises'
import { parseArgs } from 'node:util'
import type { Intent } from '@plain-slate/core'
import { INTENTS, readingsFileSchema } from '@plain-slate/core'
import { ZodError } from 'zod'
import { Cannot } from './cannot.ts'
import { say } from './outcome.ts'

type ReadingsFile = ReturnType<typeof readingsFileSchema.parse>

export type Args = {
  readonly files: readonly string[]
  readonly data: string
  /** Whose name acts are under; undefined: nobody's, or that of the token in the environment. */
  readonly as: string | undefined
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
    ...['data', 'as', ...names].map((name) => [name, { type: 'string' }] as const),
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
      as: option('as'),
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

/** Of which device, and what is wanted of it, as fit, routes, why, plan, rehearse and run share it. */
export const WANTED = ['port', 'slip', 'readings', 'package', 'intent'] as const
export const WANTED_FLAGS = ['data-may-go', 'cuts'] as const

export function wantedOf(args: Args): { readonly intent: Intent; readonly keepData: boolean } {
  const asked = args.option('intent') ?? 'update'
  const intent = INTENTS.find((one) => one === asked)
  if (intent === undefined)
    throw new Cannot(say('cli.no-intent', { asked, intents: INTENTS.join(', ') }))
  return { intent, keepData: !args.flag('data-may-go') }
}

type Device =
  | { readonly slip: string }
  | { readonly port: string }
  | { readonly readings: ReadingsFile['readings'] }

/** The one device that is named: of a slip, in a file of readings, at a port. Throws Cannot. */
export async function deviceOf(args: Args): Promise<Device> {
  const slip = args.option('slip')
  if (slip !== undefined) return { slip }
  const file = args.option('readings')
  return file === undefined ? { port: args.needed('port') } : { readings: await readingsIn(file) }
}

async function readingsIn(file: string): Promise<ReadingsFile['readings']> {
  const text = await readFile(file, 'utf8').catch(() => {
    throw new Cannot(say('cli.no-file', { file }))
  })
  try {
    return readingsFileSchema.parse(JSON.parse(text)).readings
  } catch (error) {
    const what = error instanceof ZodError ? problemOf(error) : (error as Error).message
    throw new Cannot(say('cli.readings', { file, what }))
  }
}

/** The first thing that is wrong, and where. */
function problemOf({ issues: [issue] }: ZodError): string {
  return issue === undefined ? '' : `${issue.path.join('.')}: ${issue.message}`
}
