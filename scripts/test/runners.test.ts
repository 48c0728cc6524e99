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

  it('takes a flaky browser test for failed', () => {
    const stats = { expected: 3, unexpected: 0, flaky: 1, skipped: 0 }
    const suites = [{ specs: [{ title: 't', tests: [{ results: [{ duration: 2000 }] }] }] }]
    expect(readPlaywright(JSON.stringify({ stats, suites }), 0)).toMatchObject({
      passed: 3,
      failed: 1,
      ran: [{ name: 't', seconds: 2 }],
    })
  })
})
