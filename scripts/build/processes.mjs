/**
 * Building our processes: each package that runs as one becomes a bundle in its `dist`, beside its `src`, so that it
 * begins in a fraction of a second. Plain JavaScript: the shell tool sees to its own build before it is there.
 */
import { renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../bootstrap.mjs'
import { digestOf, isOf } from './stamp.mjs'

/** What each package runs, from its folder. */
const ENTRIES = {
  server: {
    main: 'src/main.ts',
    'beside-thread': 'src/plans/beside-worker.ts',
    'parse-thread': 'src/base/parse-worker.ts',
  },
  agent: { main: 'src/main.ts' },
  standins: { main: 'src/main.ts' },
  cli: { main: 'src/main.ts' },
}
const SOURCES = [
  'package-lock.json',
  'scripts/build/processes.mjs',
  ...[
    'agent',
    'api',
    'archives',
    'cli',
    'core',
    'link',
    'server',
    'standins',
    'texts',
    'vault',
  ].map((name) => `packages/${name}/src`),
]

/** Builds them unless they are of these very sources. Two at once do not disturb each other. */
export async function buildProcesses() {
  const wanted = digestOf(SOURCES)
  const late = Object.entries(ENTRIES).filter(([name]) => !isOf(stampOf(name), wanted))
  /* Building means production to Vite, and it says so to whatever this process begins. */
  const { NODE_ENV } = process.env
  for (const [name, entries] of late) await bundle(name, entries, wanted)
  if (NODE_ENV === undefined) delete process.env['NODE_ENV']
  else process.env['NODE_ENV'] = NODE_ENV
}

/** @param {string} name */
const distOf = (name) => join(ROOT, 'packages', name, 'dist')
/** @param {string} name */
const stampOf = (name) => join(distOf(name), 'stamp')

/**
 * Lays a bundle beside, then puts it in the place of the old one; what npm installed stays where it is.
 * @param {string} name
 * @param {Readonly<Record<string, string>>} entries
 * @param {string} digest
 */
async function bundle(name, entries, digest) {
  const { build } = await import('vite')
  const root = join(ROOT, 'packages', name)
  const beside = `${distOf(name)}-${process.pid}`
  const input = Object.entries(entries).map(([as, file]) => [as, join(root, file)])
  await build({
    root,
    configFile: false,
    logLevel: 'warn',
    build: {
      ssr: true,
      outDir: beside,
      emptyOutDir: true,
      target: 'node20',
      minify: false,
      sourcemap: true,
      rolldownOptions: {
        input: Object.fromEntries(input),
        output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
      },
    },
  })
  writeFileSync(join(beside, 'stamp'), digest)
  rmSync(distOf(name), { recursive: true, force: true })
  try {
    renameSync(beside, distOf(name))
  } catch (error) {
    /* Another laid its own there in this very moment: of the same sources it is as good. */
    rmSync(beside, { recursive: true, force: true })
    if (!isOf(stampOf(name), digest)) throw error
  }
}
