/** The shell tool: finds the command, runs it, answers the exit code. */
import { cable, port } from './bench.ts'
import { bookVerify } from './book-verify.ts'
import { catalogue } from './catalogue.ts'
import { fit } from './fit.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { hands } from './hands.ts'
import { permit } from './permit.ts'
import { plan, rehearse } from './plan.ts'
import { prove } from './prove.ts'
import { read } from './read.ts'
import { routes, why } from './routes.ts'
import { run } from './run.ts'
import { say as sayOf } from './say.ts'
import { Cannot, cannot } from './cannot.ts'
import { shelve } from './shelve.ts'

type Command = (args: readonly string[]) => Promise<Outcome>

const COMMANDS: Readonly<Record<string, Command>> = {
  'book verify': bookVerify,
  shelve,
  catalogue,
  prove,
  fit,
  routes,
  why,
  plan,
  rehearse,
  read,
  run,
  say: sayOf,
  permit,
  port,
  cable,
  hands,
}
/** The longest name that the words begin with. */
function commandIn(words: readonly string[]) {
  for (const length of [2, 1]) {
    const command = COMMANDS[words.slice(0, length).join(' ')]
    if (command !== undefined) return { command, args: words.slice(length) }
  }
  return undefined
}

/** Runs a command line; `--json` prints one JSON object instead of a sentence. */
export async function main(args: readonly string[]): Promise<number> {
  /* What follows `--` is a command of somebody else's. */
  const end = args.includes('--') ? args.indexOf('--') : args.length
  const asJson = args.slice(0, end).includes('--json')
  const rest = args.filter((arg, at) => at > end || arg !== '--json')
  const found = commandIn(rest)
  if (found === undefined) {
    console.error(say('cli.usage'))
    return 2
  }
  const { code, text, json } = await found.command(found.args).catch((error: unknown) => {
    if (error instanceof Cannot) return cannot(error.message)
    throw error
  })
  if (asJson) console.log(JSON.stringify(json))
  else if (code === 0) console.log(text)
  else console.error(text)
  return code
}
