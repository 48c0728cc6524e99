/**
 * `hands list`, `hands ACT SERIAL …`: what hands do with simulated devices, as the Bench's page offers it. A serial number
 * is named whole or by its end. Real devices are held by real hands.
 */
import type { StandInAct, StandInDevice } from '@plain-slate/api'
import { standInActSchema } from '@plain-slate/api'
import { readArgs } from './args.ts'
import { Cannot } from './cannot.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { serverOf } from './server.ts'

/** What each act is told besides the serial number, from the words that follow it. */
const ACTS: Readonly<Record<string, (word: string, held: string | undefined) => object>> = {
  plug: (port) => ({ port }),
  unplug: () => ({}),
  'cell-out': () => ({}),
  'cell-in': () => ({}),
  charge: (percent) => ({ percent: Number(percent) }),
  keys: (to, held) => ({ to, ...(held === undefined ? {} : { held: Number(held) }) }),
  'break-key': (key) => ({ kind: 'key', key, works: false }),
  'mend-key': (key) => ({ kind: 'key', key, works: true }),
  tear: (part) => ({ part }),
  like: () => ({}),
  permit: (word) => ({ given: word === 'on' }),
  reset: () => ({}),
  'lock-switch': (word) => ({ on: word === 'on' }),
  'sign-out': () => ({}),
  install: (store) => ({ store }),
  confirm: () => ({}),
}

export async function hands(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, ['held'])
  const [verb = 'list', of = '', word = ''] = read.files
  const server = serverOf(read)
  const devices = await server.call('hands')
  if (verb === 'list')
    return { code: 0, text: devices.map(line).join('\n') || say('hands.none'), json: { devices } }
  const more = ACTS[verb]
  const act: unknown =
    verb === 'hub'
      ? { kind: 'hub', port: of, on: word === 'on' }
      : more && { kind: verb, serial: serialOf(devices, of), ...more(word, read.option('held')) }
  const known = standInActSchema.safeParse(act)
  if (!known.success && (more !== undefined || verb === 'hub'))
    throw new Cannot(say('cli.hands.word', { act: verb, word }))
  if (!known.success)
    throw new Cannot(say('cli.hands.acts', { acts: [...Object.keys(ACTS), 'hub'].join(', ') }))
  return done(known.data, await server.call('handsAct', { body: known.data }))
}

const done = (
  act: StandInAct,
  answer: { readonly done: boolean; readonly sentence: string },
): Outcome => ({
  code: answer.done ? 0 : 1,
  text: answer.done ? say('cli.hands.done') : answer.sentence,
  json: { act, ...answer },
})

/** The one device whose serial number ends so. Throws Cannot. */
function serialOf(devices: readonly StandInDevice[], end: string): string {
  const found = devices.filter(({ serial }) => serial.endsWith(end))
  const [one] = found
  if (one !== undefined && found.length === 1 && end !== '') return one.serial
  const serials = (found.length > 0 ? found : devices).map(({ serial }) => serial).join(', ')
  throw new Cannot(say('cli.hands.which', { end, serials }))
}

const line = ({ serial, model, port, mode, battery, chord, parts, keys }: StandInDevice): string =>
  [
    `${serial}  ${model}  ${port === null ? say('cli.hands.beside') : port}`,
    mode?.name ?? say('hands.restarting'),
    `${battery} %`,
    `[${keys.map(({ to }) => to.id).join(' ')}] [${chord.map(({ key }) => key).join(' ')}] [${parts.join(' ')}]`,
  ].join('  ')
