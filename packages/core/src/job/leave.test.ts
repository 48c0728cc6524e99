/** What is asked before a device leaves its running system moves with each thing it rests on, and with nothing beside it. */
import { describe, expect, it } from 'vitest'
import { alder, fen } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import type { Line } from '../terms/line.ts'
import { standingLines } from '../terms/line.ts'
import type { Leaving } from './leave.ts'
import { beforeLeaving, copyItem, leaveOpen } from './leave.ts'

const linesOf = (more: Readonly<Record<string, string>>, at = 200) =>
  standingLines(Object.entries(more).map(([topic, answer]): Line => ({ topic, answer, at })))
const PLAN = {
  takenAt: 100,
  needs: 44,
  permission: false,
  keepsOwn: false,
  fates: ['kept'],
} as const
const leaving = (more: Partial<Leaving> = {}): Leaving => ({
  family: tarn,
  mode: 'normal',
  here: true,
  inUse: true,
  keepData: true,
  things: ['tickets'],
  house: {
    backup: 'always',
    accounts: 'proof',
    into: 'command',
    batteryFloor: null,
    batteryMargin: 20,
  },
  plan: undefined,
  looked: false,
  stayedAt: undefined,
  screenLock: undefined,
  percent: 10,
  lines: linesOf({}),
  now: 300,
  ...more,
})
const house = (more: Partial<Leaving['house']>) => ({ ...leaving().house, ...more })
const phone = (more: Partial<Leaving> = {}) =>
  leaving({
    family: alder,
    mode: 'system',
    keepData: false,
    things: ['photos', 'passkeys', 'cards'],
    house: house({ accounts: 'before' }),
    lines: linesOf({ 'owner.account': 'owner-able' }),
    ...more,
  })
const asked = (at: Leaving) => beforeLeaving(at).map(({ item }) => item)
const open = (at: Leaving) => leaveOpen(at).map(({ item }) => item)

describe('what is asked', () => {
  it.each<[string, Leaving, readonly string[]]>([
    [
      'a handheld whose tickets must survive',
      leaving(),
      ['tally', 'backup', 'permission', 'charge'],
    ],
    ['one whose data may go', leaving({ keepData: false }), ['permission', 'charge']],
    [
      'one that keeps parts of its owner’s own',
      leaving({ plan: { ...PLAN, keepsOwn: true } }),
      ['tally', 'backup', 'addons', 'charge'],
    ],
    ['one at its set-up page', leaving({ inUse: false }), ['permission', 'charge']],
    ['one that is elsewhere now', leaving({ here: false }), ['backup', 'permission']],
    [
      'a house that copies what will be lost, before a plan',
      leaving({ house: house({ backup: 'lost' }) }),
      ['tally', 'permission', 'charge'],
    ],
    [
      'the same with a plan that loses something',
      leaving({ house: house({ backup: 'lost' }), plan: { ...PLAN, fates: ['unreadable'] } }),
      ['tally', 'backup', 'charge'],
    ],
    [
      'the same with a plan that keeps all',
      leaving({ house: house({ backup: 'lost' }), plan: PLAN }),
      ['tally', 'charge'],
    ],
    [
      'a way in by keys',
      leaving({ house: house({ into: 'keys' }) }),
      ['tally', 'backup', 'charge'],
    ],
    [
      'a plan that needs its permission, by keys',
      leaving({ house: house({ into: 'keys' }), plan: { ...PLAN, permission: true } }),
      ['tally', 'backup', 'permission', 'charge'],
    ],
    ['a phone to be wiped', phone(), ['accounts', 'restart', 'permission', 'charge']],
    ['the same where owners prove it', phone({ house: house({}) }), ['permission', 'charge']],
    [
      'the same without an account',
      phone({ lines: linesOf({ 'owner.account': 'absent' }) }),
      ['permission', 'charge'],
    ],
    [
      'the same with a screen lock on it',
      phone({ lines: linesOf({ 'owner.account': 'absent' }), screenLock: 'on' }),
      ['accounts', 'restart', 'permission', 'charge'],
    ],
    [
      'one whose photos must survive',
      phone({ keepData: true }),
      ['tally', 'backup', 'permission', 'charge'],
    ],
    [
      'the same under a plan that wipes',
      phone({ keepData: true, plan: { ...PLAN, fates: ['wiped'] } }),
      ['tally', 'backup', 'accounts', 'restart', 'charge'],
    ],
    [
      'a family whose reset asks for no account',
      phone({ family: { ...alder, account: { ...alder.account, asksAfterReset: false } } }),
      ['permission', 'charge'],
    ],
    [
      'a family that counts nothing there',
      leaving({
        family: { ...tarn, modes: tarn.modes.map((mode) => ({ ...mode, takes: {} })) },
      }),
      ['backup', 'permission', 'charge'],
    ],
    [
      'a family whose every mode charges',
      leaving({
        family: { ...tarn, modes: tarn.modes.map((mode) => ({ ...mode, charges: true })) },
      }),
      ['tally', 'backup', 'permission'],
    ],
  ])('of %s', (_, at, items) => {
    expect(asked(at)).toEqual(items)
  })
})

describe('what holds', () => {
  it('is what was seen and said', () => {
    expect(open(leaving())).toEqual(['tally', 'backup', 'permission', 'charge'])
    const done = leaving({
      looked: true,
      percent: 20,
      lines: linesOf({ 'ready.backup': 'opens', 'ready.permission': 'done' }),
    })
    expect(open(done)).toEqual([])
    expect(open({ ...done, percent: 19 })).toEqual(['charge'])
    expect(open({ ...done, percent: undefined })).toEqual(['charge'])
    expect(open({ ...done, looked: false })).toEqual(['tally'])
  })

  it('asks for the charge of the plan, of the floor, or of what is to be left', () => {
    const needed = (more: Partial<Leaving>) =>
      beforeLeaving(leaving(more)).find(({ item }) => item === 'charge')?.facts['needed']
    expect(needed({})).toBe(20)
    expect(needed({ house: house({ batteryFloor: 40 }) })).toBe(40)
    expect(needed({ house: house({ batteryFloor: 40 }), plan: PLAN })).toBe(44)
  })

  it('takes a copy for all plans, and "impossible" only where it does not start', () => {
    const said = (answer: string, at = 200) => linesOf({ 'ready.backup': answer }, at)
    expect(open(leaving({ plan: PLAN, lines: said('opens', 50) }))).not.toContain('backup')
    expect(open(leaving({ lines: said('not-wanted') }))).not.toContain('backup')
    expect(open(leaving({ lines: said('impossible') }))).toContain('backup')
    expect(copyItem(said('impossible'), false, 300)).toMatchObject({
      holds: true,
      answer: 'impossible',
    })
    expect(copyItem(said('opens'), false, 300).holds).toBe(false)
  })

  it('names what dies with the screen lock, of what is on it', () => {
    const dies = (more: Partial<Leaving>) =>
      beforeLeaving(phone(more)).find(({ item }) => item === 'accounts')?.facts['dies']
    expect(dies({})).toBe('cards, passkeys')
    expect(dies({ things: ['photos', 'work-profile'] })).toBe('work-profile')
    expect(dies({ things: ['photos'] })).toBe('')
    expect(dies({ family: fen })).toBe('passkeys')
  })

  it('takes a restart that came after the accounts went, and no earlier one', () => {
    const after = (accounts: number, restart: number) =>
      open(
        phone({
          percent: 90,
          lines: new Map([
            ...linesOf({ 'owner.account': 'owner-able', 'ready.permission': 'done' }),
            ...linesOf({ 'ready.accounts': 'done' }, accounts),
            ...linesOf({ 'ready.restart': 'done' }, restart),
          ]),
        }),
      )
    expect(after(300, 301)).toEqual([])
    expect(after(300, 299)).toEqual(['restart'])
  })

  it('believes no permission under which it stayed where it was', () => {
    const given = { lines: linesOf({ 'ready.permission': 'done' }) }
    expect(open(leaving(given))).not.toContain('permission')
    expect(open(leaving({ ...given, stayedAt: 200 }))).toContain('permission')
    expect(open(leaving({ ...given, stayedAt: 199 }))).not.toContain('permission')
  })

  it('is waived with a reason, until a plan is taken after it', () => {
    const lines = linesOf({ 'ready.leave': 'waived' })
    expect(open(leaving({ lines }))).toEqual([])
    expect(open(leaving({ lines, plan: { ...PLAN, takenAt: 201 } }))).not.toEqual([])
  })
})
