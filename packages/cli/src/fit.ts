/** `fit`: every package of the shelf held against one device, the best first. */
import type { Candidate } from '@plain-slate/api'
import { findingWords } from '@plain-slate/texts'
import type { Args } from './args.ts'
import { WANTED, WANTED_FLAGS, deviceOf, readArgs, wantedOf } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { serverOf } from './server.ts'

/** Everything that is judged of the device that is named. */
export async function judged(read: Args) {
  const body = { ...(await deviceOf(read)), ...wantedOf(read) }
  return serverOf(read).call('judge', { body })
}

export async function fit(args: readonly string[]): Promise<Outcome> {
  const { candidates } = await judged(readArgs(args, WANTED, WANTED_FLAGS))
  const text = candidates.length === 0 ? say('at.fit.none') : candidates.map(line).join('\n')
  return { code: 0, text, json: { candidates } }
}

const line = ({ package: id, verdict, findings: [gravest] }: Candidate): string =>
  `${say(`verdict.${verdict}`).padEnd(15)} ${id.padEnd(20)} ${gravest === undefined ? '' : findingWords('en-GB', gravest)}`
