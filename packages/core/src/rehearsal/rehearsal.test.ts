import { describe, expect, it } from 'vitest'
import { fold } from '../plan/folds.ts'
import { placeOf } from '../run/journal.ts'
import { begin, takeUp } from '../run/run.ts'
import { case0417 } from '../testing/cases.ts'
import { between, digestOf, proven } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import { device0417, nature, plan0417 } from '../testing/twins.ts'
import { BLOCK_BYTES, holds, isUntouched } from '../twin/blocks.ts'
import type { DeviceModel } from '../twin/state.ts'
import { factsOf } from '../twin/told.ts'
import type { DeviceFacts } from '../wire/facts.ts'
import { drive } from './drive.ts'
import { flatten, keepsPromise, rehearse, rehearseCuts, worstByStep } from './rehearse.ts'

const plan = plan0417()
const { commands } = flatten(plan)
const whole = rehearse(nature(), device0417(), plan)

describe('slip 0417 rehearsed', () => {
  it('ends on the newest build, started normally, tickets there and readable, lock closed', () => {
    const { state, device } = whole.end
    expect(state.phase).toEqual({ kind: 'ended' })
    expect(device).toMatchObject({
      mode: 'normal',
      outcome: 'normal',
      floors: { all: 6 },
      loaderVersion: 7,
      lock: 'closed',
      data: { release: 5, form: 'readable' },
    })
  })

  it('has written what the plan says, and left calibration and the customer alone', () => {
    const { parts } = whole.end.device
    for (const { decisions } of plan.packages)
      for (const { image, write } of decisions) {
        const map = parts[image.partition]?.map ?? []
        const blocks = Math.ceil(image.size / BLOCK_BYTES)
        expect(holds(map, image.sha256, 0, blocks, undefined), image.partition).toBe(write)
      }
    for (const name of ['calib', 'customer', 'cache'])
      expect(isUntouched(parts[name]?.map ?? [])).toBe(true)
  })

  it('takes a time inside the plan’s range, wherever the device lies in the family’s', () => {
    const { time, hands } = fold(plan, case0417())
    for (const pick of [0, 0.5, 1]) {
      const seconds = rehearse(nature({ pick }), device0417(), plan).lasts / 1000
      expect(seconds).toBeGreaterThanOrEqual(time.low - hands.high - 1)
      expect(seconds).toBeLessThanOrEqual(time.high)
    }
  })

  it('drains what the plan says at most', () => {
    const { drains } = fold(plan, case0417())
    const { battery } = rehearse(nature({ pick: 1 }), device0417(), plan).end.device
    expect(71 - battery).toBeLessThanOrEqual(drains + 0.5)
    expect(71 - battery).toBeGreaterThan(drains - 2)
  })

  it('by the keys alone ends the same; whoever waits for it then gives the link permission', () => {
    const byKeys = plan0417({}, false)
    const { state, device } = rehearse(nature(), device0417({ permission: false }), byKeys).end
    expect([state.phase.kind, device.outcome]).toEqual(['ended', 'normal'])
    expect(device.permission).toBe(true)
  })

  it('waits for a key at its first start, which its plan says and no older build asks for', () => {
    const asking = plan.steps.filter((step) => step.kind === 'by-hand' && step.what === 'go-on')
    const start = plan.steps.find(({ kind }) => kind === 'first-start')?.number ?? 0
    expect(asking.map(({ number }) => number)).toEqual([start + 1])
    const without = { ...plan, steps: plan.steps.filter((step) => step.kind !== 'by-hand') }
    const { state, device } = rehearse(nature(), device0417(), without).end
    expect([state.phase, device.key]).toMatchObject([
      { kind: 'stopped', why: { kind: 'waits' } },
      'asked',
    ])
    const later = { ...tarn, goOn: { ...tarn.goOn, from: 'H2.105.r4', say: 'x', seconds: 1 } }
    expect(plan0417({ family: later }).steps.some(({ kind }) => kind === 'by-hand')).toBe(false)
    const elsewhere = { ...nature(), family: later }
    expect(rehearse(elsewhere, device0417(), without).end.device.key).toBe('none')
  })

  it('keeps its promise, and does not where it ends on anything else', () => {
    const { device } = whole.end
    const says = factsOf(nature(), device)
    const fates = fold(plan, case0417()).fates
    const keeps = (more: Partial<DeviceModel> = {}, told: Partial<DeviceFacts> = {}) =>
      keepsPromise(plan, fates, { ...device, ...more }, { ...says, ...told })
    expect(keeps()).toBe(true)
    expect(keeps({ outcome: 'loop' })).toBe(false)
    expect(keeps({ outcome: 'loop' })).toBe(false)
    expect(keeps({ data: { ...device.data, form: 'unreadable' } })).toBe(false)
    for (const other of [{ build: 'x' }, { release: 4 }, { loaderVersion: 6 }, { floor: 5 }])
      expect(keeps({}, other)).toBe(false)
    expect(keeps({ battery: 3 }, { carrier: 'S' })).toBe(true)
    const wiped = fates.map((one) => ({ ...one, fate: 'wiped' as const }))
    expect(keepsPromise(plan, wiped, device, says)).toBe(false)
  })

  it('stops at another device, before it writes anything', () => {
    const other = rehearse(nature(), device0417({ serial: 'TRN4490077F32' }), plan).end
    expect(other.state.phase).toEqual({
      kind: 'stopped',
      why: { kind: 'wrong-device', serial: 'TRN4490077F32' },
    })
    expect(Object.values(other.device.parts).every(({ map }) => isUntouched(map))).toBe(true)
  })

  it('stops when the battery will not last, with what was written known', () => {
    const { state, device } = rehearse(nature(), device0417({ battery: 5 }), plan).end
    expect(device.mode).toBe('off')
    expect(state.phase.kind === 'stopped' || state.phase.kind === 'lost').toBe(true)
  })
})

describe('a run ended after any entry of its journal', () => {
  const { journal } = whole.end

  it('is taken up to the same end', () => {
    for (let length = 0; length <= journal.length; length += 1) {
      const kept = journal.slice(0, length)
      const { next } = placeOf(kept)
      const cut = drive(
        nature(),
        device0417(),
        begin(plan.serial, 1, commands),
        [],
        (scene) => scene.journal.length >= length && scene.state.next === next,
      )
      const turn = takeUp(plan.serial, 2, commands, kept)
      const end = drive(nature(), cut.device, turn, kept)
      expect(end.state.phase, `after entry ${length}`).toEqual({ kind: 'ended' })
      expect(end.device.parts).toEqual(whole.end.device.parts)
      expect(end.device).toMatchObject({ floors: { all: 6 }, outcome: 'normal', mode: 'normal' })
    }
  })

  it('and taken up elsewhere, leaves the first holder refused', () => {
    const halfway = drive(
      nature(),
      device0417(),
      begin(plan.serial, 1, commands),
      [],
      (scene) => scene.state.next === 20,
    )
    const taken = { ...halfway.device, epoch: 2 }
    const end = drive(
      nature(),
      taken,
      {
        state: { ...halfway.state },
        orders: [
          {
            kind: 'send',
            command: commands[20] ?? commands[0] ?? { kind: 'meet', mode: 'loader' },
          },
        ],
      },
      halfway.journal,
    )
    expect(end.state.phase).toEqual({ kind: 'stopped', why: { kind: 'superseded' } })
  })
})

describe('slip 0417 cut short', () => {
  const cuts = rehearseCuts(nature(), device0417(), plan)
  const worst = worstByStep(plan, cuts)
  const stepsOf = (role: string) =>
    plan.steps.flatMap((step) =>
      step.kind === 'write' && step.image.role === role ? [worst.get(step.number)] : [],
    )

  it('is dead in the one step that writes the loader, and only when its power goes', () => {
    expect(stepsOf('loader')).toEqual(['dead'])
    const dead = cuts.filter(({ leaves }) => leaves === 'dead')
    expect(dead.every(({ kind }) => kind === 'battery')).toBe(true)
    expect(new Set(dead.map(({ step }) => step)).size).toBe(1)
  })

  it('in the system parts loops with the data safe, and every such state has its way out run', () => {
    expect(new Set([...stepsOf('kernel'), ...stepsOf('support'), ...stepsOf('main')])).toEqual(
      new Set(['loop-data-safe']),
    )
    expect(
      cuts.some(({ leaves }) => leaves === 'needs-other-package' || leaves === 'data-lost'),
    ).toBe(false)
  })

  it('in the modem is done again; where nothing is written nothing happens', () => {
    expect(stepsOf('modem')).toEqual(['redo'])
    for (const step of plan.steps)
      if (step.kind === 'ready' || step.kind === 'prove')
        expect(worst.get(step.number)).toBe('unaffected')
  })

  it('between two images of one set leaves what the next piece would find, and nothing after the last', () => {
    const at = (kind: string, partition: string) =>
      plan.steps.find(
        (step) => step.kind === kind && 'image' in step && step.image.partition === partition,
      )?.number ?? 0
    expect(worst.get(at('read-back', 'kernel'))).toBe('loop-data-safe')
    expect(worst.get(at('read-back', 'main'))).toBe('unaffected')
    expect(worst.get(plan.steps.find(({ kind }) => kind === 'meet')?.number ?? 0)).toBe(
      'unaffected',
    )
  })

  it('falls into exactly one class at each of four places, by each of three kinds', () => {
    const pieces = plan.steps.filter(({ kind }) => kind === 'write').length
    expect(cuts).toHaveLength(pieces * 12)
  })

  it('has no deadly step where no loader is written', () => {
    const safe = plan0417({ shelved: proven(between) })
    const results = rehearseCuts(nature(), device0417(), safe)
    expect(results.some(({ leaves }) => leaves === 'dead')).toBe(false)
  })

  it('does not depend on what has nothing to do with it', () => {
    const evidence = new Map(case0417().evidence)
    evidence.set('cache', { kind: 'digest', sha256: digestOf('anything') })
    const same = rehearseCuts(nature(), device0417(), plan0417({ evidence }))
    expect(same).toEqual(cuts)
  })
})
