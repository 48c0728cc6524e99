/** The data folder: one start at a time, its secrets, and whether it holds the demo. */
import {
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { secretIn } from '../database/cluster.ts'
import { CannotGoOn } from '../machine/debian.ts'
import { isAlive, lifeOf } from '../process/alive.ts'
import type { Life } from '../process/alive.ts'

/** What stands in `run.json` while a start runs; the shell tool reads the address from it. */
export type RunNote = { readonly life: Life; readonly address: string | null }

/** A log this large is laid aside at the next start; the one before that is forgotten. */
const LOG_BYTES = 10 * 1024 * 1024

/** Makes the folder and takes it for this start; throws CannotGoOn when another start holds it. */
export function takeFolder(folder: string): void {
  mkdirSync(join(folder, 'logs'), { recursive: true })
  const note = readNote(folder)
  if (note !== undefined && isAlive(note.life))
    throw new CannotGoOn(
      `Plain Slate already runs from ${folder}${note.address === null ? '' : `: ${note.address}`} ` +
        `(process ${note.life.pid}). Use it, end it with Ctrl-C, or start another with --data DIR.`,
    )
  writeNote(folder, null)
}

/** Notes the address once it is known. */
export function writeNote(folder: string, address: string | null): void {
  const life = lifeOf(process.pid)
  if (life === undefined) return
  writeFileSync(join(folder, 'run.json.new'), JSON.stringify({ life, address } satisfies RunNote))
  renameSync(join(folder, 'run.json.new'), join(folder, 'run.json'))
}

export function dropNote(folder: string): void {
  rmSync(join(folder, 'run.json'), { force: true })
}

function readNote(folder: string): RunNote | undefined {
  try {
    return JSON.parse(readFileSync(join(folder, 'run.json'), 'utf8')) as RunNote
  } catch {
    return undefined
  }
}

/** The file with the two secrets the server reads: cookies, bench. */
export function serverSecrets(folder: string): string {
  const file = join(folder, 'server.secrets')
  const text = `${secretIn(join(folder, 'cookie.secret'))}\n${secretIn(join(folder, 'bench.secret'))}\n`
  if (!existsSync(file) || readFileSync(file, 'utf8') !== text)
    writeFileSync(file, text, { mode: 0o600 })
  return file
}

export type Kind = 'demo' | 'empty'

/** What the folder was begun as. It stays what it is; asking for the other throws CannotGoOn. */
export function kindOf(folder: string, wantsEmpty: boolean): Kind {
  const file = join(folder, 'kind')
  const before = existsSync(file) ? (readFileSync(file, 'utf8').trim() as Kind) : undefined
  if (before === 'demo' && wantsEmpty)
    throw new CannotGoOn(
      `${folder} holds the demo shop. For an empty one choose another folder: --empty --data DIR`,
    )
  const kind = before ?? (wantsEmpty ? 'empty' : 'demo')
  if (before === undefined) writeFileSync(file, `${kind}\n`)
  return kind
}

/** The path of a process's log, the old one laid aside when it has grown large. */
export function logIn(folder: string, name: string): string {
  const file = join(folder, 'logs', `${name}.log`)
  if (existsSync(file) && statSync(file).size > LOG_BYTES) renameSync(file, `${file}.1`)
  return file
}
