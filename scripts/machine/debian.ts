/** Debian's own packages: which are missing, and installing them where this user may. */
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'

/** A Debian package and how to tell that it is there. */
export type DebianPackage = { readonly name: string; readonly isThere: () => boolean }

/** A refusal to go on, as a sentence for the terminal. */
export class CannotGoOn extends Error {
  override readonly name = 'CannotGoOn'
}

const PG_ROOT = '/usr/lib/postgresql'

/** The newest PostgreSQL's folder of programs, or that of one major version; undefined when none. */
export function postgresBin(major?: string): string | undefined {
  if (!existsSync(PG_ROOT)) return undefined
  const versions = readdirSync(PG_ROOT)
    .filter((version) => existsSync(`${PG_ROOT}/${version}/bin/initdb`))
    .filter((version) => major === undefined || version === major)
    .sort((a, b) => Number(b) - Number(a))
  return versions[0] === undefined ? undefined : `${PG_ROOT}/${versions[0]}/bin`
}

export const POSTGRES: DebianPackage = {
  name: 'postgresql',
  isThere: () => postgresBin() !== undefined,
}
export const CHROMIUM: DebianPackage = {
  name: 'chromium-headless-shell',
  isThere: () => existsSync('/usr/bin/chromium-headless-shell'),
}

/** Partition tables as the world makes them: for tests. */
export const GDISK: DebianPackage = {
  name: 'gdisk',
  isThere: () => isProgram('sgdisk'),
}
export const PARTED: DebianPackage = {
  name: 'parted',
  isThere: () => isProgram('parted'),
}

/** What tells a process another time of day: for tests. */
export const FAKETIME: DebianPackage = {
  name: 'faketime',
  isThere: () => isProgram('faketime'),
}

const isProgram = (name: string): boolean =>
  ['/usr/sbin', '/sbin', '/usr/bin'].some((folder) => existsSync(`${folder}/${name}`))

/** Installs what is missing in one call, saying so; throws CannotGoOn with the command where it may not. */
export function ensureDebian(wanted: readonly DebianPackage[]): void {
  const missing = wanted.filter((one) => !one.isThere()).map((one) => one.name)
  if (missing.length === 0) return
  const names = missing.join(' ')
  const byHand = `sudo apt-get update && sudo apt-get install -y --no-install-recommends ${names}`
  const prefix = rightsPrefix()
  if (prefix === undefined || !existsSync('/usr/bin/apt-get'))
    throw new CannotGoOn(
      `Debian's ${names} must be installed first, and this user may not. Run:\n  ${byHand}`,
    )
  console.log(`Installing Debian's ${names} (a few minutes) …`)
  keepFromMakingACluster(prefix)
  run(prefix, ['apt-get', 'update', '-q'])
  run(prefix, ['apt-get', 'install', '-y', '-q', '--no-install-recommends', ...missing])
  const still = wanted.filter((one) => !one.isThere()).map((one) => one.name)
  if (still.length > 0)
    throw new CannotGoOn(
      `Debian's ${still.join(' ')} could not be installed. Try it by hand:\n  ${byHand}`,
    )
}

/** Nothing for root, sudo where it asks no password, undefined where neither holds. */
function rightsPrefix(): readonly string[] | undefined {
  if (process.getuid?.() === 0) return []
  return spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0
    ? ['sudo', '-n', '--preserve-env=DEBIAN_FRONTEND']
    : undefined
}

function run(prefix: readonly string[], command: readonly string[]): void {
  const [program = '', ...args] = [...prefix, ...command]
  spawnSync(program, args, {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  })
}

/** Debian would start a cluster of its own on 5432; ours is private and elsewhere. */
function keepFromMakingACluster(prefix: readonly string[]): void {
  const folder = '/etc/postgresql-common'
  const file = `${folder}/createcluster.conf`
  if (prefix.length > 0 || POSTGRES.isThere()) return
  const before = existsSync(file) ? readFileSync(file, 'utf8') : ''
  if (before.includes('create_main_cluster')) return
  mkdirSync(folder, { recursive: true })
  writeFileSync(file, `${before}create_main_cluster = false\n`)
}
