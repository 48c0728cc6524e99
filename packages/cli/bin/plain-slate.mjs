#!/usr/bin/env node
/** The shell tool; its sources are TypeScript, which tsx reads. */
import { register } from 'tsx/esm/api'

register()
const { main } = await import('../src/main.ts')
process.exitCode = await main(process.argv.slice(2))
