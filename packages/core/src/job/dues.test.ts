import { describe, expect, it } from 'vitest'
import { identify } from '../device/identity.ts'
import { reading, readings0417 } from '../testing/devices.ts'
import { alder } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import type { AfterJob } from './dues.ts'
import { isDay } from '../terms/line.ts'
import { duesAsked, duesOf } from './dues.ts'

const lines = (said: Readonly<Record<string, string>> = {}) =>
  new Map(Object.entries(said).map(([topic, answer]) => [topic, { answer }]))
const written = { channel: 'stable', patchDate: '2026-10-01' } as const
const at = (more: Partial<AfterJob> = {}): AfterJob => ({
  lines: lines(),
  family: tarn,
  identity: identify(tarn, readings0417()),
  intent: 'update',
  written,
  today: '2026-10-15',
  days: { hold: 30, patch: 90 },
  ...more,
})
const asked = (more: Partial<AfterJob> = {}) =>
  duesAsked(at(more)).map(({ what, on }) => `${what} ${on ?? ''}`.trim())

describe('what is due after a job', () => {
  it('is the next patch, by the patch that was written and the house’s days', () => {
    expect(asked()).toEqual(['patch 2026-12-30'])
    expect(asked({ written: { ...written, patchDate: '2026-09-01' } })).toEqual([
      'patch 2026-11-30',
    ])
    expect(asked({ days: { hold: 30, patch: 30 } })).toEqual(['patch 2026-10-31'])
    expect(asked({ written: { ...written, patchDate: '2026-01-01' } })).toEqual([
      'patch 2026-10-15',
    ])
    expect(asked({ family: undefined })).toEqual(['patch 2026-12-30'])
    expect(asked({ written: undefined })).toEqual([])
  })

  it('is an end of updates held back for whoever goes back or takes a preview', () => {
    expect(asked({ intent: 'downgrade' })[0]).toBe('updates 2026-11-14')
    expect(asked({ written: { ...written, channel: 'pilot' } })[0]).toBe('updates 2026-11-14')
    expect(asked({ intent: 'downgrade', days: { hold: 7, patch: 90 } })[0]).toBe(
      'updates 2026-10-22',
    )
    expect(asked({ intent: 'downgrade', written: undefined })).toEqual([])
  })

  it('is the end of support, where its maker told it', () => {
    const until = { ...written, supportedUntil: '2027-03-31' }
    expect(asked({ written: until })).toContain('support 2027-03-31')
  })

  it('is the day on which the switch for the lock opens, where it ever does', () => {
    const seen = (value: string, carrier = 'O') =>
      identify(alder, [reading('lockSwitch', value, 'settings'), reading('carrier', carrier)])
    const phone = { family: alder, written: undefined } as const
    expect(asked({ ...phone, identity: seen('greyed') })).toEqual(['lock 2026-10-22'])
    expect(asked({ ...phone, identity: seen('off') })).toEqual([])
    expect(asked({ ...phone, identity: seen('greyed'), written })).toEqual(['patch 2026-12-30'])
    expect(asked({ ...phone, identity: seen('greyed', 'S') })).toEqual([])
    expect(asked({ identity: seen('greyed'), written: undefined })).toEqual([])
  })

  it('is a permit that was ordered, on a day that only people know', () => {
    expect(asked({ intent: 'service', written: undefined })).toEqual(['permit'])
    const brought = lines({ 'permit.service': '{}' })
    expect(asked({ intent: 'service', written: undefined, lines: brought })).toEqual([])
  })

  it('is asked until a day was put down, done or refused', () => {
    for (const answer of ['2026-12-01', 'done', 'not-needed'])
      expect(asked({ lines: lines({ 'due.patch': answer }) })).toEqual([])
    expect(duesOf(lines({ 'due.patch': '2026-12-01', 'due.support': 'done' }))).toEqual([
      { what: 'patch', on: '2026-12-01' },
    ])
  })

  it('stands on days that there are', () => {
    expect(['2026-02-28', '2028-02-29'].every(isDay)).toBe(true)
    expect(['2026-02-30', '2026-13-01', 'soon', '', '2026-1-1'].some(isDay)).toBe(false)
  })
})
