/** `say --slip N TOPIC=ANSWER …`: says lines of a slip at the shell, where nobody is signed in. */
import type { Args } from './args.ts'
import { readArgs } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say as words } from './outcome.ts'
import { Cannot, serverOf } from './server.ts'

type Said = { readonly topic: string; readonly answer: string }

export async function say(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, ['slip'])
  const params = { number: read.needed('slip') }
  const lines = linesOf(read)
  await serverOf(read.data).call('jobLines', { params, body: { lines: [...lines] } })
  const text = lines.map((line) => words('cli.say.line', line)).join('\n')
  return { code: 0, text, json: { slip: params.number, lines } }
}

function linesOf({ files }: Args): readonly Said[] {
  if (files.length === 0) throw new Cannot(words('cli.usage'))
  return files.map((line) => {
    const [topic = '', ...answer] = line.split('=')
    if (topic === '' || answer.length === 0) throw new Cannot(words('cli.say.needs', { line }))
    return { topic, answer: answer.join('=') }
  })
}
