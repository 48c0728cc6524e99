import { describe, expect, it } from 'vitest'
import { readPlaywright, readVitest } from './runners.ts'

const file = (status: string, names: readonly string[]) => ({
  status,
  assertionResults: names.map((fullName) => ({ fullName, duration: 1500 })),
})
const vitest = (failed: number, files: readonly object[]) =>
  JSON.stringify({
    numPassedTests: 2,
    numFailedTests: failed,
    numPendingTests: 1,
    numTodoTests: 0,
    testResults: files,
  })

describe('the count of a runner', () => {
  it('is what its report says', () => {
    expect(readVitest(vitest(0, [file('passed', ['a', 'b'])]), 0)).toMatchObject({
      passed: 2,
      failed: 0,
      skipped: 1,
      ran: [{ name: 'a', seconds: 1.5 }, { name: 'b' }],
    })
  })

  it('takes a file that could not be loaded for failed', () => {
    expect(readVitest(vitest(0, [file('failed', [])]), 1).failed).toBe(1)
  })

  it('never calls a bad exit good, whatever the report says', () => {
    expect(readVitest(vitest(0, []), 1).failed).toBe(1)
    const stats = { expected: 3, unexpected: 0, flaky: 0, skipped: 0 }
    expect(readPlaywright(JSON.stringify({ stats, suites: [] }), 1).failed).toBe(1)
  })

  it('names a browser test that needed a second try, and fails one that failed twice', () => {
    const report = (flaky: number, unexpected: number) => {
      const status = flaky > 0 ? 'flaky' : 'unexpected'
      const suites = [
        { specs: [{ title: 't', tests: [{ status, results: [{ duration: 2000 }] }] }] },
      ]
      return JSON.stringify({ stats: { expected: 3, unexpected, flaky, skipped: 0 }, suites })
    }
    expect(readPlaywright(report(1, 0), 0)).toMatchObject({
      passed: 4,
      failed: 0,
      wavered: ['t'],
      ran: [{ name: 't', seconds: 2 }],
    })
    expect(readPlaywright(report(0, 1), 1)).toMatchObject({ passed: 3, failed: 1, wavered: [] })
  })
})
