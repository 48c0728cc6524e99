// @vitest-environment jsdom
/** How the copies of the shop stand: the sentence follows the folder, the last try, the last whole one, and why one failed. */
import type { CopiesShown } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { mounted } from '../testing/mounted.ts'
import CopyWords from './CopyWords.vue'

const whole = { folder: '/far', at: '2026-10-12T02:10:00.000Z', why: null, mib: 41, entries: 212 }
const well: CopiesShown = { folder: '/far', last: whole, good: whole, trouble: 'none' }
const says = async (more: Partial<CopiesShown> = {}) =>
  (await mounted(CopyWords, { copies: { ...well, ...more } }, {})).shown.text()
const failed = (why: NonNullable<CopiesShown['last']>['why']): Partial<CopiesShown> => ({
  last: { ...whole, why },
  trouble: 'failed',
})

describe('copies of the shop', () => {
  it('are told by when the last was made, and what it holds', async () => {
    expect(await says()).toContain('212 entries of the book')
    expect(await says({ good: { ...whole, entries: 213 } })).toContain('213 entries of the book')
    expect(await says({ last: { ...whole, mib: 9 } })).toBe(await says())
  })

  it('are told by their trouble: none named, none made, grown old', async () => {
    expect(await says({ folder: null, good: null, last: null })).toContain('No folder is named')
    expect(await says({ good: null, last: null })).toContain('is made within minutes')
    expect(await says({ good: null, last: null, trouble: 'old' })).toContain('was made yet')
    expect(await says({ trouble: 'old' })).toContain('more than a day and a half old')
  })

  it('say why one failed, from the catalogue', async () => {
    expect(await says(failed({ fault: 'no-room', facts: { folder: '/far' } }))).toContain(
      'failed: there is no room for it where /far is.',
    )
    expect(await says(failed({ fault: 'book', facts: { seq: 88 } }))).toContain(
      'the book does not hold at entry 88',
    )
    /* A fact that was not told leaves a gap, and no page without words. */
    expect(await says(failed({ fault: 'tool', facts: { tool: 'pg_dump' } }))).toContain('pg_dump')
  })
})
