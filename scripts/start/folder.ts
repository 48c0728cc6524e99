/** The data folder: one start at a time, its secrets, and whether it holds the demo. */
import { createHash } from 'node:crypto'
import {
  existsSync,
  mkdirSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  statfsSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { secretIn } from '../database/cluster.ts'
import { CannotGoOn } from '../machine/debian.ts'
import { writeWhole } from '../machine/write-whole.ts'
import { isAlive, lifeOf } from '../process/alive.ts'
import type { Life } from '../process/alive.ts'

/** What stands in `run.json` while a start runs; the shell tool reads the address from it. */
export type RunNote = {
  readonly life: Life
  readonly address: string | null
  /** The port of the private database; not there where the shop works on another. */
  readonly database?: number
}

/** A log this large is laid aside at the next start; the one before that is forgotten. */
const LOG_BYTES = 10 * 1024 * 1024

/** Lies in a data folder while a copy is restored into it. */
export const restoringIn = (folder: string): string => join(folder, 'restoring')

/** Another start holds the folder: whoever is refused so leaves its note alone. */
export class FolderTaken extends CannotGoOn {}

/**
 * Makes the folder and takes it for this process; throws FolderTaken when another start holds it. What is
 * held is a name of the kernel's (an abstract socket): two that ask in the same moment cannot both have it,
 * and it is free as soon as its holder is dead, however that died.
 */
export async function takeFolder(folder: string): Promise<void> {
  mkdirSync(join(folder, 'logs'), { recursive: true })
  if (existsSync(restoringIn(folder)))
    throw new CannotGoOn(
      `A copy was to be restored into ${folder}, and that did not come to its end. Remove the folder, and restore again.`,
    )
  const name = createHash('sha256').update(realpathSync(folder)).digest('hex').slice(0, 32)
  const note = readNote(folder)
  const held = note === undefined ? undefined : isAlive(note.life) && note.life.pid !== process.pid
  if (held === true || !(await holdName(`plain-slate ${name}`))) throw taken(folder, note)
  writeNote(folder, null)
}

function taken(folder: string, note: RunNote | undefined): FolderTaken {
  const where = note?.address === null || note === undefined ? '' : `: ${note.address}`
  const who = note === undefined ? '' : ` (process ${note.life.pid})`
  return new FolderTaken(
    `Plain Slate already runs from ${folder}${where}${who}. ` +
      'Use it, end it with Ctrl-C, or start another with --data DIR.',
  )
}

/** Holds a name until this process ends; false when another process has it. */
function holdName(name: string): Promise<boolean> {
  return new Promise((resolve, reject) => {
    const holder = createServer()
    holder.once('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EADDRINUSE' ? resolve(false) : reject(error),
    )
    holder.listen(`\0${name}`, () => {
      holder.unref()
      resolve(true)
    })
  })
}

/** Notes the address once it is known. */
export function writeNote(folder: string, address: string | null, database?: number): void {
  const life = lifeOf(process.pid)
  if (life === undefined) return
  const note: RunNote = { life, address, ...(database === undefined ? {} : { database }) }
  writeWhole(join(folder, 'run.json'), JSON.stringify(note))
}

export function dropNote(folder: string): void {
  rmSync(join(folder, 'run.json'), { force: true })
}

/** What a running start noted; undefined: none runs. */
export function readNote(folder: string): RunNote | undefined {
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
  if (!existsSync(file) || readFileSync(file, 'utf8') !== text) writeWhole(file, text, 0o600)
  return file
}

export type Kind = 'demo' | 'empty'

/**
 * What the folder was begun as. It stays what it is; asking for the other throws CannotGoOn. A note of it
 * that was emptied or damaged is made good from what lies in the folder: only a demo has stand-ins.
 */
export function kindOf(folder: string, wantsEmpty: boolean): Kind {
  const file = join(folder, 'kind')
  const noted = existsSync(file) ? readFileSync(file, 'utf8').trim() : undefined
  const lies = existsSync(join(folder, 'stand-ins')) ? 'demo' : 'empty'
  const begun = noted !== undefined && existsSync(join(folder, 'cluster.json'))
  const whole = noted === 'demo' || noted === 'empty'
  const before: Kind | undefined = whole ? noted : begun ? lies : undefined
  if (before === 'demo' && wantsEmpty)
    throw new CannotGoOn(
      `${folder} holds the demo shop. For an empty one choose another folder: --empty --data DIR`,
    )
  const kind = before ?? (wantsEmpty ? 'empty' : 'demo')
  if (!whole) writeWhole(file, `${kind}\n`)
  return kind
}

/** What this start leaves free on the disk, as the shelf does, and what a new demo takes. */
const ROOM_LEFT = 512 * 1024 ** 2
const ROOM_OF_DEMO = 512 * 1024 ** 2

/** Throws CannotGoOn where a first start would run out of room half-way. `free`: bytes; read when not given. */
export function seeRoom(folder: string, kind: Kind, free = freeIn(folder)): void {
  if (existsSync(join(folder, 'cluster.json'))) return
  const needed = ROOM_LEFT + (kind === 'demo' ? ROOM_OF_DEMO : 0)
  if (free >= needed) return
  throw new CannotGoOn(
    `${folder} has ${mib(free)} MiB free, and a first start needs ${mib(needed)} MiB. ` +
      'Nothing was begun there. Free some, or choose another place with --data DIR.',
  )
}

/** With less than this nothing of ours stays up: the database itself asks for more. */
const FULL_BYTES = 32 * 1024 ** 2

/** The same of the disk on which the database lies, where that is another. */
export function fullDatabaseDisk(folder: string): string | undefined {
  try {
    const { folder: cluster } = JSON.parse(readFileSync(join(folder, 'cluster.json'), 'utf8')) as {
      readonly folder: string
    }
    return fullDisk(cluster)
  } catch {
    return undefined
  }
}

/** Why nothing stays up: the disk of the data folder is full; which, how much is free, what to remove. Undefined: it is not. */
export function fullDisk(folder: string, free = freeIn(folder)): string | undefined {
  if (free >= FULL_BYTES) return undefined
  return (
    `The disk of ${folder} is full: ${mib(free)} MiB are free. Remove what is not needed there (old logs in ` +
    `${join(folder, 'logs')}, other files); what was acknowledged is kept, and everything goes on by itself when there is room.`
  )
}

const mib = (bytes: number): number => Math.floor(bytes / 1024 ** 2)

function freeIn(folder: string): number {
  const { bavail, bsize } = statfsSync(folder)
  return bavail * bsize
}

/** The path of a process's log, the old one laid aside when it has grown large. */
export function logIn(folder: string, name: string): string {
  const file = join(folder, 'logs', `${name}.log`)
  if (existsSync(file) && statSync(file).size > LOG_BYTES) renameSync(file, `${file}.1`)
  return file
}
