/**
 * Every figure of a plan has its witnesses: each declared input, changed alone, moves exactly the claims
 * named here, and what none rests on moves none. Claims are what the page, the shell and papers show.
 */
import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import type { Family } from '../family/profile.ts'
import type { Case } from '../match/rule.ts'
import { case0417, evidence0417 } from '../testing/cases.ts'
import { reading, readings0417 } from '../testing/devices.ts'
import { newest, onDevice, proven, shelf } from '../testing/packages.ts'
import { tarn } from '../testing/tarn.ts'
import { fold } from '../plan/folds.ts'
import { makePlan } from './make-plan.ts'

/** The claims of a plan, by name. */
function claims(more: Partial<Case>): Readonly<Record<string, string>> {
  const at = case0417(more)
  const made = makePlan({ at, mode: 'normal', permission: true })
  if (!made.ok) return { refusal: JSON.stringify(made.refusal) }
  const { steps, packages, expected } = made.value
  const { fates, ...figures } = fold(made.value, at)
  const written = packages.flatMap(({ decisions }) =>
    decisions.map(({ image, write, reason }) => [image.partition, write, reason]),
  )
  return Object.fromEntries(
    Object.entries({
      ...figures,
      fates,
      steps: steps.map(({ kind }) => kind),
      written,
      expected,
    }).map(([name, value]) => [name, String(JSON.stringify(value))]),
  )
}
const before = claims({})
function moved(more: Partial<Case>): readonly string[] {
  const after = claims(more)
  const names = new Set([...Object.keys(before), ...Object.keys(after)])
  return [...names].filter((name) => before[name] !== after[name]).sort()
}

const family = (more: Partial<Family>): Partial<Case> => ({ family: { ...tarn, ...more } })
const pace = (more: Partial<Family['pace']>) => family({ pace: { ...tarn.pace, ...more } })
const drain = (more: Partial<Family['drainPerMinute']>) =>
  family({ drainPerMinute: { ...tarn.drainPerMinute, ...more } })
const aim = (more: object): Partial<Case> => {
  const manifest = { ...newest, ...more }
  const others = shelf.filter(({ manifest: { id } }) => id !== newest.id)
  return { shelved: proven(manifest), shelf: [...others, proven(manifest)] }
}
const says = (fact: 'batteryPercent' | 'serial' | 'carrier', value: string | number) => ({
  identity: identify(tarn, readings0417([reading(fact, value, 'link', 2000)])),
})
const { house } = case0417()

const WAY = ['drains', 'draws', 'hands', 'restarts', 'steps', 'time']
const RESTARTS = ['drains', 'draws', 'restarts', 'steps', 'time', 'wayBackUntil']

describe('a figure of the lead plan', () => {
  it.each<[string, Partial<Case>, readonly string[]]>([
    [
      'rate of writing',
      pace({ write: { mibPerSecond: [4, 5] } }),
      ['drains', 'draws', 'needs', 'time'],
    ],
    ['rate of digests', pace({ digest: { mibPerSecond: [30, 30] } }), ['drains', 'draws', 'time']],
    ['length of restarts', pace({ restart: { seconds: [20, 30] } }), ['drains', 'draws', 'time']],
    [
      'length of a first start',
      pace({ 'first-start': { seconds: [600, 900] } }),
      ['drains', 'draws', 'needs', 'time'],
    ],
    ['length of one that wipes', pace({ 'first-start-wiped': { seconds: [1, 2] } }), []],
    ['drain in writing', drain({ writing: 0.9 }), ['drains', 'draws', 'needs']],
    ['drain in a first start', drain({ 'first-start': 1.2 }), ['drains', 'draws', 'needs']],
    [
      'restarts',
      family({ restartAfter: ['loader'] }),
      ['drains', 'draws', 'restarts', 'steps', 'time', 'wayBackUntil'],
    ],
    ['signed set', family({ signedSet: ['kernel'] }), []],
    ['keys of the data', family({ dataKeys: { hangOn: [], tracksBack: [] } }), ['wayBackUntil']],
    [
      'things a customer has',
      family({ items: [{ id: 'tickets', name: 'tickets', partition: 'cache' }] }),
      ['fates'],
    ],
    [
      'looks of a mode',
      family({ modes: tarn.modes.map((mode) => ({ ...mode, looks: 'another look' })) }),
      [],
    ],
  ])('follows the family’s %s', (_, more, names) => {
    expect(moved(more)).toEqual(names)
  })

  it.each<[string, Partial<Case>, readonly string[]]>([
    ['margin of charge', { house: { ...house, batteryMargin: 30 } }, ['needs']],
    ['floor of charge', { house: { ...house, batteryFloor: 65 } }, ['needs']],
    ['lawful regions', { house: { ...house, lawfulRegions: ['HI'] } }, []],
    ['way into a mode', { house: { ...house, into: 'keys' } }, WAY],
    ['restarts between parts', { house: { ...house, restarts: 'every' } }, RESTARTS],
    ['backups', { house: { ...house, backup: 'lost' } }, []],
    ['SIM and card', { house: { ...house, cards: 'in' } }, []],
  ])('follows the house’s %s', (_, more, names) => {
    expect(moved(more)).toEqual(names)
  })

  it.each<[string, Partial<Case>, readonly string[]]>([
    ['generation', aim({ generation: 7 }), ['expected']],
    ['release', aim({ release: 6 }), ['expected']],
    ['title', aim({ title: 'the autumn one' }), []],
  ])('follows the package’s %s', (_, more, names) => {
    expect(moved(more)).toEqual(names)
  })

  it('follows the evidence: what is on it already is not written, and takes no time', () => {
    const same = new Map(
      newest.images.map(
        ({ partition, sha256 }) => [partition, { kind: 'digest', sha256 }] as const,
      ),
    )
    const modem = same.get('modem')
    if (modem === undefined) throw new Error('no modem')
    const evidence = new Map([...evidence0417, ['modem', modem] as const])
    const names = moved({ evidence })
    expect(names).toEqual(expect.arrayContaining(['steps', 'time', 'written']))
    expect(names).not.toContain('fates')
    expect(moved({ evidence: new Map() })).toEqual(
      expect.arrayContaining(['steps', 'time', 'written']),
    )
  })

  it('follows the shelf: without the present build there is no way back', () => {
    const others = shelf.filter(({ manifest }) => manifest.id !== onDevice.id)
    expect(moved({ shelf: others })).toEqual(['wayBackUntil'])
  })

  it.each<[string, Partial<Case>]>([
    ['its charge, as long as that is enough', says('batteryPercent', 90)],
    ['its carrier', says('carrier', 'N')],
    ['its serial number', says('serial', 'TRN0000000001')],
  ])('stays when the device’s other facts change: %s', (_, more) => {
    expect(moved(more)).toEqual([])
  })
})
