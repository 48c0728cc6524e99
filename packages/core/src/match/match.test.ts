import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import type { Reading } from '../device/identity.ts'
import type { Manifest } from '../firmware/manifest.ts'
import { case0417 } from '../testing/cases.ts'
import { reading, readings0417, without } from '../testing/devices.ts'
import { loader7, newest, onDevice, otherBoard, pack, proven, shelf } from '../testing/packages.ts'
import { saysOf } from '../testing/judged.ts'
import { tarn } from '../testing/tarn.ts'
import type { Fact } from '../terms/device.ts'
import { candidates, firstReason, judge } from './judge.ts'
import type { Case } from './rule.ts'

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
    expect(saysOf(rule, case0417())).toBe('fits fits')
    expect(saysOf(rule, aimedAt(change))).toBe('does-not-fit not')
    expect(saysOf(rule, of({ title: 'another title' }))).toBe('fits fits')
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
    expect(saysOf('identity.board', case0417({ identity }))).toBe('cannot-tell cannot-tell')
    const either = { ...aimedAt({ boards: ['r4', 'r5'] }), identity }
    expect(saysOf('identity.board', either)).toBe('fits fits')
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
    expect(saysOf('identity.board', at)).toBe('fits fits')
    expect(saysOf('identity.by-eye', at)).toBe('fits-if look')
    expect(saysOf('identity.by-eye', { ...at, byEye: true })).toBe('fits seen')
    expect(saysOf('identity.by-eye', read(reading('board', 'r5', 'label')))).toBeUndefined()
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
    expect(saysOf('state.loader.stays', low)).toBe('fits older')
    expect(saysOf('state.floor', low)).toBe('does-not-fit below')
    const alone = { ...newest, generation: 6, generations: { loader: 4 } }
    const behind = of({
      ...alone,
      images: whole as Manifest['images'],
      loaderVersion: 5,
      requires: {},
    })
    expect(saysOf('state.floor', behind)).not.toBe('does-not-fit below')
  })

  it('ask the floor of a loader that a device installs with the rest, and say when it alone raises it', () => {
    const { images } = newest
    const whole = [...images, { ...loader7.images[0], archive: images[0]?.archive }]
    const made = (generations: NonNullable<Manifest['generations']>) =>
      of({
        images: whole as Manifest['images'],
        loaderVersion: 5,
        generation: 5,
        generations,
        requires: {},
      })
    const low = made({ loader: 4 })
    expect(saysOf('state.floor', { ...low, way: 'images' })).toBe('fits fits')
    expect(saysOf('state.floor', { ...low, way: 'card' })).toBe('does-not-fit below')
    const high = judge({ ...made({ loader: 6 }), way: 'card' }).findings.find(
      ({ rule }) => rule === 'state.floor',
    )
    expect(high).toMatchObject({
      code: 'fit.state.floor.rises',
      facts: { here: 5, generation: 6 },
      marks: [{ kind: 'irreversible' }],
    })
  })

  const rows = (...targets: readonly object[]) =>
    of({ targets: targets.map((one) => ({ ...target, ...one })) as Manifest['targets'] })

  it('want one target to hold whole: fields of two rows are no row', () => {
    const mixed = { boards: ['r5'], storage: [32] }
    const other = { model: 'BRAK-H2', boards: ['r4'], storage: [64] }
    expect(saysOf('identity.target', rows(mixed, other))).toBe('does-not-fit mixed')
    expect(saysOf('identity.target', rows(mixed, { ...other, model: 'BRAK-H2K' }))).toBe(
      'does-not-fit mixed',
    )
    expect(saysOf('identity.target', rows(mixed, {}))).toBe('fits fits')
    expect(judge(rows(mixed, other)).findings[0]).toMatchObject({
      rule: 'identity.target',
      overruled: 'nobody',
    })
    expect(saysOf('identity.target', case0417())).toBeUndefined()
  })

  it('leave it to the rule of a field to say that no row lists it', () => {
    const at = rows({ boards: ['r5'] }, { boards: ['r6'] })
    expect([saysOf('identity.board', at), saysOf('identity.target', at)]).toEqual([
      'does-not-fit not',
      undefined,
    ])
  })

  it('hold the radio against the region it was made for, whatever the device was sold in', () => {
    const ml = identify(tarn, [...without('region'), reading('region', 'ML')])
    const at = { ...aimedAt({ region: 'ML' }), identity: ml }
    expect([saysOf('identity.region', at), saysOf('promise.radio-law', at)]).toEqual([
      'fits fits',
      'does-not-fit unlawful',
    ])
  })

  it('judge the radio by the law of where it will be used', () => {
    const used = (region: string, target: object = {}) => {
      const line = { topic: 'use.region', answer: region, at: 1 }
      return saysOf('promise.radio-law', {
        ...aimedAt(target),
        lines: new Map([[line.topic, line]]),
      })
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
      return saysOf('promise.radio-law', { ...aimedAt({ region: 'ML' }), identity: ml, lines })
    }
    expect([theirs('here'), theirs('ML')]).toEqual(['does-not-fit unlawful', 'fits fits'])
  })

  it('judge the radio by the target that is for this device, not by another the package names', () => {
    expect(saysOf('identity.region', rows({ region: 'HI' }, { region: 'ML' }))).toBe('fits fits')
    expect(
      saysOf('identity.region', rows({ region: 'EX' }, { boards: ['r5'], region: 'HI' })),
    ).toBe('does-not-fit not')
  })

  it('cannot tell of a radio whose region nobody names, and do not ask where there is no radio', () => {
    const [unnamed] = newest.targets.map(({ region: _, ...rest }) => rest)
    const targets = [unnamed] as Manifest['targets']
    expect(saysOf('promise.radio-law', of({ targets }))).toBe('cannot-tell unnamed')
    const images = newest.images.filter(({ role }) => role !== 'modem')
    expect(saysOf('promise.radio-law', of({ targets, images }))).toBeUndefined()
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
      return saysOf('promise.way-back', at)
    }
    const [bare] = onDevice.targets
    const board = { targets: [{ ...bare, boards: ['r5'] }] as Manifest['targets'] }
    expect(back({})).toBe('fits here')
    /* Newer by its generation, the target's first start raises the floor over it. */
    expect(back({ generation: 5 }, 5)).toBe('fits closes')
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
    const at = (more: object) => saysOf('state.loader.least', foreign(more))
    expect(at({})).toBe('fits-if raise')
    expect(at({ boards: ['r5'] })).toBe('does-not-fit old')
    expect(at({ model: 'BRAK-H2' })).toBe('does-not-fit old')
    expect(at({ chipset: 'Slate 1' })).toBe('does-not-fit old')
    expect(at({ storage: [64] })).toBe('does-not-fit old')
  })

  it('the charge follows the plan’s drain and the house’s margin', () => {
    expect(saysOf('state.battery', case0417())).toBe('fits fits')
    expect(saysOf('state.battery', read(reading('batteryPercent', 20, 'link', 2000)))).toBe(
      'fits-if charge',
    )
    const house = { ...case0417().house, batteryFloor: 80 }
    expect(saysOf('state.battery', case0417({ house }))).toBe('fits-if charge')
  })

  it.each(['damaged', 'swollen', 'hot', 'wet', 'dented'])('a %s cell stops everything', (word) => {
    for (const source of ['person', 'settings'] as const) {
      const { verdict, findings } = judge(
        read(reading('batteryHealth', word, source), reading('batteryHealth', 'sound', 'rescue')),
      )
      expect([verdict, findings[0]?.rule]).toEqual(['does-not-fit', 'state.cell'])
    }
    expect(saysOf('state.cell', read(reading('batteryHealth', 'sound', 'settings')))).toBe(
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
