import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import type { Reading } from '../device/identity.ts'
import { familyTable } from '../family/layout.ts'
import type { Manifest } from '../firmware/manifest.ts'
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
    ['identity.model', { model: 'BRAK-H1' }],
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
      remedy: { kind: 'read', facts: ['board'] },
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

  it('ask the floor of what is written, though the loader stays behind', () => {
    const { images } = newest
    const whole = [...images, { ...loader7.images[0], archive: images[0]?.archive }]
    const low = of({
      images: whole as Manifest['images'],
      loaderVersion: 5,
      generation: 4,
      requires: {},
    })
    expect(says('state.loader.stays', low)).toBe('fits older')
    expect(says('state.floor', low)).toBe('does-not-fit below')
    const alone = { ...newest, generation: 6, generations: { loader: 4 } }
    const behind = of({
      ...alone,
      images: whole as Manifest['images'],
      loaderVersion: 5,
      requires: {},
    })
    expect(says('state.floor', behind)).not.toBe('does-not-fit below')
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
      overruled: 'nobody',
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

  it('hold the radio against the region it was made for, whatever the device was sold in', () => {
    const ml = identify(tarn, [...without('region'), reading('region', 'ML')])
    const at = { ...aimedAt({ region: 'ML' }), identity: ml }
    expect([says('identity.region', at), says('promise.radio-law', at)]).toEqual([
      'fits fits',
      'does-not-fit unlawful',
    ])
  })

  it('judge the radio by the law of where it will be used', () => {
    const used = (region: string, target: object = {}) => {
      const line = { topic: 'use.region', answer: region, at: 1 }
      return says('promise.radio-law', { ...aimedAt(target), lines: new Map([[line.topic, line]]) })
    }
    expect([used('here'), used('HI'), used('ML')]).toEqual([
      'fits fits',
      'fits fits',
      'does-not-fit unlawful',
    ])
    const ml = identify(tarn, [...without('region'), reading('region', 'ML')])
    const theirs = (region: string) => {
      const line = { topic: 'use.region', answer: region, at: 1 }
      const lines = new Map([[line.topic, line]])
      return says('promise.radio-law', { ...aimedAt({ region: 'ML' }), identity: ml, lines })
    }
    expect([theirs('here'), theirs('ML')]).toEqual(['does-not-fit unlawful', 'fits fits'])
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
    expect(says('promise.radio-law', of({ targets }))).toBe('cannot-tell unnamed')
    const images = newest.images.filter(({ role }) => role !== 'modem')
    expect(says('promise.radio-law', of({ targets, images }))).toBeUndefined()
  })
})

describe('rules of state', () => {
  it('a loader too old is raised by a part of the shelf, which is risky and for good', () => {
    const finding = judge(case0417()).findings.find(({ rule }) => rule === 'state.loader.least')
    expect(finding).toMatchObject({
      verdict: 'fits-if',
      remedy: { kind: 'along', first: proven(loader7).key },
      facts: { here: 6, least: 7 },
    })
    expect(finding?.marks).toEqual([{ kind: 'risky', seconds: 1 }, { kind: 'irreversible' }])
  })

  it('a way back is for this very board, and not below a floor', () => {
    const back = (more: Partial<Manifest>, floor = 5) => {
      const at = {
        ...read(reading('floor', floor, 'link', 2000)),
        shelf: [proven({ ...onDevice, ...more })],
      }
      return says('promise.way-back', at)
    }
    const [bare] = onDevice.targets
    const board = { targets: [{ ...bare, boards: ['r5'] }] as Manifest['targets'] }
    expect(back({})).toBe('fits here')
    expect(back({ generation: 5 }, 5)).toBe('fits here')
    expect(back({ generation: 4 }, 5)).toBe('fits-if none')
    expect(back(board)).toBe('fits-if none')
  })

  it('a loader is raised by a part for this very board, and by no other', () => {
    const [bare] = loader7.targets
    const foreign = (more: object) => {
      const targets = [{ ...bare, ...more }] as Manifest['targets']
      const raiser = proven({ ...loader7, targets })
      return case0417({ shelf: [proven(newest), raiser] })
    }
    const at = (more: object) => says('state.loader.least', foreign(more))
    expect(at({})).toBe('fits-if raise')
    expect(at({ boards: ['r5'] })).toBe('does-not-fit old')
    expect(at({ model: 'BRAK-H2' })).toBe('does-not-fit old')
    expect(at({ chipset: 'Slate 1' })).toBe('does-not-fit old')
    expect(at({ storage: [64] })).toBe('does-not-fit old')
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
    expect([verdict, findings[0]?.rule]).toEqual(['does-not-fit', 'state.cell'])
  })
})

describe('rules of layout and package', () => {
  it('an image larger than its partition never fits, by how much is said', () => {
    const [first, ...rest] = newest.images
    if (first === undefined) throw new Error('no image')
    const at = of({ images: [{ ...first, size: 97 * 4096 }, ...rest] })
    const finding = judge(at).findings[0]
    expect(finding).toMatchObject({ rule: 'layout.images', facts: { bytes: 1024 * 1024 } })
  })

  it('nothing ever goes to calibration or to the customer’s data', () => {
    const [first] = newest.images
    if (first === undefined) throw new Error('no image')
    for (const partition of ['calib', 'customer'])
      expect(says('layout.never-written', of({ images: [{ ...first, partition }] }))).toBe(
        'does-not-fit touched',
      )
  })

  it('a table of another storage size is another layout', () => {
    expect(says('layout.table', case0417())).toBe('fits equal')
    const table = familyTable(tarn, { storageGb: 64 }, SCALE, DISK_BYTES)
    expect(says('layout.table', case0417({ table }))).toBe('does-not-fit differs')
  })

  it('an unread table is judged by the family’s own, and asked for before anything is written', () => {
    const [first, ...rest] = newest.images
    if (first === undefined) throw new Error('no image')
    const large = of({ images: [{ ...first, size: 97 * 4096 }, ...rest] })
    const blind = { ...large, table: undefined }
    expect(says('layout.images', blind)).toBe('does-not-fit large')
    expect(says('layout.table', case0417({ table: undefined }))).toBe('fits-if met')
  })

  it('data that go back to an earlier release are lost for who must keep them', () => {
    const back = of({ release: 3 })
    expect(says('promise.data', back)).toBe('does-not-fit lost')
    expect(says('promise.data', { ...back, keepData: false })).toBe('fits-if wiped')
    expect(says('promise.things', case0417({ placeless: ['photos'], keepData: false }))).toBe(
      undefined,
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
