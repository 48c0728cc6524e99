/**
 * A private PostgreSQL cluster on loopback, with passwords. PostgreSQL refuses to run as root, so root
 * starts it as Debian's `postgres` user; where that user cannot reach the data folder, the cluster
 * lies under /var/lib/plain-slate and the data folder holds the pointer to it.
 */
import { spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { dirname, join } from 'node:path'
import { CannotGoOn, postgresBin } from '../machine/debian.ts'
import { commandOf, lifeOf, waitUntil } from '../process/alive.ts'

const AWAY_ROOT = '/var/lib/plain-slate'

export type ServiceUser = { readonly uid: number; readonly gid: number }

export type Cluster = {
  /** The cluster's own folder, PGDATA. */
  readonly folder: string
  readonly bin: string
  readonly superuserPassword: string
  /** Whom the server runs as; undefined: as ourselves. */
  readonly user: ServiceUser | undefined
}

/** Finds the cluster of a data folder, or makes it. Throws CannotGoOn with a sentence. */
export function openCluster(dataFolder: string): Cluster {
  const user = serviceUser()
  const folder = clusterFolder(dataFolder, user)
  const superuserPassword = secretIn(join(dataFolder, 'superuser.secret'))
  const version = join(folder, 'PG_VERSION')
  const major = existsSync(version) ? readFileSync(version, 'utf8').trim() : undefined
  const bin = postgresBin(major)
  if (bin === undefined)
    throw new CannotGoOn(
      `The database in ${folder} was made by PostgreSQL ${major ?? ''}, which is not installed.`,
    )
  if (major === undefined) initialise(folder, bin, superuserPassword, user)
  return { folder, bin, superuserPassword, user }
}

/** Root may not run PostgreSQL: Debian's own user does. Anybody else runs it as themselves. */
function serviceUser(): ServiceUser | undefined {
  if (process.getuid?.() !== 0) return undefined
  const id = (flag: string) => Number(spawnSync('id', [flag, 'postgres']).stdout.toString())
  return { uid: id('-u'), gid: id('-g') }
}

function clusterFolder(dataFolder: string, user: ServiceUser | undefined): string {
  const pointer = join(dataFolder, 'cluster.json')
  if (existsSync(pointer))
    return (JSON.parse(readFileSync(pointer, 'utf8')) as { folder: string }).folder
  const here = join(dataFolder, 'cluster', 'postgres')
  const reachable = user === undefined || canReach(dataFolder, user)
  const folder = reachable
    ? here
    : join(AWAY_ROOT, randomBytes(6).toString('hex'), 'cluster', 'postgres')
  const howToRemove = `rm -r ${reachable ? dirname(here) : dirname(dirname(folder))}`
  writeFileSync(pointer, `${JSON.stringify({ folder, howToRemove }, null, 2)}\n`)
  return folder
}

/** Whether that user can walk into a folder: every folder above it must let them. */
function canReach(folder: string, user: ServiceUser): boolean {
  return spawnSync('test', ['-x', folder], { ...user, cwd: '/' }).status === 0
}

/** Made beside and moved in place when whole, so that a killed initdb leaves nothing half. */
function initialise(
  folder: string,
  bin: string,
  password: string,
  user: ServiceUser | undefined,
): void {
  const parent = dirname(folder)
  mkdirSync(parent, { recursive: true, mode: 0o755 })
  if (user !== undefined) chownSync(parent, user.uid, user.gid)
  const draft = `${folder}.new`
  const passwordFile = join(parent, 'password.new')
  rmSync(draft, { recursive: true, force: true })
  writeFileSync(passwordFile, password, { mode: 0o600 })
  if (user !== undefined) chownSync(passwordFile, user.uid, user.gid)
  const options = ['-U', 'postgres', '-E', 'UTF8', '--locale=C.UTF-8', '--no-instructions']
  const made = spawnSync(
    join(bin, 'initdb'),
    [...options, '-A', 'scram-sha-256', `--pwfile=${passwordFile}`, '-D', draft],
    { cwd: '/', ...user },
  )
  rmSync(passwordFile, { force: true })
  if (made.status !== 0)
    throw new CannotGoOn(`The database could not be made in ${folder}:\n${made.stderr.toString()}`)
  renameSync(draft, folder)
}

/** A secret of 24 random bytes kept in a 0600 file; made when it is not there yet. */
export function secretIn(file: string): string {
  if (!existsSync(file)) {
    writeFileSync(`${file}.new`, randomBytes(24).toString('base64url'), { mode: 0o600 })
    renameSync(`${file}.new`, file)
  }
  chmodSync(file, 0o600)
  return readFileSync(file, 'utf8').trim()
}

/** The command that runs the cluster's server on a loopback port. `fast`: for tests, unsafe on power loss. */
export function serverCommand(cluster: Cluster, port: number, fast: boolean): string[] {
  const settings = [
    'listen_addresses=127.0.0.1',
    `port=${port}`,
    'unix_socket_directories=',
    'max_connections=120',
    ...(fast ? ['fsync=off', 'synchronous_commit=off', 'full_page_writes=off'] : []),
  ]
  const flags = settings.flatMap((setting) => ['-c', setting])
  return [join(cluster.bin, 'postgres'), '-D', cluster.folder, ...flags]
}

/** How long the server of an earlier, killed start may take to end by itself before it is told to. */
const OLD_SERVER_PATIENCE_MS = 8000

/**
 * Sees an earlier server of this cluster out: after kill -9 of the start command it is ending on its
 * own, and its backends hold shared memory a moment longer.
 */
export async function seeOldServerOut(cluster: Cluster): Promise<void> {
  const file = join(cluster.folder, 'postmaster.pid')
  if (!existsSync(file)) return
  const pid = Number(readFileSync(file, 'utf8').split('\n')[0])
  const isOurs = () => lifeOf(pid) !== undefined && commandOf(pid).includes(cluster.folder)
  if (await waitUntil(() => !isOurs(), OLD_SERVER_PATIENCE_MS)) return
  process.kill(pid, 'SIGINT')
  if (!(await waitUntil(() => !isOurs(), OLD_SERVER_PATIENCE_MS)))
    throw new CannotGoOn(
      `An earlier database server (process ${pid}) does not end. Run: kill ${pid}`,
    )
}
