/**
 * What must be there before anything else can run: Node's version and the npm packages. Plain
 * JavaScript without imports from packages, because on a fresh clone there are none.
 */
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)))
const STAMP = join(ROOT, 'node_modules', '.plain-slate-installed')
const LEAST_NODE = [20, 19]

/** Installs the packages of the lock file when it is not what is installed. Exits with 1 when it cannot. */
export function ensurePackages() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number)
  if (major < LEAST_NODE[0] || (major === LEAST_NODE[0] && minor < LEAST_NODE[1]))
    stop(
      `Plain Slate needs Node ${LEAST_NODE.join('.')} or newer; this is ${process.versions.node}.`,
    )
  const wanted = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex')
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return
  console.log('Installing the npm packages that package-lock.json names (one to six minutes) …')
  const npm = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: 'inherit',
  })
  if (npm.status !== 0)
    stop('npm could not install the packages. Once it can, run the same again: npm ci')
  writeFileSync(STAMP, wanted)
}

function stop(sentence) {
  console.error(sentence)
  process.exit(1)
}
