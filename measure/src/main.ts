/**
 * Measurements, each beside the limit it is held against, written to docs/benchmarks.md. Run with
 * `npm run measure`, or some of them by name (`npm run measure -- starts`), which are printed alone. A measurement is a function that answers its rows; add one to the list.
 */
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { format } from 'prettier'
import { buildProcesses } from '../../scripts/build/processes.mjs'
import { endInASentence } from '../../scripts/process/last-words.mjs'
import { agrees } from './agrees.ts'
import { faults } from './faults.ts'
import { firstView } from './first-view.ts'
import { jobPage } from './job-page.ts'
import { knownShelf } from './known-shelf.ts'
import { laws } from './laws.ts'
import { machineRoom } from './machine-room.ts'
import { readingNext } from './reading-next.ts'
import { moves } from './moves.ts'
import { proving } from './proving.ts'
import type { Row } from './row.ts'
import { shelf } from './shelf.ts'
import { starts } from './starts.ts'
import { writing } from './writing.ts'

endInASentence('npm run measure')

const ROOT = fileURLToPath(new URL('../../', import.meta.url))
const MEASUREMENTS: readonly (() => Promise<readonly Row[]>)[] = [
  firstView,
  machineRoom,
  readingNext,
  proving,
  writing,
  shelf,
  knownShelf,
  jobPage,
  faults,
  moves,
  agrees,
  starts,
  laws,
]

await buildProcesses()
const rows: Row[] = []
const asked = process.argv.slice(2)
const wanted = MEASUREMENTS.filter(({ name }) => asked.length === 0 || asked.includes(name))
for (const measure of wanted) rows.push(...(await measure()))
const table = rows.map((row) => `| ${row.what} | ${row.measured} | ${row.limit} |`)
const text = `# Measurements

Made by \`npm run measure\`; sizes do not depend on the machine, ratios are of
one run, times are medians of 7 after 2 warm-ups with their spread.

| what | measured | limit |
| --- | --- | --- |
${table.join('\n')}
`
/* Those that are named are printed; all of them together are put down. */
if (asked.length === 0)
  writeFileSync(join(ROOT, 'docs', 'benchmarks.md'), await format(text, { parser: 'markdown' }))
console.log(text)
