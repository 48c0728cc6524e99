import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import { idOfKey } from '../firmware/manifest.ts'
import { case0417 } from '../testing/cases.ts'
import { reading, readings0417, without } from '../testing/devices.ts'
import { between, digestOf, newest, pack, proven, shelf } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import type { Case } from '../match/rule.ts'
import { drainOf } from '../pace/pace.ts'
import { effectsOf, fold } from '../plan/folds.ts'
import { restDraws } from '../plan/rest.ts'
import { makePlan } from './make-plan.ts'
import type { Plan } from '../plan/plan.ts'

function plan(more: Partial<Case> = {}, permission = true): Plan {
  const made = makePlan({ at: case0417(more), mode: 'normal', permission })
  if (!made.ok) throw new Error(JSON.stringify(made.refusal))
  return made.value
}
const told = (made: Plan) =>
  made.steps.map((step) => {
    if (step.kind === 'write') return `write ${step.image.role} ${step.piece}/${step.pieces}`
    if (step.kind === 'read-back') return `read-back ${step.image.role}`
    return step.kind === 'ready' ? `ready ${step.what}` : step.kind
  })

describe('the plan of slip 0417', () => {
  it('raises the loader first, then writes what differs, biggest last', () => {
    expect(told(plan())).toEqual([
      'ready backup',
      'ready charge',
      'ready cable',
      'ready permission',
      'enter',
      'meet',
      'write loader 1/1',
      'read-back loader',
      'restart',
      'write modem 1/1',
      'read-back modem',
      'restart',
      'write kernel 1/1',
      'read-back kernel',
      ...[1, 2, 3].map((piece) => `write support ${piece}/3`),
      'read-back support',
      ...Array.from({ length: 11 }, (_, index) => `write main ${index + 1}/11`),
      'read-back main',
      'first-start',
      'by-hand',
      'prove',
    ])
  })

  it('expects what the package and its part promise', () => {
    expect(plan().expected).toEqual({ build: 'H2.104.r4', release: 5, loaderVersion: 7, floor: 6 })
  })

  it('goes by the keys where the link permission is not given, and asks for none', () => {
    const steps = told(plan({}, false))
    expect(steps.filter((step) => step === 'enter')).toHaveLength(2)
    expect(steps).not.toContain('ready permission')
  })

  it('asks a device that does not start for no switch in its settings', () => {
    const made = makePlan({ at: case0417(), mode: 'loader', permission: true })
    expect(made.ok && told(made.value)).not.toContain('ready permission')
    expect(told(plan())).toContain('ready permission')
  })

  it('leaves the link permission as it is: it is withdrawn after the last look', () => {
    expect(told(plan()).at(-1)).toBe('prove')
  })

  it('names what it can promise nothing of', () => {
    expect(plan().placeless).toEqual([])
    expect(plan({ placeless: ['photos'] }).placeless).toEqual(['photos'])
  })

  it('does not raise a loader that need not be raised', () => {
    expect(told(plan({ shelved: proven(between) })).some((step) => step.includes('loader'))).toBe(
      false,
    )
  })

  it('cuts pieces as the family says, and they cover the image exactly', () => {
    const small = plan({ family: { ...tarn, pieceMiB: 160 } })
    expect(told(small)).toContain('write main 22/22')
    for (const made of [plan(), small]) {
      const pieces = made.steps.flatMap((step) =>
        step.kind === 'write' && step.image.role === 'main' ? [step] : [],
      )
      const end = pieces.reduce((at, { offset, size }) => (offset === at ? offset + size : -1), 0)
      expect(end).toBe(newest.images.find(({ role }) => role === 'main')?.size)
    }
  })

  it('names the way back only while its package is here and proven', () => {
    expect(idOfKey(plan().wayBack ?? '')).toBe('tarn-H2.0ZC.r4-full')
    const gone = shelf.filter(({ manifest }) => manifest.id !== 'tarn-H2.0ZC.r4-full')
    expect(plan({ shelf: gone }).wayBack).toBeUndefined()
    const unproven = shelf.map((one) => ({ ...one, state: 'whole' as const }))
    expect(plan({ shelf: unproven }).wayBack).toBeUndefined()
  })
})

describe('no plan', () => {
  const refused = (more: Partial<Case>, mode: 'normal' | 'transfer' = 'normal') => {
    const made = makePlan({ at: case0417(more), mode, permission: true })
    return made.ok ? undefined : made.refusal
  }

  it('says which rule stands in the way', () => {
    const shelved = proven(pack({ build: 'H2.104.r4', generation: 4 }))
    expect(refused({ shelved })).toMatchObject({ kind: 'not-takeable', rule: 'state.floor' })
    expect(refused({ identity: identify(tarn, without('board')) })).toMatchObject({
      kind: 'not-takeable',
      rule: 'identity.board',
    })
  })

  it('is made without knowing the very device, or a way into its loader', () => {
    expect(refused({ identity: identify(tarn, without('serial')) })).toEqual({
      kind: 'unread',
      fact: 'serial',
    })
    expect(refused({}, 'transfer')).toEqual({ kind: 'no-way', from: 'transfer' })
  })

  it('is made where nothing is to be written', () => {
    const evidence = new Map(
      newest.images.map(({ partition, sha256 }) => [
        partition,
        { kind: 'digest', sha256 } as const,
      ]),
    )
    const identity = identify(tarn, readings0417([reading('loaderVersion', 7, 'link', 2000)]))
    expect(refused({ evidence, identity })).toEqual({ kind: 'nothing-to-write' })
  })
})

describe('what the plan comes to', () => {
  const folds = (more: Partial<Case> = {}) => fold(plan(more), case0417(more))

  it('is folded from the steps: time, hands, restarts, charge', () => {
    const { time, hands, restarts, needs } = folds()
    expect(Math.round(time.low / 60)).toBeGreaterThanOrEqual(16)
    expect(Math.round(time.high / 60)).toBeLessThanOrEqual(26)
    expect(hands.low).toBe(240 + 30 + 30 + 60 + 10)
    expect(restarts).toBe(4)
    expect(needs).toBeGreaterThan(20)
  })

  it('leaves less to be drawn of a charge with each step, by its family’s figures', () => {
    const made = plan()
    const left = made.steps.map((_, index) => restDraws(tarn, made, index + 1))
    expect(left[0]).toBeLessThanOrEqual(folds().draws)
    expect(left[0]).toBeGreaterThanOrEqual(Math.floor(folds().drains))
    expect([...left].sort((a, b) => b - a)).toEqual(left)
    expect(left.at(-1)).toBeLessThan((left[0] ?? 0) / 2)
    const { drainPerMinute, pace } = tarn
    const doubled = Object.entries(drainPerMinute).map(([key, rate]) => [key, rate * 2])
    const thirsty = {
      ...tarn,
      drainPerMinute: Object.fromEntries(doubled) as typeof drainPerMinute,
    }
    expect(restDraws(thirsty, made, 1)).toBeGreaterThan(left[0] ?? 0)
    const wiped = { ...pace, 'first-start-wiped': { seconds: [1, 2] as [number, number] } }
    expect(restDraws({ ...tarn, pace: wiped }, made, 1)).toBe(left[0])
  })

  it('never asks more of a run than is left of a charge it began with, without any margin', () => {
    const made = plan()
    const drains = effectsOf(made, tarn).map((effect) => drainOf(tarn, effect))
    const begun = Math.ceil(folds().draws)
    for (const [index] of drains.entries()) {
      /* The step under way has drained all it may, and counts still as under way. */
      const spent = drains.slice(0, index + 1).reduce((sum, one) => sum + one, 0)
      const shown = Math.round(begun - spent)
      expect([index, shown >= restDraws(tarn, made, index + 1)]).toEqual([index, true])
    }
  })

  it('follows a family figure, and not one it does not use', () => {
    const slower = {
      ...tarn,
      pace: { ...tarn.pace, 'first-start': { seconds: [600, 900] as [number, number] } },
    }
    expect(folds({ family: slower }).time.low - folds().time.low).toBeCloseTo(420)
    const wiped = {
      ...tarn,
      pace: { ...tarn.pace, 'first-start-wiped': { seconds: [1, 2] as [number, number] } },
    }
    expect(folds({ family: wiped })).toEqual(folds())
  })

  it('says of each of the customer’s things what becomes of it', () => {
    const told = (more?: Parameters<typeof folds>[0]) =>
      folds(more).fates.map(({ item, fate, why }) => `${item} ${fate} ${why}`)
    expect(told()).toEqual(['tickets kept untouched', 'settings kept untouched'])
    const wipes = proven(pack({ ...newest, effects: { erases: ['customer'] } }))
    expect(told({ shelved: wipes, keepData: false })[0]).toBe('tickets wiped erased')
    const back = proven(pack({ build: 'H2.0Y0.r4', release: 3 }))
    expect(told({ shelved: back, keepData: false })[0]).toBe('tickets wiped back')
    const dated = { ...tarn, dataKeys: { ...tarn.dataKeys, hangOn: ['patchDate' as const] } }
    const older = proven(pack({ ...newest, patchDate: '2026-01-01' }))
    expect(told({ shelved: older, family: dated, keepData: false })[0]).toBe('tickets wiped back')
  })

  it('takes as long as what it writes: a device that has the modem already is quicker', () => {
    const evidence = new Map(case0417().evidence)
    evidence.set('modem', { kind: 'digest', sha256: digestOf('modem H2.104.r4') })
    expect(folds({ evidence }).time.low).toBeLessThan(folds().time.low)
    expect(folds({ evidence }).restarts).toBe(3)
  })
})
