/**
 * How much script and style the first view costs: the sign-in page and the page after it, everything
 * that Vite's manifest says they load, each file compressed with gzip as a server would.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { ROOT } from '../../scripts/bootstrap.mjs'
import { buildWeb } from '../../scripts/build/web.ts'
import type { Row } from './row.ts'

const DIST = join(ROOT, 'packages/web/dist')
const LIMIT_KIB = 260

type Chunk = {
  readonly file: string
  readonly css?: readonly string[]
  readonly imports?: readonly string[]
}
type Manifest = Readonly<Record<string, Chunk>>

/** The files an entry loads, itself and everything it imports statically. */
function filesOf(manifest: Manifest, entry: string, seen = new Set<string>()): Set<string> {
  const chunk = manifest[entry]
  if (chunk === undefined || seen.has(chunk.file)) return seen
  seen.add(chunk.file)
  for (const style of chunk.css ?? []) seen.add(style)
  for (const next of chunk.imports ?? []) filesOf(manifest, next, seen)
  return seen
}

export async function firstView(): Promise<readonly Row[]> {
  await buildWeb()
  const manifest = JSON.parse(readFileSync(join(DIST, '.vite/manifest.json'), 'utf8')) as Manifest
  const view = (name: string, pages: readonly string[]): Row => {
    const files = new Set(['index.html', ...pages].flatMap((page) => [...filesOf(manifest, page)]))
    const sizes = [...files].map((file) => gzipSync(readFileSync(join(DIST, file))).length)
    const kib = sizes.reduce((sum, size) => sum + size, 0) / 1024
    return {
      what: name,
      measured: `${kib.toFixed(0)} KiB in ${files.size} files`,
      limit: `${LIMIT_KIB} KiB`,
    }
  }
  return [
    view('first view: sign-in, script and style, gzip', ['src/people/SignIn.vue']),
    view('sign-in and counter together', [
      'src/people/SignIn.vue',
      'src/places/Counter.vue',
      'src/places/CounterSpine.vue',
    ]),
  ]
}
