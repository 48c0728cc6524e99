/** Building the interface when its sources changed since it was built. */
import { spawn } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../bootstrap.mjs'
import { CannotGoOn } from '../machine/debian.ts'
import { digestOf, isOf } from './stamp.mjs'

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
  const wanted = digestOf(SOURCES)
  if (isOf(STAMP, wanted)) return
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
