/**
 * Where the database of a data folder lies. A folder is a shop, and where it lies is where it lives: the database lies in
 * it, whatever path a note of it bears. Where root starts it from a folder that PostgreSQL's own user cannot reach, it lies
 * under /var/lib/plain-slate, and each names the other. Nothing empty is ever made in place of something that was there; a
 * copy beside its original is told, since two shops of one would drive the same devices.
 */
import { spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import {
  chownSync,
  existsSync,
  mkdirSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs'
import { dirname, join } from 'node:path'
import { CannotGoOn } from '../machine/debian.ts'
import { writeWhole } from '../machine/write-whole.ts'
import { commandOf, lifeOf } from '../process/alive.ts'

const AWAY_ROOT = '/var/lib/plain-slate'

export type ServiceUser = { readonly uid: number; readonly gid: number }

/** What stands in `cluster.json`. Notes of before have the folder alone. */
type Place = {
  readonly folder: string
  readonly howToRemove?: string
  /** False until a database was made there. */
  readonly made?: boolean
  /** The data folder that this note was written for, and which folder of the disk that was. */
  readonly home?: string
  readonly homeId?: string
  /** Of the shop: a copy has the same. */
  readonly shop?: string
}

/**
 * The folder of the cluster of a data folder; a first start is given a place. Throws CannotGoOn where the folder is a copy
 * beside its original (unless it is to be one), or where the database that was there is not.
 */
export function clusterOf(
  dataFolder: string,
  user: ServiceUser | undefined,
  asCopy: boolean,
): string {
  const noted = readPlace(dataFolder)
  if (noted === undefined) return firstPlace(dataFolder, user)
  const original = originalOf(dataFolder, noted)
  if (original !== undefined && !asCopy) throw copyBeside(dataFolder, original)
  const found = whereFound(dataFolder, noted)
  if (found === undefined && !wasMade(dataFolder, noted)) return firstPlace(dataFolder, user)
  if (found === undefined) throw gone(dataFolder, noted)
  const shop = original === undefined ? (noted.shop ?? newId()) : newId()
  const taken =
    original !== undefined && found !== hereIn(dataFolder)
      ? copyAway(found, join(AWAY_ROOT, newId(), 'cluster', 'postgres'))
      : reachable(dataFolder, found, user)
  if (original !== undefined) writeWhole(inDoubtIn(dataFolder), '')
  notePlace(dataFolder, { folder: taken, made: true, shop })
  /* Only once it is noted where the database lies now does the one that was left go. */
  if (taken !== found && found === hereIn(dataFolder)) rmSync(dirname(found), { recursive: true })
  return taken
}

/** Notes that a database was made, once it is there. */
export function noteMade(dataFolder: string, folder: string): void {
  const noted = readPlace(dataFolder)
  notePlace(dataFolder, { folder, made: true, shop: noted?.shop ?? newId() })
}

/** Lies in a data folder whose shop is a copy, until the runs that were under way are in doubt. */
export const inDoubtIn = (dataFolder: string): string => join(dataFolder, 'runs-in-doubt')

/** The shop's own name for itself, as its note bears it: a copy that was restored is another. */
export const shopIdOf = (dataFolder: string): string => readPlace(dataFolder)?.shop ?? ''

const newId = (): string => randomBytes(6).toString('hex')
const hereIn = (dataFolder: string): string => join(dataFolder, 'cluster', 'postgres')
const noteOf = (dataFolder: string): string => join(dataFolder, 'cluster.json')
const isCluster = (folder: string): boolean => existsSync(join(folder, 'PG_VERSION'))
/** Which folder of which disk: the same one under another name, or moved on its disk, has the same. */
const idOf = (folder: string): string => {
  const { dev, ino } = statSync(folder)
  return `${dev}:${ino}`
}

function readPlace(dataFolder: string): Place | undefined {
  if (!existsSync(noteOf(dataFolder))) return undefined
  try {
    return JSON.parse(readFileSync(noteOf(dataFolder), 'utf8')) as Place
  } catch {
    /* Torn by an end in its writing: what lies here tells. */
    return { folder: hereIn(dataFolder), made: existsSync(join(dataFolder, 'application.secret')) }
  }
}

function notePlace(dataFolder: string, place: Pick<Place, 'folder' | 'made' | 'shop'>): void {
  const home = realpathSync(dataFolder)
  const removed =
    place.folder === hereIn(dataFolder) ? dirname(place.folder) : dirname(dirname(place.folder))
  const whole = { ...place, home, homeId: idOf(home), howToRemove: `rm -r ${removed}` }
  writeWhole(noteOf(dataFolder), `${JSON.stringify(whole, null, 2)}\n`)
  if (place.folder === hereIn(dataFolder)) return
  mkdirSync(removed, { recursive: true, mode: 0o755 })
  writeWhole(ownerOf(place.folder), `${home}\n`)
}

/** Beside a database that lies away stands whose it is. */
const ownerOf = (folder: string): string => join(dirname(dirname(folder)), 'home')

function firstPlace(dataFolder: string, user: ServiceUser | undefined): string {
  const here = user === undefined || canReach(dataFolder, user)
  const folder = here ? hereIn(dataFolder) : join(AWAY_ROOT, newId(), 'cluster', 'postgres')
  notePlace(dataFolder, { folder, made: false, shop: newId() })
  return folder
}

/** The data folder that this one was copied from, where that is still there; a moved one left none behind. */
function originalOf(dataFolder: string, { home, homeId, shop, folder }: Place): string | undefined {
  const away = folder.startsWith(AWAY_ROOT)
  /* A note of before bears no home: where the database lies inside a data folder tells whose it was. */
  const owner =
    away && existsSync(ownerOf(folder)) ? readFileSync(ownerOf(folder), 'utf8').trim() : ''
  const was = owner !== '' ? owner : (home ?? (away ? undefined : dirname(dirname(folder))))
  if (was === undefined || !existsSync(noteOf(was)) || idOf(was) === idOf(dataFolder))
    return undefined
  if (homeId !== undefined && homeId === idOf(dataFolder)) return undefined
  const there = readPlace(was)
  /* A note of before names no shop, whatever became of the original's since. */
  return shop === undefined || there?.shop === shop ? was : undefined
}

/** In the folder itself, else where the note says, as long as that is no other data folder's own. */
function whereFound(dataFolder: string, { folder }: Place): string | undefined {
  if (isCluster(hereIn(dataFolder))) return hereIn(dataFolder)
  return folder.startsWith(AWAY_ROOT) && isCluster(folder) ? folder : undefined
}

const wasMade = (dataFolder: string, { made }: Place): boolean =>
  made ?? existsSync(join(dataFolder, 'application.secret'))

const copyBeside = (dataFolder: string, original: string): CannotGoOn =>
  new CannotGoOn(
    `${dataFolder} is a copy of ${original}, which is still there. Two shops of one would drive the same devices. ` +
      `Start ${original} instead; or, to make this one a shop of its own with its runs in doubt, add --as-copy. Nothing was changed.`,
  )

const gone = (dataFolder: string, { folder }: Place): CannotGoOn =>
  new CannotGoOn(
    `The database of ${dataFolder} is not there any more (it was in ${folder}). Nothing was made in its place. ` +
      'Bring that folder back, or restore a copy of the shop: npx --no -- plain-slate restore FOLDER --data DIR',
  )

/** Whether that user can walk into a folder: every folder above it must let them. */
function canReach(folder: string, user: ServiceUser): boolean {
  return spawnSync('test', ['-x', folder], { ...user, cwd: '/' }).status === 0
}

/** A data folder that was moved to where PostgreSQL's user cannot go keeps its database away from then on. */
function reachable(dataFolder: string, found: string, user: ServiceUser | undefined): string {
  if (user === undefined || found !== hereIn(dataFolder)) return found
  if (canReach(dataFolder, user)) {
    chownSync(dirname(found), user.uid, user.gid)
    if (statSync(found).uid !== user.uid)
      spawnSync('chown', ['-R', `${user.uid}:${user.gid}`, found])
    return found
  }
  return copyAway(found, join(AWAY_ROOT, newId(), 'cluster', 'postgres'))
}

/** A copy of a cluster that nobody runs, in a place of its own; whole or not at all. */
function copyAway(from: string, to: string): string {
  const pidFile = join(from, 'postmaster.pid')
  const pid = existsSync(pidFile) ? Number(readFileSync(pidFile, 'utf8').split('\n')[0]) : 0
  if (pid > 0 && lifeOf(pid) !== undefined && commandOf(pid).includes(from))
    throw new CannotGoOn(
      `The database in ${from} is in use, and cannot be copied as it is. End the shop it belongs to first, ` +
        'or copy that while it runs: npx --no -- plain-slate backup FOLDER',
    )
  const parent = dirname(to)
  const { uid, gid } = statSync(from)
  mkdirSync(parent, { recursive: true, mode: 0o755 })
  chownSync(parent, uid, gid)
  const copied = spawnSync('cp', ['-a', from, `${to}.new`])
  if (copied.status !== 0)
    throw new CannotGoOn(
      `The database could not be copied to ${to}: ${copied.stderr.toString().split('\n')[0] ?? ''}`,
    )
  rmSync(join(`${to}.new`, 'postmaster.pid'), { force: true })
  renameSync(`${to}.new`, to)
  return to
}
