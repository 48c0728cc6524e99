/** What the boot lock closes over, as its device sees it: judged before the wipe that goes with closing it. */
import { describe, expect, it } from 'vitest'
import { benchOf, caseOf, fen } from '../testing/families.ts'
import { onTablet, opened, ownRescueLeft, phone, sold, tabletBuild } from '../testing/judged.ts'
import { digestOf } from '../testing/packages.ts'
import { judge } from './judge.ts'
import type { Case } from './rule.ts'

const says = (at: Case) =>
  judge(at)
    .findings.find(({ rule }) => rule === 'state.lock')
    ?.code.split('.')
    .at(-1)
const shows = (partition: string, sha256: string): Pick<Case, 'evidence'> => ({
  evidence: new Map([[partition, { kind: 'digest', sha256 }]]),
})

describe('a relock', () => {
  it('does not go over a part of its owner’s own that the package leaves', () => {
    expect(says(ownRescueLeft)).toBe('over')
    const stock = sold.images.find(({ role }) => role === 'rescue')?.sha256 ?? ''
    expect(says({ ...ownRescueLeft, ...shows('rescue', stock), shelf: phone(sold).shelf })).toBe(
      'fits',
    )
    expect(says({ ...ownRescueLeft, evidence: new Map() })).toBe('fits')
    const brings = phone(sold, { intent: 'relock', ...shows('rescue', digestOf('own')) }, opened)
    expect(says(brings)).toBe('fits')
  })

  it('does not go over what stays in the slot that the package does not go to', () => {
    const next = tabletBuild('FEN-26.21B-S')
    const bench = benchOf({ family: fen, on: onTablet, shelf: [next], more: { lock: 'open' } })
    const at = (partition: string) =>
      says(caseOf(bench, next, { intent: 'relock', ...shows(partition, digestOf('own')) }))
    const runs = bench.device.slots?.runs ?? 'a'
    const other = runs === 'a' ? 'b' : 'a'
    expect([at(`kernel_${runs}`), at(`kernel_${other}`)]).toEqual(['over', 'fits'])
    expect(at('calib')).toBe('fits')
  })
})
