#!/usr/bin/env node
/** The shell tool, built when its sources have changed. */
import { buildProcesses } from '../../../scripts/build/processes.mjs'
import { endInASentence } from '../../../scripts/process/last-words.mjs'

endInASentence('plain-slate')

await buildProcesses()
const { main } = await import('../dist/main.mjs')
process.exitCode = await main(process.argv.slice(2))
