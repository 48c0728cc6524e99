/**
 * Holds a device's side of the link against the conformance suite: `npm run conform -- --secret FILE
 * --image FILE --partition NAME --mode NAME --never NAME [--epoch N] tcp:HOST:PORT`, or a command and its arguments
 * after `--`. It writes the image to the partition and nothing else. docs/link.md says what is asked.
 */
import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { readTcpAddress } from '@plain-slate/core'
import { conform } from '@plain-slate/link'
import type { Address } from '@plain-slate/link'
import { endInASentence } from './process/last-words.mjs'

endInASentence('npm run conform')

const text = { type: 'string' } as const
const { values, positionals } = parseArgs({
  options: { secret: text, image: text, partition: text, mode: text, never: text, epoch: text },
  allowPositionals: true,
})
const { secret, image, partition, mode, never, epoch = '1' } = values

function addressOf([first, ...rest]: readonly string[]): Address | undefined {
  if (first === undefined) return undefined
  return rest.length === 0 && first.startsWith('tcp:')
    ? readTcpAddress(first)
    : { kind: 'command', argv: [first, ...rest] }
}

const address = addressOf(positionals)
if (
  address === undefined ||
  secret === undefined ||
  image === undefined ||
  partition === undefined ||
  mode === undefined ||
  never === undefined
) {
  console.error(
    'npm run conform -- --secret FILE --image FILE --partition NAME --mode NAME --never NAME [--epoch N] (tcp:HOST:PORT | -- COMMAND ARGUMENT …)',
  )
  process.exit(2)
}
/** The file's bytes, or an end with a sentence. */
function bytesOf(file: string): Buffer {
  try {
    return readFileSync(file)
  } catch {
    console.error(`${file} cannot be read. Nothing was asked of the device.`)
    process.exit(2)
  }
}

const found = await conform({
  address,
  secret: bytesOf(secret).toString('utf8').trim(),
  image: bytesOf(image),
  partition,
  mode,
  never,
  epoch: Number(epoch),
})
for (const { claim, wrong } of found)
  console.log(wrong === undefined ? `holds      ${claim}` : `does not   ${claim}: ${wrong}`)
process.exitCode = found.every(({ wrong }) => wrong === undefined) ? 0 : 1
