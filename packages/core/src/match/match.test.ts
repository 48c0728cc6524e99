import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import type { Reading } from '../device/identity.ts'
import { familyTable } from '../family/layout.ts'
import { PACKAGE_STATES } from '../firmware/manifest.ts'
import type { Manifest, PackageState } from '../firmware/manifest.ts'
import { DISK_BYTES, case0417 } from '../testing/cases.ts'
import { reading, readings0417, without } from '../testing/devices.ts'
import {
  SCALE,
  loader7,
  newest,
  onDevice,
  otherBoard,
  pack,
  proven,
  shelf,
} from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import type { Fact } from '../terms/device.ts'
import { candidates, firstReason, judge } from './judge.ts'
import type { Case } from './rule.ts'
import { RULES } from './rules.ts'

/** What a rule says of a case. */
function says(rule: string, at: Case) {
  const finding = judge(at).findings.find((one) => one.rule === rule)
  return finding === undefined
    ? undefined
    : `${finding.verdict} ${finding.code.split('.').at(-1) ?? ''}`
}
const of = (manifest: Partial<Manifest>) =>
  case0417({ shelved: proven(pack({ build: 'H2.104.r4', ...manifest })) })
const read = (...more: readonly Reading[]) =>
  case0417({ identity: identify(tarn, readings0417(more)) })
const unread = (...facts: readonly Fact[]) =>
  case0417({ identity: identify(tarn, without(...facts)) })
const target = newest.targets[0]
const aimedAt = (change: object) =>
  of({ targets: [{ ...target, ...change }] as Manifest['targets'] })

describe('rules of identity', () => {
  it.each([
    ['identity.model', { model: 'BRAK-H2' }],
    ['identity.board', { boards: ['r5'] }],
    ['identity.chipset', { chipset: 'Slate 1' }],
    ['identity.storageGb', { storage: [64] }],
  ])('%s follows the package’s list', (rule, change) => {
    expect(says(rule, case0417())).toBe('fits fits')
    expect(says(rule, aimedAt(change))).toBe('does-not-fit not')
    expect(says(rule, of({ title: 'another title' }))).toBe('fits fits')
  })

  it('cannot tell without the fact, and names it', () => {
    const { verdict, findings } = judge(unread('board'))
    expect(verdict).toBe('cannot-tell')
    expect(findings[0]).toMatchObject({
      rule: 'identity.board',
      missing: ['board'],
      remedy: 'read',
    })
  })

  it('tell of a contradicted fact only when every claimed value says the same', () => {
    const two = [reading('board', 'r4', 'screen'), reading('board', 'r5', 'settings')]
    const identity = identify(tarn, [...without('board'), ...two])
    expect(says('identity.board', case0417({ identity }))).toBe('cannot-tell cannot-tell')
    const either = { ...aimedAt({ boards: ['r4', 'r5'] }), identity }
    expect(says('identity.board', either)).toBe('fits fits')
  })

  it('never judge a board, a chipset or a storage on a weak word', () => {
    for (const source of ['label', 'person', 'earlier'] as const)
      for (const [fact, value] of [
        ['board', 'r4'],
        ['chipset', 'Slate 2'],
        ['storageGb', 32],
        ['model', 'BRAK-H2K'],
        ['floor', 5],
      ] as const) {
        const identity = identify(tarn, [...without(fact), reading(fact, value, source)])
        expect(judge(case0417({ identity })).verdict, `${fact} by ${source}`).toBe('cannot-tell')
      }
  })

  it('want the board looked at where others of weight disagree with its fuses', () => {
    const at = read(reading('board', 'r5', 'screen'))
    expect(says('identity.board', at)).toBe('fits fits')
    expect(says('identity.by-eye', at)).toBe('fits-if look')
    expect(says('identity.by-eye', { ...at, byEye: true })).toBe('fits seen')
    expect(says('identity.by-eye', read(reading('board', 'r5', 'label')))).toBeUndefined()
  })

  const rows = (...targets: readonly object[]) =>
    of({ targets: targets.map((one) => ({ ...target, ...one })) as Manifest['targets'] })

  it('want one target to hold whole: fields of two rows are no row', () => {
    const mixed = { boards: ['r5'], storage: [32] }
    const other = { model: 'BRAK-H2', boards: ['r4'], storage: [64] }
    expect(says('identity.target', rows(mixed, other))).toBe('does-not-fit mixed')
    expect(says('identity.target', rows(mixed, { ...other, model: 'BRAK-H2K' }))).toBe(
      'does-not-fit mixed',
    )
    expect(says('identity.target', rows(mixed, {}))).toBe('fits fits')
    expect(judge(rows(mixed, other)).findings[0]).toMatchObject({
      rule: 'identity.target',
      final: true,
    })
    expect(says('identity.target', case0417())).toBeUndefined()
  })

  it('leave it to the rule of a field to say that no row lists it', () => {
    const at = rows({ boards: ['r5'] }, { boards: ['r6'] })
    expect([says('identity.board', at), says('identity.target', at)]).toEqual([
      'does-not-fit not',
      undefined,
    ])
  })

  it('ask for region and carrier, and for the law of the radio that comes with it', () => {
    expect(says('identity.region', case0417())).toBe('fits fits')
    expect(says('identity.region', aimedAt({ region: 'EX' }))).toBe('does-not-fit not')
    const ml = identify(tarn, [...without('region'), reading('region', 'ML')])
    expect(says('identity.region', { ...aimedAt({ region: 'ML' }), identity: ml })).toBe(
      'does-not-fit unlawful',
    )
    expect(says('identity.region', aimedAt({ region: 'HI', carriers: ['S'] }))).toBe(
      'does-not-fit not',
    )
  })

  it('judge the radio by the target that is for this device, not by another the package names', () => {
    expect(says('identity.region', rows({ region: 'HI' }, { region: 'ML' }))).toBe('fits fits')
    expect(says('identity.region', rows({ region: 'EX' }, { boards: ['r5'], region: 'HI' }))).toBe(
      'does-not-fit not',
    )
  })

  it('cannot tell of a radio whose region nobody names, and do not ask where there is no radio', () => {
    const [unnamed] = newest.targets.map(({ region: _, ...rest }) => rest)
    const targets = [unnamed] as Manifest['targets']
    expect(says('identity.region', of({ targets }))).toBe('cannot-tell unnamed')
    const images = newest.images.filter(({ role }) => role !== 'modem')
    expect(says('identity.region', of({ targets, images }))).toBeUndefined()
  })
})

describe('rules of state', () => {
  it('a loader too old is raised by a part of the shelf, which is risky and for good', () => {
    const finding = judge(case0417()).findings.find(({ rule }) => rule === 'state.loader')
    expect(finding).toMatchObject({
      verdict: 'fits-if',
      remedy: proven(loader7).key,
      facts: { here: 6, least: 7 },
    })
    expect(finding?.marks).toEqual([{ kind: 'risky', seconds: 1 }, { kind: 'irreversible' }])
  })

  it('without such a part it does not fit; with loader 7 it just fits', () => {
    const bare = shelf.filter(({ manifest }) => manifest.kind !== 'part')
    expect(says('state.loader', case0417({ shelf: bare }))).toBe('does-not-fit old')
    const raised = read(reading('loaderVersion', 7, 'link', 2000))
    expect(says('state.loader', raised)).toBe('fits fits')
    expect(says('state.loader', of({ requires: { maxLoader: 5 } }))).toBe('does-not-fit new')
  })

  it('the floor is never gone below, and raising it is said', () => {
    expect(says('state.floor', case0417())).toBe('fits rises')
    expect(says('state.floor', of({ generation: 5 }))).toBe('fits fits')
    expect(says('state.floor', of({ generation: 4 }))).toBe('does-not-fit below')
    expect(judge(of({ generation: 4 })).findings[0]?.final).toBe(true)
  })

  it('the charge follows the plan’s drain and the house’s margin', () => {
    expect(says('state.battery', case0417())).toBe('fits fits')
    expect(says('state.battery', read(reading('batteryPercent', 20, 'link', 2000)))).toBe(
      'fits-if charge',
    )
    const house = { ...case0417().house, batteryFloor: 80 }
    expect(says('state.battery', case0417({ house }))).toBe('fits-if charge')
  })

  it('a damaged cell stops everything', () => {
    const { verdict, findings } = judge(read(reading('batteryHealth', 'damaged', 'person')))
    expect([verdict, findings[0]?.rule, findings[0]?.final]).toEqual([
      'does-not-fit',
      'state.cell',
      true,
    ])
  })
})

describe('rules of layout and package', () => {
  it('an image larger than its partition never fits, by how much is said', () => {
    const [first, ...rest] = newest.images
    if (first === undefined) throw new Error('no image')
    const at = of({ images: [{ ...first, size: 97 * 4096 }, ...rest] })
    const finding = judge(at).findings[0]
    expect(finding).toMatchObject({ rule: 'layout.images', facts: { bytes: 1024 * 1024 } })
    const nowhere = of({ images: [{ ...first, partition: 'attic' }] })
    expect(says('layout.images', nowhere)).toBe('does-not-fit absent')
  })

  it('nothing ever goes to calibration or to the customer’s data', () => {
    const [first] = newest.images
    if (first === undefined) throw new Error('no image')
    for (const partition of ['calib', 'customer'])
      expect(says('layout.never', of({ images: [{ ...first, partition }] }))).toBe(
        'does-not-fit touched',
      )
    expect(says('layout.never', of({ effects: { erases: ['calib'] } }))).toBe(
      'does-not-fit touched',
    )
  })

  it('a table of another storage size is another layout', () => {
    expect(says('layout.table', case0417())).toBe('fits equal')
    const table = familyTable(tarn, { storageGb: 64 }, SCALE, DISK_BYTES)
    expect(says('layout.table', case0417({ table }))).toBe('does-not-fit differs')
  })

  it('a package is published, or only whole, or must be fetched first, or is refuted', () => {
    const state = (to: PackageState) =>
      says('package.here', case0417({ shelved: { ...proven(newest), state: to } }))
    expect(PACKAGE_STATES.map(state)).toEqual([
      'fits-if fetch',
      'fits-if whole',
      'fits published',
      'does-not-fit refuted',
    ])
  })

  it('data go unreadable when the release goes back, and are wiped when the package says so', () => {
    expect(says('promise.data', case0417())).toBe('fits kept')
    expect(says('promise.data', of({ release: 3 }))).toBe('does-not-fit unreadable')
    const agreed = { ...of({ effects: { erases: ['customer'] } }), keepData: false }
    expect(says('promise.data', agreed)).toBe('fits-if wiped')
  })

  it('what the family has no place for cannot be promised, and that is agreed to', () => {
    const photos = { placeless: ['photos'] }
    expect(says('promise.data', case0417(photos))).toBe('fits-if unpromised')
    expect(says('promise.data', case0417({ ...photos, keepData: false }))).toBe('fits kept')
    expect(says('promise.data', { ...of({ release: 3 }), ...photos })).toBe(
      'does-not-fit unreadable',
    )
  })
})

describe('candidates', () => {
  const titles = (more: Partial<Case>) => {
    const at = case0417(more)
    return candidates(at).map(({ shelved, verdict }) => `${shelved.manifest.build} ${verdict}`)
  }

  it('for an update run from the newest that can be taken to what is out', () => {
    expect(titles({})).toEqual([
      'H2.104.r4 fits-if',
      'H2.0ZP.r4 fits',
      'H2.0ZC.r4 fits',
      'H2.104.r5 does-not-fit',
    ])
  })

  it('for a restore begin with the very build it has', () => {
    expect(titles({ intent: 'restore' })[0]).toBe('H2.0ZC.r4 fits')
  })

  it('of an earlier release are out where data must survive, and come first where none must', () => {
    const older = proven(pack({ build: 'H2.0Y0.r4', release: 3 }))
    const at = { intent: 'downgrade', shelf: [proven(onDevice), older] } as const
    expect(titles({ ...at, keepData: true })).toEqual(['H2.0ZC.r4 fits', 'H2.0Y0.r4 does-not-fit'])
    expect(titles({ ...at, keepData: false })).toEqual(['H2.0Y0.r4 fits-if', 'H2.0ZC.r4 fits'])
  })

  it('are told alike by the first reason, which stops early', () => {
    for (const shelved of shelf) {
      const at = case0417({ shelved })
      expect(firstReason(at).verdict).toBe(judge(at).verdict)
    }
    expect(firstReason(case0417({ shelved: proven(otherBoard) })).reason?.rule).toBe(
      'identity.board',
    )
  })
})

describe('every rule', () => {
  it('has an id of its own and declares the codes it answers with', () => {
    expect(new Set(RULES.map(({ id }) => id)).size).toBe(RULES.length)
    for (const shelved of shelf)
      for (const { rule, code } of judge(case0417({ shelved })).findings) {
        const codes = RULES.find(({ id }) => id === rule)?.codes ?? []
        expect([...codes, 'fit.cannot-tell']).toContain(code)
      }
  })
})
