import { describe, expect, it } from 'vitest'
import { DATA, device0417, nature } from '../testing/twins.ts'
import { between, digestOf, newest } from '../testing/packages.ts'
import type { DeviceModel } from './state.ts'
import { startOf } from './start.ts'
import type { Nature } from './stepped.ts'
import type { TwinInput } from './stepped.ts'
import { step } from './twin.ts'
import { cutAt } from './written.ts'

const self = nature()
const inLoader = (more: Partial<DeviceModel> = {}) => device0417({ mode: 'loader', ...more })

/** Inputs one after the other; the last answer and the device. */
function tell(device: DeviceModel, inputs: readonly TwinInput[], of: Nature = self) {
  let stepped = {
    device,
    output: { kind: 'silent' } as ReturnType<typeof step>['output'],
    doneAt: 0,
  }
  for (const input of inputs) stepped = step(of, stepped.device, input, stepped.device.at)
  return stepped
}
const begin = (partition: string, image: string, more: object = {}): TwinInput => ({
  kind: 'begin',
  epoch: 1,
  partition,
  offset: 0,
  size: 4096,
  image,
  ...more,
})
const refusal = (device: DeviceModel, input: TwinInput) => {
  const { output } = tell(device, [input])
  return output.kind === 'refused' ? output.code : output.kind
}
/** Writes a whole image and finishes. */
function write(role: string, build: string): readonly TwinInput[] {
  const from = [newest, between].find((one) => one.build === build)
  const image = from?.images.find((one) => one.role === role)
  const [size, sha256] = [image?.size ?? 0, image?.sha256 ?? '']
  return [
    begin(role, sha256, { size }),
    { kind: 'chunk', epoch: 1, offset: 0, size },
    { kind: 'finish', epoch: 1 },
  ]
}
import { tarn } from '../testing/tarn.ts'

describe('the twin’s loader', () => {
  it('takes what is signed for the part, and nothing else', () => {
    const device = inLoader()
    expect(refusal(device, begin('modem', digestOf('modem H2.104.r4')))).toBe('kept')
    expect(refusal(device, begin('modem', digestOf('main H2.104.r4')))).toBe('not-signed')
    expect(refusal(device, begin('modem', digestOf('unheard of')))).toBe('not-signed')
    expect(refusal(device, begin('calib', digestOf('modem H2.104.r4')))).toBe('never-written')
    expect(refusal(device, begin('attic', digestOf('modem H2.104.r4')))).toBe('no-partition')
    expect(refusal(device, begin('modem', digestOf('modem H2.104.r4'), { size: 1e9 }))).toBe(
      'too-large',
    )
  })

  it('takes nothing below the floor, in another mode, or from an older epoch', () => {
    const modem = begin('modem', digestOf('modem H2.104.r4'))
    expect(refusal(inLoader({ floors: { all: 7 } }), modem)).toBe('floor')
    expect(refusal(device0417(), modem)).toBe('wrong-mode')
    expect(refusal(inLoader({ epoch: 2 }), modem)).toBe('old-epoch')
  })

  it('keeps bytes only in their order', () => {
    const begun = tell(inLoader(), [
      begin('modem', digestOf('modem H2.104.r4'), { size: 8192 }),
    ]).device
    expect(refusal(begun, { kind: 'chunk', epoch: 1, offset: 4096, size: 4096 })).toBe('bad-offset')
    expect(refusal(begun, { kind: 'finish', epoch: 1 })).toBe('bad-offset')
    expect(refusal(inLoader(), { kind: 'chunk', epoch: 1, offset: 0, size: 1 })).toBe('no-session')
  })

  it('lasts and drains as the family says, wherever in its ranges it lies', () => {
    const quick = tell(inLoader(), write('main', 'H2.104.r4'), nature({ pick: 0 })).device
    const slow = tell(inLoader(), write('main', 'H2.104.r4'), nature({ pick: 1 })).device
    expect([quick.at, slow.at].map((ms) => Math.round(ms / 1000))).toEqual([
      Math.round(3400 / 11),
      Math.round(3400 / 9),
    ])
    expect(71 - slow.battery).toBeCloseTo((3400 / 9 / 60) * 0.35, 3)
  })

  it('is the same device for the same inputs', () => {
    const inputs = [...write('modem', 'H2.104.r4'), ...write('kernel', 'H2.104.r4')]
    expect(tell(inLoader(), inputs)).toEqual(tell(inLoader(), inputs))
  })
})

describe('a link permission that is off', () => {
  const running = (permission: boolean) => device0417({ mode: 'normal', permission })
  const says = (device: DeviceModel, input: TwinInput) => tell(device, [input]).output.kind
  it('lets nothing be asked of a device that runs, by whomever', () => {
    for (const input of [
      { kind: 'hello', epoch: 1 },
      { kind: 'hello', epoch: 0 },
      { kind: 'facts' },
      { kind: 'tally' },
    ] as const) {
      expect(says(running(false), input)).toBe('silent')
      expect(says(running(true), input)).not.toBe('silent')
    }
  })

  it('is no matter in the loader, and is given and withdrawn only where the system runs', () => {
    expect(says(inLoader({ permission: false }), { kind: 'facts' })).toBe('facts')
    const permit = { kind: 'permit', given: true } as const
    expect(tell(running(false), [permit, { kind: 'facts' }]).output.kind).toBe('facts')
    expect(tell(inLoader({ permission: false }), [permit]).device.permission).toBe(false)
    expect(tell(running(true), [{ kind: 'permit', given: false }]).device.permission).toBe(false)
  })
})

describe('a start', () => {
  it('with kernel, main and support of two builds loops', () => {
    const mixed = tell(inLoader(), write('kernel', 'H2.0ZP.r4')).device
    expect(startOf(self.family, mixed, self.catalogue).outcome).toBe('loop')
    expect(tell(mixed, [{ kind: 'restart', epoch: 1, to: 'normal' }]).device).toMatchObject({
      mode: 'loop',
      outcome: 'loop',
    })
  })

  it('under a loader too old loops, and raises no floor', () => {
    const inputs = ['modem', 'kernel', 'support', 'main'].flatMap((role) =>
      write(role, 'H2.104.r4'),
    )
    const device = tell(inLoader(), [...inputs, { kind: 'restart', epoch: 1, to: 'normal' }]).device
    expect([device.outcome, device.floors.all]).toEqual(['loop', 5])
  })

  it('that goes well raises the floor, and the data are of the new release', () => {
    const inputs = ['modem', 'kernel', 'support', 'main'].flatMap((role) =>
      write(role, 'H2.104.r4'),
    )
    const raised = inLoader({ loaderVersion: 7 })
    const device = tell(raised, [...inputs, { kind: 'keys', to: 'normal' }]).device
    expect(device.outcome).toBe('loop')
    const knows7 = {
      ...raised,
      parts: {
        ...raised.parts,
        loader: { ...raised.parts['loader'], was: digestOf('loader H2.0ZC.r4') },
      },
    }
    const well = tell(knows7 as DeviceModel, [...inputs, { kind: 'keys', to: 'normal' }]).device
    expect([well.outcome, well.floors.all, well.data.release]).toEqual(['normal', 6, 5])
  })

  it('with data newer than the release loops', () => {
    const newer = device0417({ data: { ...DATA, release: 9 } })
    expect(startOf(self.family, newer, self.catalogue).outcome).toBe('loop')
  })

  it('with a torn modem goes without radio', () => {
    const begun = tell(inLoader(), [
      begin('modem', digestOf('modem H2.104.r4'), { size: 8192 }),
    ]).device
    const torn = cutAt(tarn, begun, 100, true)
    expect(startOf(self.family, torn, self.catalogue)).toMatchObject({
      outcome: 'normal',
      limits: ['no-radio'],
    })
  })
})

describe('a cut', () => {
  const loader = begin('loader', digestOf('loader H2.0ZC.r4'), { size: 8192 })

  it('by cable or computer keeps the session; by battery it is gone, the block under way torn', () => {
    const begun = tell(inLoader(), [loader]).device
    expect(cutAt(tarn, begun, 5000, false).session?.got).toBe(5000)
    const dark = cutAt(tarn, begun, 5000, true)
    expect([dark.mode, dark.session]).toEqual(['off', undefined])
    expect(dark.parts['loader']?.map.map(({ kind }) => kind)).toEqual(['image', 'torn', 'old'])
  })

  it('in a loader kept once is dead when the power goes, however it is woken', () => {
    const dark = cutAt(tarn, tell(inLoader(), [loader]).device, 5000, true)
    const woken = tell(dark, [
      { kind: 'charge', percent: 100 },
      { kind: 'keys', to: 'loader' },
    ]).device
    expect([woken.mode, woken.outcome]).toEqual(['off', 'dead'])
  })

  it('on a block’s edge tears nothing', () => {
    const edge = cutAt(tarn, tell(inLoader(), [loader]).device, 4096, true)
    expect(edge.parts['loader']?.map.map(({ kind }) => kind)).toEqual(['image', 'old'])
  })
})

describe('an account that is on it', () => {
  const signedOut = (more: Partial<DeviceModel>) =>
    tell(device0417({ mode: 'normal', account: 'on', ...more }), [{ kind: 'sign-out' }]).device
      .account

  it('is taken off in its settings, while its system runs, and not once it is asked for', () => {
    expect(signedOut({})).toBe('none')
    expect(signedOut({ mode: 'loader' })).toBe('on')
    expect(signedOut({ account: 'asked' })).toBe('asked')
  })
})
