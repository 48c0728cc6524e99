#!/usr/bin/env node
/** The shell tool, built when its sources have changed. */
import { buildProcesses } from '../../../scripts/build/processes.mjs'
import { endInASentence } from '../../../scripts/process/last-words.mjs'

endInASentence('plain-slate')

const [verb = ''] = process.argv.slice(2)
if (['backup', 'restore', 'family'].includes(verb)) {
  /* Whole shops are the machine's work, not the server's: the tool that is not bundled does it. */
  const { register } = await import('tsx/esm/api')
  register()
  const { shopMain } = await import('../../../scripts/shop/main.ts')
  process.exit(await shopMain(process.argv.slice(2)))
}
await buildProcesses()
const { main } = await import('../dist/main.mjs')
process.exitCode = await main(process.argv.slice(2))
