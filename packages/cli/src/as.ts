/**
 * Under whose name the shell acts: of `--as NAME`, whose PIN is asked for where it is typed or stands in
 * PLAIN_SLATE_PIN, or of a token that somebody made on House, in PLAIN_SLATE_TOKEN. Without either it reads, and does
 * nothing that stands in the book.
 */
import { createInterface } from 'node:readline/promises'
import { Writable } from 'node:stream'
import type { Face } from '@plain-slate/api'
import { say } from './outcome.ts'
import type { Server } from './asks.ts'
import { Cannot } from './cannot.ts'

const TOKEN = 'PLAIN_SLATE_TOKEN'
const PIN = 'PLAIN_SLATE_PIN'

/** What the tool shows as it asks: the person's token, or the secret of the data folder. Throws Cannot. */
export async function shownAs(
  as: string | undefined,
  secret: string,
  under: (shown: string) => Server,
): Promise<string> {
  const token = process.env[TOKEN]
  if (token !== undefined && token !== '') return tokenOf(as, token, under(token))
  if (as === undefined) return secret
  const server = under(secret)
  const person = personNamed(as, await server.call('faces'))
  const pin = process.env[PIN] ?? (await typedPin(person.name))
  const body = { person: person.id, pin }
  return (await server.call('sessionShell', { body })).token
}

/** A token is its person's, whoever else is named. */
async function tokenOf(as: string | undefined, token: string, server: Server): Promise<string> {
  const { person } = await server.call('sessionShow')
  if (person === null) throw new Cannot(say('cli.as.token', { variable: TOKEN }))
  if (as !== undefined && !isNamed(person, as))
    throw new Cannot(say('cli.as.other', { variable: TOKEN, name: person.name, as }))
  return token
}

const isNamed = ({ name }: Face, as: string): boolean =>
  name.toLocaleLowerCase().startsWith(as.toLocaleLowerCase())

/** The one person of that name, or whose name begins so. */
function personNamed(as: string, faces: readonly Face[]): Face {
  const whole = faces.filter(({ name }) => name.toLocaleLowerCase() === as.toLocaleLowerCase())
  const found = whole.length > 0 ? whole : faces.filter((face) => isNamed(face, as))
  const [person] = found
  if (person !== undefined && found.length === 1) return person
  const names = (found.length > 0 ? found : faces).map(({ name }) => name).join(', ')
  throw new Cannot(say(found.length > 0 ? 'cli.as.several' : 'cli.as.nobody', { as, names }))
}

/** Asks for a PIN where somebody sits at the keyboard; what they type is not shown. */
async function typedPin(name: string): Promise<string> {
  if (!process.stdin.isTTY) throw new Cannot(say('cli.as.pin', { name, variable: PIN }))
  process.stderr.write(say('cli.as.ask', { name }))
  const output = new Writable({ write: (_chunk, _encoding, done) => done() })
  const lines = createInterface({ input: process.stdin, output, terminal: true })
  try {
    return (await lines.question('')).trim()
  } finally {
    lines.close()
    process.stderr.write('\n')
  }
}
