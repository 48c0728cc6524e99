/** `permit --slip N FILE`: puts its maker's permit down on a slip, by the file that its maker sent. */
import { readArgs } from './args.ts'
import { Cannot } from './cannot.ts'
import { textOf } from './catalogue.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { serverOf } from './server.ts'

export async function permit(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, ['slip'])
  const number = read.needed('slip')
  const [file] = read.files
  if (file === undefined || read.files.length > 1) throw new Cannot(say('cli.usage'))
  const body = { text: textOf(file) }
  const { permit: put } = await serverOf(read).call('jobPermit', { params: { number }, body })
  if (put === null) throw new Cannot(say('permit.lost'))
  const { id, device, until } = put
  return {
    code: 0,
    text: say('permit.known', { id, device, until }),
    json: { slip: number, permit: put },
  }
}
