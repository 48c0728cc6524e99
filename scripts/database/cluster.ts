/**
 * A private PostgreSQL cluster on loopback, with passwords. PostgreSQL refuses to run as root, so root
 * starts it as Debian's `postgres` user. Where it lies is told by place.ts.
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
import { clusterOf, noteMade } from './place.ts'
import type { ServiceUser } from './place.ts'

export type Cluster = {
  /** The cluster's own folder, PGDATA. */
  readonly folder: string
  readonly bin: string
  readonly superuserPassword: string
  /** Whom the server runs as; undefined: as ourselves. */
  readonly user: ServiceUser | undefined
}

/** Finds the cluster of a data folder, or makes it. `asCopy`: a copied folder becomes a shop of its own. Throws CannotGoOn with a sentence. */
export function openCluster(dataFolder: string, asCopy = false): Cluster {
  const user = serviceUser()
  const folder = clusterOf(dataFolder, user, asCopy)
  const superuserPassword = secretIn(join(dataFolder, 'superuser.secret'))
  const version = join(folder, 'PG_VERSION')
  const major = existsSync(version) ? readFileSync(version, 'utf8').trim() : undefined
  const bin = postgresBin(major)
  if (bin === undefined)
    throw new CannotGoOn(
      `The database in ${folder} was made by PostgreSQL ${major ?? ''}, which is not installed.`,
    )
  if (major === undefined) initialise(folder, bin, superuserPassword, user)
  noteMade(dataFolder, folder)
  return { folder, bin, superuserPassword, user }
}

/** Root may not run PostgreSQL: Debian's own user does. Anybody else runs it as themselves. */
function serviceUser(): ServiceUser | undefined {
  if (process.getuid?.() !== 0) return undefined
  const id = (flag: string) => Number(spawnSync('id', [flag, 'postgres']).stdout.toString())
  return { uid: id('-u'), gid: id('-g') }
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
const OLD_SERVER_PATIENCE_MS = 10_000

/**
 * Sees an earlier server of this cluster out: after kill -9 of the start command it is ending on its own, and its backends
 * hold shared memory a moment longer. One that does not end is told to, ever harder; what it kept is made good by its log.
 */
export async function seeOldServerOut(cluster: Cluster): Promise<void> {
  const file = join(cluster.folder, 'postmaster.pid')
  if (!existsSync(file)) return
  const pid = Number(readFileSync(file, 'utf8').split('\n')[0])
  const isOurs = () => lifeOf(pid) !== undefined && commandOf(pid).includes(cluster.folder)
  /* A copied folder names the server of its original, which is none of ours. */
  if (!isOurs()) return rmSync(file, { force: true })
  if (await waitUntil(() => !isOurs(), OLD_SERVER_PATIENCE_MS)) return
  for (const signal of ['SIGINT', 'SIGQUIT', 'SIGKILL'] as const) {
    process.kill(pid, signal)
    if (await waitUntil(() => !isOurs(), OLD_SERVER_PATIENCE_MS)) return
  }
  throw new CannotGoOn(
    `An earlier database server (process ${pid}) does not end. End it by hand: kill -9 ${pid}`,
  )
}
