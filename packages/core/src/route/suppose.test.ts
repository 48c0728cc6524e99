/** What is supposed moves what it should and leaves the rest; a state that went through JSON is the state it was. */
import { describe, expect, it } from 'vitest'
import { case0417 } from '../testing/cases.ts'
import { newest, pack, proven, shelf } from '../testing/packages.ts'
import type { DeviceState } from '../plan/state.ts'
import { packState, unpackState } from './packed.ts'
import { routesTo } from './route.ts'
import type { Supposed } from './suppose.ts'
import { suppose } from './suppose.ts'

const older = proven(pack({ build: 'H2.0XB.r4', release: 3, patchDate: '2026-01-01' }))
const preview = proven(
  pack({ build: 'H2.108.r4', release: 5, patchDate: '2026-11-01', channel: 'preview' }),
)
const { shelved: _, ...at } = case0417({ shelf: [...shelf, older, preview] })
const start: DeviceState = { at, mode: 'normal', permission: true }
const told = (supposed: Supposed) =>
  routesTo({ start: suppose(start, supposed) }).routes.map(
    ({ shelved, moves, verdict }) => `${shelved.manifest.title} ${moves.length} ${verdict}`,
  )
const asIs = told({})

describe('what if', () => {
  it.each<[string, Supposed, (now: readonly string[]) => boolean]>([
    [
      'the loader were raised',
      { facts: { loaderVersion: 7 } },
      (now) => now[0]?.startsWith('H2.104.r4 1') === true,
    ],
    [
      'the board were another',
      { facts: { board: 'r5' } },
      (now) => !now.some((one) => one.startsWith(newest.build)),
    ],
    ['nobody had read the floor', { facts: { floor: null } }, (now) => now.length === 0],
    [
      'the data might go',
      { keepData: false, intent: 'downgrade' },
      (now) => now[0]?.startsWith('H2.0XB.r4') === true,
    ],
    [
      'preview were wanted',
      { intent: 'preview' },
      (now) => now[0]?.startsWith('H2.108.r4') === true,
    ],
    [
      'all were written',
      { house: { writes: 'all' } },
      (now) => now.some((one) => one.startsWith('H2.0ZC.r4')),
    ],
  ])('%s, routes follow', (_what, supposed, so) => {
    expect(so(told(supposed)), told(supposed).join(', ')).toBe(true)
    expect(told(supposed)).not.toEqual(asIs)
  })

  it('nothing is supposed, or what no rule reads, nothing moves', () => {
    expect(told({ facts: { radioVersion: '9.9' } })).toEqual(asIs)
    expect(told({ lines: { 'accessory.sim': 'here' } }).length).toBeGreaterThanOrEqual(0)
    expect(told({ house: { source: 'proven' } })).toEqual(asIs)
  })

  it('the owner said no to a preview build, it is out', () => {
    const asked: DeviceState = { ...start, at: { ...at, intent: 'preview' } }
    const titles = (supposed: Supposed) =>
      routesTo({ start: suppose(asked, supposed) }).routes.map(
        ({ shelved }) => shelved.manifest.title,
      )
    expect(titles({})).toContain(preview.manifest.title)
    expect(titles({ lines: { 'consent.preview': 'no' } })).not.toContain(preview.manifest.title)
  })
})

it('a state is the same once it went through JSON: its routes are', () => {
  const back = unpackState(
    JSON.parse(JSON.stringify(packState(start))) as ReturnType<typeof packState>,
  )
  const names = (from: DeviceState) =>
    routesTo({ start: from }).routes.map(({ name, verdict, cost }) => [name, verdict, cost])
  expect(names(back)).toEqual(names(start))
})

it('a package that is none does not pass', () => {
  const packed = JSON.parse(JSON.stringify(packState(start))) as {
    at: { shelf: { manifest: object }[] }
  }
  const [first] = packed.at.shelf
  if (first === undefined) throw new Error('an empty shelf')
  first.manifest = { format: 'other' }
  expect(() => unpackState(packed as never)).toThrow()
})
