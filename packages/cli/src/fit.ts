/** `fit --port P2`: every package of the shelf held against the device at a port, the best first. */
import type { Candidate } from '@plain-slate/api'
import { findingWords } from '@plain-slate/texts'
import { WANTED_FLAGS, readArgs, wantedOf } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { serverOf } from './server.ts'

export async function fit(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, ['port', 'intent'], WANTED_FLAGS)
  const asked = { params: { port: read.needed('port') }, body: wantedOf(read) }
  const candidates = await serverOf(read.data).call('fit', asked)
  const text = candidates.length === 0 ? say('at.fit.none') : candidates.map(line).join('\n')
  return { code: 0, text, json: { candidates } }
}

const line = ({ package: id, verdict, findings: [gravest] }: Candidate): string =>
  `${say(`verdict.${verdict}`).padEnd(15)} ${id.padEnd(20)} ${gravest === undefined ? '' : findingWords('en-GB', gravest)}`
