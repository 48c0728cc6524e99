/** Why a copy failed, from the one catalogue: what the machine said decides which sentence stands on Counter and House. */
import { describe, expect, it } from 'vitest'
import { CopyFailed, copyFailed } from './fault.ts'

const ofDisk = (code: string) =>
  Object.assign(new Error(`${code}: nothing doing, open '/far/x'`), {
    code,
    syscall: 'open',
    path: '/far/x',
  })

describe('a copy that failed', () => {
  it.each([
    ['ENOSPC', 'no-room', 'There is no room for it where /far is.'],
    ['EDQUOT', 'no-room', 'There is no room for it where /far is.'],
    ['EACCES', 'no-place', '/far cannot be written (EACCES).'],
    ['EROFS', 'no-place', '/far cannot be written (EROFS).'],
  ])('by %s says so', (code, fault, says) => {
    const failed = copyFailed(ofDisk(code), '/far')
    expect(failed.fault).toBe(fault)
    expect(failed.message).toContain(says)
  })

  it('by what nobody foresaw says what was said', () => {
    expect(copyFailed(new Error('the moon fell'), '/far')).toMatchObject({
      fault: 'other',
      facts: { says: 'the moon fell' },
    })
    const own = new CopyFailed('inside', { folder: '/data/x' })
    expect(copyFailed(own, '/far')).toBe(own)
    expect(own.message).toBe('/data/x lies in the shop itself: a copy belongs on another disk.')
  })
})
