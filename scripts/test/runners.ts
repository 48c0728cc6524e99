/** What the test command runs, and how each runner's result is read. */
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ROOT } from '../bootstrap.mjs'

/** One test that ran, for the table of the slowest. */
export type Ran = { readonly name: string; readonly seconds: number }

export type Counts = {
  readonly passed: number
  readonly failed: number
  readonly skipped: number
  readonly ran: readonly Ran[]
  /** Tests that needed a second try. */
  readonly wavered?: readonly string[]
}

export type Runner = {
  readonly name: string
  readonly command: readonly string[]
  readonly cwd: string
  readonly env?: NodeJS.ProcessEnv
  /** Reads the counts after the command ended with this code. Throws when its report is not there. */
  readonly read: (code: number) => Counts
}

const reports = mkdtempSync(join(tmpdir(), 'plain-slate-reports-'))

/** A checker holds the whole tree at once: a roomy nursery spares it a tenth of its time. */
const ROOMY = { NODE_OPTIONS: '--max-semi-space-size=64' }

/** A check that passes or fails as a whole counts as one test. */
function check(name: string, command: readonly string[]): Runner {
  return {
    name,
    command: ['npx', '--no', '--', ...command],
    cwd: ROOT,
    env: ROOMY,
    read: (code) => ({
      passed: code === 0 ? 1 : 0,
      failed: code === 0 ? 0 : 1,
      skipped: 0,
      ran: [],
    }),
  }
}

function vitest(project: string): Runner {
  const report = join(reports, `${project}.json`)
  const reporters = ['--reporter=dot', '--reporter=json', `--outputFile.json=${report}`]
  return {
    name: project,
    command: ['npx', '--no', '--', 'vitest', 'run', '--project', project, ...reporters],
    cwd: ROOT,
    read: (code) => readVitest(readFileSync(report, 'utf8'), code),
  }
}

type VitestReport = {
  readonly numPassedTests: number
  readonly numFailedTests: number
  readonly numPendingTests: number
  readonly numTodoTests: number
  readonly testResults: readonly {
    readonly status: string
    readonly assertionResults: readonly { readonly fullName: string; readonly duration?: number }[]
  }[]
}

/** Counts of a Vitest JSON report. A file that could not be loaded, or a bad exit, counts as failed. */
export function readVitest(text: string, code: number): Counts {
  const report = JSON.parse(text) as VitestReport
  const unloaded = report.testResults.filter(
    (file) => file.status === 'failed' && file.assertionResults.length === 0,
  ).length
  const failed = report.numFailedTests + unloaded
  return {
    passed: report.numPassedTests,
    failed: failed === 0 && code !== 0 ? 1 : failed,
    skipped: report.numPendingTests + report.numTodoTests,
    ran: report.testResults.flatMap((file) =>
      file.assertionResults.map((one) => ({
        name: one.fullName,
        seconds: (one.duration ?? 0) / 1000,
      })),
    ),
  }
}

type Suite = {
  readonly suites?: readonly Suite[]
  readonly specs?: readonly {
    readonly title: string
    readonly tests: readonly {
      readonly status: string
      readonly results: readonly { readonly duration: number }[]
    }[]
  }[]
}
type PlaywrightReport = {
  readonly stats: {
    readonly expected: number
    readonly unexpected: number
    readonly flaky: number
    readonly skipped: number
  }
  readonly suites: readonly Suite[]
}

/** Counts of a Playwright JSON report. A test that passed at its second try is passed, and named. */
export function readPlaywright(text: string, code: number): Counts {
  const { stats, suites } = JSON.parse(text) as PlaywrightReport
  const failed = stats.unexpected
  return {
    passed: stats.expected + stats.flaky,
    failed: failed === 0 && code !== 0 ? 1 : failed,
    skipped: stats.skipped,
    ran: suites.flatMap(ranIn),
    wavered: suites.flatMap(waveredIn),
  }
}

function waveredIn(suite: Suite): string[] {
  const own = (suite.specs ?? []).filter(({ tests }) =>
    tests.some(({ status }) => status === 'flaky'),
  )
  return [...own.map(({ title }) => title), ...(suite.suites ?? []).flatMap(waveredIn)]
}

function ranIn(suite: Suite): Ran[] {
  const own = (suite.specs ?? []).map(({ title, tests }) => ({
    name: title,
    seconds: tests.reduce((sum, { results }) => sum + (results.at(-1)?.duration ?? 0), 0) / 1000,
  }))
  return [...own, ...(suite.suites ?? []).flatMap(ranIn)]
}

const playwright: Runner = {
  name: 'browser',
  command: ['npx', '--no', '--', 'playwright', 'test'],
  cwd: join(ROOT, 'e2e'),
  env: { NODE_OPTIONS: '--import tsx' },
  read: (code) => readPlaywright(readFileSync(join(ROOT, 'e2e/results/report.json'), 'utf8'), code),
}

const types = check('types', ['vue-tsc', '-p', '.'])
const lint = check('lint', [
  'eslint',
  '--cache',
  '--cache-location',
  'node_modules/.cache/eslint/',
  '--max-warnings=0',
  '.',
])
const format = check('format', ['prettier', '--check', '--cache', '--log-level=warn', '.'])

/**
 * What runs after what: two cores are shared by lanes, since shops of real processes often wait; each lane runs its own
 * one after the other. The start command and the browser wait for what answers in time: beside them stands one check at a
 * time, or nothing.
 */
export const PHASES: readonly (readonly (readonly Runner[])[])[] = [
  [[vitest('unit'), format], [vitest('server')]],
  [[vitest('start')], [lint, types]],
  [[playwright]],
]
