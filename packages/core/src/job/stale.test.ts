import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import { judge } from '../match/judge.ts'
import { RULES } from '../match/rules.ts'
import { case0417 } from '../testing/cases.ts'
import { reading, readings0417, without } from '../testing/devices.ts'
import { newest, proven } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import { OF_SOME_PACKAGES, neededFacts, openFacts, waitingFor } from './needed.ts'
import type { Fact } from '../terms/device.ts'
import { basisOf, changesIn } from './stale.ts'

const basis = (more: Parameters<typeof case0417>[0] = {}) =>
  basisOf(case0417(more), 'normal', [proven(newest).key])
const said = (...more: Parameters<typeof reading>[]) => ({
  identity: identify(tarn, readings0417(more.map((one) => reading(...one)))),
})

describe('what a plan rests on', () => {
  it('tells a changed reading in words: what, from, to', () => {
    const changed = changesIn(basis(), basis(said(['board', 'r5', 'link', 2000])))
    expect(changed).toEqual([{ what: 'fact.board', from: 'r4', to: 'r5' }])
  })

  it('tells a contradiction by both values', () => {
    const [change] = changesIn(
      basis(),
      basis({
        identity: identify(tarn, [
          ...without('model'),
          reading('model', 'BRAK-H2K', 'screen'),
          reading('model', 'BRAK-H2', 'settings'),
        ]),
      }),
    )
    expect(change).toEqual({
      what: 'fact.model',
      from: 'BRAK-H2K',
      to: 'BRAK-H2 / BRAK-H2K',
    })
  })

  it('outlives the charge, and a reading that says the same again', () => {
    expect(changesIn(basis(), basis(said(['batteryPercent', 40, 'link', 2000])))).toEqual([])
    expect(changesIn(basis(), basis(said(['board', 'r4', 'screen', 2000])))).toEqual([])
  })

  it('tells digests, packages, mode and house', () => {
    const { house, shelf } = case0417()
    const moved = changesIn(basis(), {
      ...basis({
        evidence: new Map(),
        house: { ...house, batteryMargin: 30 },
        shelf: shelf.map((one) => ({ ...one, state: 'known' as const })),
      }),
      mode: 'loader',
    }).map(({ what }) => what)
    expect(moved).toEqual(
      expect.arrayContaining(['evidence.main', 'house.batteryMargin', 'mode', 'package.H2.104.r4']),
    )
    expect(moved).not.toContain('package.H2.0ZP.r4')
  })
})

/** Floors of single parts, where a family keeps one for the whole. */
const NOT_KEPT: readonly Fact[] = [
  'floorLoader',
  'floorModem',
  'floorMain',
  'merge',
  ...OF_SOME_PACKAGES,
]

describe('the facts a job needs', () => {
  it('are those of the rules, the serial and the build', () => {
    for (const { needs } of RULES.filter(
      ({ needs: [first] }) => first !== undefined && !NOT_KEPT.includes(first),
    ))
      expect(neededFacts(tarn)).toEqual(expect.arrayContaining([...needs]))
    for (const fact of NOT_KEPT) expect(neededFacts(tarn)).not.toContain(fact)
    expect(openFacts(tarn, identify(tarn, readings0417()), { lines: undefined })).toEqual([])
    expect(
      openFacts(tarn, identify(tarn, without('board', 'serial')), { lines: undefined }),
    ).toEqual(['board', 'serial'])
  })

  it('say which packages wait for each', () => {
    const at = case0417({ identity: identify(tarn, without('board')) })
    const judged = [judge(at)]
    expect(waitingFor('board', judged)).toEqual(['H2.104.r4'])
    expect(waitingFor('model', judged)).toEqual([])
  })
})
