/** The shell tool: finds the command, runs it, answers the exit code. */
import { bookVerify } from './book-verify.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'

type Command = (args: readonly string[]) => Promise<Outcome>

const COMMANDS: Readonly<Record<string, Command>> = { 'book verify': bookVerify }

/** Runs a command line; `--json` prints one JSON object instead of a sentence. */
export async function main(args: readonly string[]): Promise<number> {
  const asJson = args.includes('--json')
  const rest = args.filter((arg) => arg !== '--json')
  const command = COMMANDS[rest.slice(0, 2).join(' ')]
  if (command === undefined) {
    console.error(say('cli.usage'))
    return 2
  }
  const { code, text, json } = await command(rest.slice(2))
  if (asJson) console.log(JSON.stringify(json))
  else if (code === 0) console.log(text)
  else console.error(text)
  return code
}
