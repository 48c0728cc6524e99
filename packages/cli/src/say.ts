/** `say --slip N TOPIC=ANSWER …`: says lines of a slip at the shell; `--list` tells what may be said of it. */
import type { AnswerOf, Contract } from '@plain-slate/api'
import { STAGES } from '@plain-slate/core'
import { isCode, sayAny } from '@plain-slate/texts'
import type { Args } from './args.ts'
import { readArgs } from './args.ts'
import { Cannot } from './cannot.ts'
import type { Outcome } from './outcome.ts'
import { say as words } from './outcome.ts'
import { serverOf } from './server.ts'

type Said = { readonly topic: string; readonly answer: string }
type Sayable = AnswerOf<Contract['jobSayable']>[number]

export async function say(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, ['slip'], ['list'])
  const params = { number: read.needed('slip') }
  const server = serverOf(read)
  if (read.flag('list')) return listed(read, await server.call('jobSayable', { params }))
  const lines = linesOf(read)
  await server.call('jobLines', { params, body: { lines: [...lines] } })
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

/** Everything, or what one stage asks. */
function listed(read: Args, all: readonly Sayable[]): Outcome {
  const [stage] = read.files
  const topics = stage === undefined ? all : all.filter((one) => one.stage === stage)
  if (topics.length === 0)
    throw new Cannot(words('cli.say.none', { stage: stage ?? '', stages: STAGES.join(', ') }))
  const number = read.needed('slip')
  return {
    code: 0,
    text: topics.map((one) => topicLine(number, one)).join('\n'),
    json: { slip: number, topics },
  }
}

function topicLine(number: string, { topic, name, stands, ...one }: Sayable): string {
  const code = `topic.${topic}`
  const what = isCode(code) ? sayAny('en-GB', code, { what: name ?? '' }) : (name ?? '')
  const answers = [
    ...one.answers,
    ...(one.day ? [words('cli.say.day')] : []),
    ...(one.listedBy === null ? [] : [words('cli.say.listed', { number })]),
  ]
  return words('cli.say.one', {
    topic,
    what,
    answers: answers.length === 0 ? words('cli.say.text') : answers.join(' | '),
    stands: stands === null ? '' : words('cli.say.stands', { answer: stands.answer }),
  })
}
