/** What a master technician says first where nothing goes the way that is wished. */
import { describe, expect, it } from 'vitest'
import type { Manifest } from '../firmware/manifest.ts'
import type { Case } from '../match/rule.ts'
import { judge } from '../match/judge.ts'
import { identify } from '../device/identity.ts'
import { case0417 } from '../testing/cases.ts'
import { without } from '../testing/devices.ts'
import { alder, benchOf, caseOf, packageOf } from '../testing/families.ts'
import { newest, onDevice, proven } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import { whyCannot } from './cannot.ts'
import { routesTo } from './route.ts'

const build = (name: string, release: number, more: Partial<Manifest> = {}) =>
  packageOf(alder, {
    model: 'CORV-5M',
    board: 'C',
    build: name,
    release,
    patchDate: `2026-0${release - 18}-01`,
    generation: 3,
    requires: { minLoader: 0 },
    ...more,
  })
const on = build('20-2636.0-HO', 20)

function said(shelf: readonly Manifest[], intent: Case['intent']) {
  const bench = benchOf({ family: alder, on, shelf })
  const { shelved: _, ...at } = caseOf(bench, shelf[0] ?? on, { keepData: false, intent })
  const start = { at, mode: bench.device.mode, permission: bench.device.permission }
  const cannot = whyCannot(start, routesTo({ start }).routes)
  return cannot && [cannot.aim?.manifest.build, cannot.finding?.rule]
}

describe('where nothing goes the way that is wished', () => {
  const newer = build('20-2640.1-HO', 20, { patchDate: '2026-05-01' })
  it('the package that would is named with what is gravest against it, whatever goes the other way', () => {
    const low = build('19-2620.1-HO', 19, { generation: 1 })
    const lower = build('19-2610.1-HO', 19, { generation: 1, patchDate: '2025-12-01' })
    const [aim, rule] = said([newer, lower, low], 'downgrade') ?? []
    expect([aim, rule?.startsWith('state.floor')]).toEqual(['19-2620.1-HO', true])
    /* One of another carrier is no answer where there is one of its own. */
    const foreign = build('19-2624.1-HN', 19, { patchDate: '2026-01-05' })
    const targets = foreign.targets.map((one) => ({ ...one, carriers: ['N'] }))
    expect(said([newer, low, { ...foreign, targets }], 'downgrade')?.[0]).toBe('19-2620.1-HO')
    expect(said([newer, { ...foreign, targets }], 'downgrade')).toEqual([
      '19-2624.1-HN',
      'identity.carrier',
    ])
    expect(said([newer], 'downgrade')).toEqual([undefined, undefined])
  })

  it('nothing is said where a route reaches it', () => {
    expect(said([build('19-2620.1-HO', 19)], 'downgrade')).toBeUndefined()
    expect(said([newer], 'update')).toBeUndefined()
  })

  it('nor where one ends in what is wished and misses something else, which it says itself', () => {
    const bench = benchOf({ family: alder, on, shelf: [newer] })
    const { shelved, ...at } = caseOf(bench, newer, { intent: 'update' })
    const start = { at, mode: bench.device.mode, permission: bench.device.permission }
    const ends = (pack: string) => [{ misses: ['lock'], moves: [{ pack, way: 'images' }] }] as const
    expect(whyCannot(start, ends(shelved.key))).toBeUndefined()
    expect(whyCannot(start, ends('another'))?.aim?.manifest.build).toBe('20-2640.1-HO')
  })
})

describe('data of which nobody read by what they were used', () => {
  it('hang on the newest build that is known, and that is named: were it one that its maker has not released', () => {
    const early = {
      ...newest,
      build: 'H2.106.r4',
      title: 'H2.106.r4',
      channel: 'unreleased',
    } as const
    const above = { ...early, release: newest.release + 1 }
    const finding = (more: readonly Manifest[]) =>
      judge(
        case0417({
          identity: identify(tarn, without('release')),
          shelf: [newest, onDevice, ...more].map((one) => proven(one)),
        }),
      ).findings.find(({ rule }) => rule === 'promise.data')
    expect(finding([])?.code).toBe('fit.promise.data.unseen')
    expect(finding([above])?.facts['newer']).toBe('H2.106.r4')
    expect(finding([{ ...above, title: 'another' }])?.facts['newer']).toBe('another')
  })
})
