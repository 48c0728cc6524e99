/** `catalogue FILE`: has the running server take in a depot's signed catalogue, and says how much is known by it. */
import { readFileSync } from 'node:fs'
import { contract } from '@plain-slate/api'
import { readArgs } from './args.ts'
import type { Outcome } from './outcome.ts'
import { say } from './outcome.ts'
import { Cannot } from './cannot.ts'
import { serverOf } from './server.ts'

export async function catalogue(args: readonly string[]): Promise<Outcome> {
  const read = readArgs(args, [])
  const { files } = read
  const [file] = files
  if (file === undefined || files.length > 1) throw new Cannot(say('cli.usage'))
  const response = await serverOf(read).fetch('catalogueTake', {
    headers: { 'content-type': 'application/octet-stream' },
    body: textOf(file),
  })
  const row = contract.catalogueTake.answer.parse(await response.json())
  const { from, number, packages } = row
  return { code: 0, text: say('cli.catalogue', { from, number, packages }), json: row }
}

export function textOf(file: string): string {
  try {
    return readFileSync(file, 'utf8')
  } catch {
    throw new Cannot(say('cli.no-file', { file }))
  }
}
