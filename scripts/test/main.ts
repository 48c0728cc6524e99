/**
 * The test command: Debian's tools, a database and what is built, then every runner; prints each one's seconds, the ten slowest
 * tests, and as its last line the sum. Whatever could not run counts as failed, never as skipped.
 */
import { spawn } from 'node:child_process'
import { buildProcesses } from '../build/processes.mjs'
import { buildWeb } from '../build/web.ts'
import {
  CHROMIUM,
  CannotGoOn,
  FAKETIME,
  GDISK,
  PARTED,
  POSTGRES,
  ensureDebian,
} from '../machine/debian.ts'
import { shareTestCluster } from './cluster.ts'
import { roomForTests } from './room.ts'
import { SEED } from './seed.ts'
import type { Counts, Ran, Runner } from './runners.ts'
import { PHASES } from './runners.ts'

const SLOWEST = 10

type Result = Counts & { readonly name: string; readonly seconds: number }

/** Runs everything (or the runners that are named) and ends the process with 0 or 1. */
export async function test(names: readonly string[]): Promise<void> {
  const wanted = (runner: Runner) => names.length === 0 || names.includes(runner.name)
  let missing = prepared()
  process.env['TMPDIR'] = roomForTests()
  console.log(`seed of the property tests: ${SEED} (SEED=n tries another)`)
  const shared = Promise.all([shareTestCluster(), buildProcesses(), buildWeb()])
  const [cluster] = await shared.catch((error: unknown) => {
    console.error(error)
    missing += 1
    return [undefined]
  })
  const results: Result[] = []
  for (const lanes of PHASES) {
    const ran = await Promise.all(lanes.map((lane) => inTurn(lane.filter(wanted))))
    results.push(...ran.flat())
  }
  await cluster?.stop()
  console.log(`\nthe ${SLOWEST} slowest:`)
  for (const { name, seconds } of slowest(results))
    console.log(`${seconds.toFixed(1).padStart(7)} s  ${name}`)
  const sum = (part: 'passed' | 'failed' | 'skipped') =>
    results.reduce((total, result) => total + result[part], 0)
  const failed = sum('failed') + missing
  console.log(`\n${sum('passed')} passed, ${failed} failed, ${sum('skipped')} skipped`)
  process.exitCode = failed === 0 ? 0 : 1
}

/** Installs what is missing; answers how many prerequisites could not be had. */
function prepared(): number {
  try {
    ensureDebian([POSTGRES, CHROMIUM, GDISK, PARTED, FAKETIME])
    return 0
  } catch (error) {
    if (!(error instanceof CannotGoOn)) throw error
    console.error(error.message)
    return 1
  }
}

async function inTurn(runners: readonly Runner[]): Promise<Result[]> {
  const results: Result[] = []
  for (const runner of runners) results.push(await run(runner))
  return results
}

function run(runner: Runner): Promise<Result> {
  const began = Date.now()
  const [program = '', ...args] = runner.command
  const output: string[] = []
  const child = spawn(program, args, {
    cwd: runner.cwd,
    env: { ...process.env, ...runner.env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  child.stdout.on('data', (text) => output.push(String(text)))
  child.stderr.on('data', (text) => output.push(String(text)))
  return new Promise((resolve) => {
    child.on('close', (code) => {
      const seconds = (Date.now() - began) / 1000
      const counts = counted(runner, code ?? 1)
      if (counts.failed > 0) console.log(`\n---- ${runner.name}\n${output.join('')}`)
      const { passed, failed, skipped, wavered = [] } = counts
      if (wavered.length > 0) console.log(`needed a second try: ${wavered.join('; ')}`)
      console.log(
        `${runner.name.padEnd(8)} ${seconds.toFixed(1).padStart(6)} s  ${passed} passed, ${failed} failed, ${skipped} skipped`.trimEnd() +
          '.',
      )
      resolve({ name: runner.name, seconds, ...counts })
    })
  })
}

/** A runner that left no report has failed. */
function counted(runner: Runner, code: number): Counts {
  try {
    return runner.read(code)
  } catch {
    return { passed: 0, failed: 1, skipped: 0, ran: [] }
  }
}

function slowest(results: readonly Result[]): Ran[] {
  const named = results.flatMap(({ name, ran }) =>
    ran.map((one) => ({ name: `${name}: ${one.name}`, seconds: one.seconds })),
  )
  return named.sort((a, b) => b.seconds - a.seconds).slice(0, SLOWEST)
}
