/** What a master technician says of a loader whose version is told and whose bytes nobody read. */
import { describe, expect, it } from 'vitest'
import type { Evidence } from '../difference/least-write.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { USUAL_HOUSE } from '../match/house.ts'
import type { Case } from '../match/rule.ts'
import { makePlan } from '../route/make-plan.ts'
import type { OnBench } from '../testing/families.ts'
import { alder, benchOf, caseOf, packageOf } from '../testing/families.ts'

const build = (more: Partial<Manifest> = {}) =>
  packageOf(alder, {
    model: 'CORV-5M',
    board: 'C',
    build: '21-2640.1-HO',
    release: 21,
    patchDate: '2026-10-01',
    generation: 3,
    loaderVersion: 31,
    requires: { minLoader: 30, maxLoader: 33 },
    ...more,
  })
const OTHER: Evidence = { kind: 'digest', sha256: 'f'.repeat(64) }
const next = build({ build: '21-2641.0-HO' })

type Told = {
  readonly read?: boolean
  readonly aim?: Manifest
} & Partial<Pick<Case, 'house' | 'intent'>>
function loaderIn(more: OnBench['more'], { read = false, aim = next, ...wish }: Told = {}): string {
  const bench = benchOf({
    family: alder,
    on: build(),
    shelf: [next],
    ...(more === undefined ? {} : { more }),
  })
  const at = caseOf(bench, aim, { keepData: true, intent: 'update', ...wish })
  const { mode, permission } = bench.device
  const made = makePlan({
    at: { ...at, evidence: new Map(read ? [['loader', OTHER]] : []) },
    mode,
    permission,
  })
  if (!made.ok) throw new Error(JSON.stringify(made.refusal))
  const decisions = made.value.packages.flatMap((one) => one.decisions)
  return decisions.find(({ image }) => image.role === 'loader')?.reason.kind ?? 'none'
}

describe('a loader that is kept once', () => {
  it('is not risked for the version that is there, as long as the closed lock starts signed ones alone', () => {
    expect(loaderIn({ lock: 'closed', loaderVersion: 31 })).toBe('same-version')
  })
  it('nor under an open lock, as long as nobody closes it over what is there', () => {
    expect(loaderIn({ lock: 'open', loaderVersion: 31 })).toBe('loader-stays')
    expect(loaderIn({ lock: 'open', loaderVersion: 31 }, { aim: build(), intent: 'relock' })).toBe(
      'no-evidence',
    )
  })
  it('is not written again by a house that writes every part, unless its bytes are others', () => {
    const house = { ...USUAL_HOUSE, writes: 'all' } as const
    expect(loaderIn({ loaderVersion: 31 }, { house })).toBe('loader-stays')
    expect(loaderIn({ loaderVersion: 30 }, { house })).toBe('house')
    expect(loaderIn({ loaderVersion: 31 }, { house, read: true })).toBe('house')
  })
  it('is written where its bytes were read and are others', () => {
    expect(loaderIn({ lock: 'closed', loaderVersion: 31 }, { read: true })).toBe('differs')
  })
  it('is another where its version is', () => {
    expect(loaderIn({ lock: 'closed', loaderVersion: 30 })).not.toBe('same-version')
  })
})
