/**
 * Every finding has its witnesses: each declared input that a rule rests on, changed alone, moves exactly
 * the findings named here, and what no rule rests on moves none.
 */
import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import { familyTable } from '../family/layout.ts'
import { DISK_BYTES, case0417 } from '../testing/cases.ts'
import { reading, readings0417 } from '../testing/devices.ts'
import { SCALE, newest, proven } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import type { Manifest } from '../firmware/manifest.ts'
import type { Fact } from '../terms/device.ts'
import { judge } from './judge.ts'
import type { Case } from './rule.ts'

const findings = (more: Partial<Case>) =>
  new Map(judge(case0417(more)).findings.map((finding) => [finding.rule, JSON.stringify(finding)]))
const before = findings({})

/** Rules whose finding is another one, or came, or went. */
function moved(more: Partial<Case>): readonly string[] {
  const after = findings(more)
  const rules = new Set([...before.keys(), ...after.keys()])
  return [...rules].filter((rule) => before.get(rule) !== after.get(rule)).sort()
}
const says = (fact: Fact, value: string | number): Partial<Case> => ({
  identity: identify(tarn, readings0417([reading(fact, value, 'link', 2000)])),
})
const packed = (more: Partial<Manifest>): Partial<Case> => ({
  shelved: proven({ ...newest, ...more }),
})
const [target] = newest.targets
if (target === undefined) throw new Error('no target')
const [first, ...rest] = newest.images
if (first === undefined) throw new Error('no image')
const { house } = case0417()

/** What comes first, and what goes back, are for this very device as well. */
const GOES = ['promise.way-back', 'state.loader.least']

describe('a finding of the lead case', () => {
  it.each<[string, Partial<Case>, readonly string[]]>([
    ['model', says('model', 'BRAK-H2'), ['identity.model', ...GOES]],
    ['board', says('board', 'r5'), ['identity.board', ...GOES]],
    ['chipset', says('chipset', 'Flint 1'), ['identity.chipset', ...GOES]],
    ['storage', says('storageGb', 64), ['identity.storageGb', 'layout.table', ...GOES]],
    ['loader version', says('loaderVersion', 7), ['state.loader.least']],
    ['floor', says('floor', 6), ['state.floor']],
    ['floor above', says('floor', 7), ['promise.way-back', 'state.floor']],
    ['battery', says('batteryPercent', 20), ['state.battery']],
    ['release', says('release', 6), ['promise.data']],
  ])('follows the device’s %s', (_, more, rules) => {
    expect(moved(more)).toEqual(rules)
  })

  it.each<[string, Partial<Case>, readonly string[]]>([
    ['model', packed({ targets: [{ ...target, model: 'BRAK-H1' }] }), ['identity.model']],
    ['boards', packed({ targets: [{ ...target, boards: ['r5'] }] }), ['identity.board']],
    ['chipset', packed({ targets: [{ ...target, chipset: 'Slate 3' }] }), ['identity.chipset']],
    ['storage', packed({ targets: [{ ...target, storage: [64] }] }), ['identity.storageGb']],
    ['region', packed({ targets: [{ ...target, region: 'ML' }] }), ['identity.region']],
    ['least loader', packed({ requires: {} }), ['state.loader.least']],
    ['most loader', packed({ requires: { maxLoader: 5 } }), ['state.loader.most']],
    [
      'exact base',
      packed({ kind: 'incremental', requires: { exactBuild: 'H2.0ZC.r4' } }),
      ['state.base'],
    ],
    ['generation', packed({ generation: 4 }), ['state.floor']],
    ['release', packed({ release: 3 }), ['promise.data']],
    [
      'sizes',
      packed({ images: [{ ...first, size: DISK_BYTES }, ...rest] }),
      ['layout.images', 'state.battery'],
    ],
    [
      'partitions',
      packed({ images: [{ ...first, partition: 'calib', role: 'calib' }, ...rest] }),
      ['layout.never-written'],
    ],
  ])('follows the package’s %s', (_, more, rules) => {
    expect(moved(more)).toEqual(expect.arrayContaining([...rules]))
  })

  it.each<[string, Partial<Case>, readonly string[]]>([
    ['margin of charge', { house: { ...house, batteryMargin: 40 } }, ['state.battery']],
    ['floor of charge', { house: { ...house, batteryFloor: 60 } }, ['state.battery']],
    ['proof', { shelved: { ...proven(newest), state: 'whole' } }, ['package.published']],
    ['shelf', { shelf: [] }, ['state.loader.least']],
    ['device’s table', { table: undefined }, ['layout.table']],
  ])('follows the house’s or the bench’s %s', (_, more, rules) => {
    expect(moved(more)).toEqual(expect.arrayContaining([...rules]))
  })

  it('of an increment follows what is on the device, its digests, and nothing else', () => {
    const increment = packed({ kind: 'incremental', requires: { exactBuild: 'H2.0ZC.r4' } })
    const code = (more: Partial<Case>) => {
      const { findings } = judge(case0417({ ...increment, ...more }))
      const one = (id: string) => findings.find(({ rule }) => rule === id)?.code
      return one('state.untouched') ?? one('state.base')
    }
    const digest = (partition: string) =>
      new Map([...case0417().evidence, [partition, { kind: 'digest', sha256: 'another' } as const]])
    expect(code({})).toBe('fit.state.untouched.fits')
    expect(code(says('build', 'H2.0ZP.r4'))).toBe('fit.state.base.other')
    expect(code({ evidence: digest('kernel') })).toBe('fit.state.untouched.changed')
    expect(code({ evidence: digest('modem') })).toBe('fit.state.untouched.fits')
  })

  it.each<[string, Partial<Case>]>([
    ['the serial number', says('serial', 'TRN0000000001')],
    ['the account lock', says('accountLock', 'open')],
    [
      'the package’s published date',
      packed({ published: { ...newest.published, date: '2026-01-01' } }),
    ],
    ['its other names', packed({ otherNames: ['autumn'] })],
    ['its radio’s version', packed({ radioVersion: '9.9' })],
    ['a region that it is not for', { house: { ...house, lawfulRegions: ['HI', 'EX', 'ZZ'] } }],
    [
      'a larger disk behind the same table',
      { table: familyTable(tarn, { storageGb: 32 }, SCALE, DISK_BYTES * 2) },
    ],
  ])('stays when only %s changes', (_, more) => {
    expect(moved(more)).toEqual([])
  })
})
