/** Building the interface when its sources changed since it was built. */
import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../bootstrap.mjs'
import { CannotGoOn } from '../machine/debian.ts'

/** What the built interface follows from. */
const SOURCES = [
  'package-lock.json',
  'packages/web/index.html',
  'packages/web/vite.config.ts',
  'packages/web/src',
  'packages/api/src',
  'packages/core/src',
  'packages/texts/src',
]
const DIST = join(ROOT, 'packages', 'web', 'dist')
const STAMP = join(DIST, 'stamp')

/** Builds unless the stamp in the built folder says that it is of these very sources. */
export async function buildWeb(): Promise<void> {
  const wanted = digestOf(SOURCES.map((source) => join(ROOT, source)))
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return
  console.log('Building the interface …')
  const output: string[] = []
  const vite = spawn('npx', ['--no', '--', 'vite', 'build', '--logLevel', 'warn'], {
    cwd: join(ROOT, 'packages', 'web'),
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  vite.stdout.on('data', (text) => output.push(String(text)))
  vite.stderr.on('data', (text) => output.push(String(text)))
  const code = await new Promise<number>((done) => vite.on('exit', (exit) => done(exit ?? 1)))
  if (code !== 0) throw new CannotGoOn(`The interface could not be built:\n${output.join('')}`)
  writeFileSync(STAMP, wanted)
}

function digestOf(paths: readonly string[]): string {
  const hash = createHash('sha256')
  for (const path of paths.flatMap(filesIn)) hash.update(path).update(readFileSync(path))
  return hash.digest('hex')
}

function filesIn(path: string): string[] {
  if (/\.[a-z]+$/.test(path)) return [path]
  return readdirSync(path, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !entry.name.endsWith('.test.ts'))
    .map((entry) => join(entry.parentPath, entry.name))
    .sort()
}
