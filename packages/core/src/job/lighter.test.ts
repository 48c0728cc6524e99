/** What is offered before any firmware moves with symptom, intent, wish and family; what cures ends the job. */
import { describe, expect, it } from 'vitest'
import { alder } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import type { Line } from '../terms/line.ts'
import { standingLines } from '../terms/line.ts'
import { curedBy, lighterOffered, lighterOpen } from './lighter.ts'

const linesOf = (more: Readonly<Record<string, string>>) =>
  standingLines(Object.entries(more).map(([topic, answer]): Line => ({ topic, answer, at: 1 })))
type At = Parameters<typeof lighterOffered>[0]
const at = (starts: string | undefined, more: Partial<At> = {}, said = {}): At => ({
  family: tarn,
  intent: 'restore',
  keepData: true,
  lines: linesOf({ ...(starts === undefined ? {} : { 'history.starts': starts }), ...said }),
  ...more,
})
const offered = (one: At) => lighterOffered(one).map(({ name }) => name)

describe('what is offered', () => {
  it.each<[string, At, readonly string[]]>([
    ['of which nobody said how far it starts', at(undefined), []],
    ['without a sign of life', at('silent'), ['charge', 'restart']],
    ['that comes not so far', at('stops'), ['restart']],
    ['that runs and is to be restored', at('runs'), ['restart', 'cache']],
    ['that runs and is to be newer', at('runs', { intent: 'update' }), ['updater']],
    ['that stops and is to be newer', at('stops', { intent: 'update' }), ['restart']],
    ['of which nothing need survive', at('stops', { keepData: false }), ['restart', 'reset']],
    [
      'that is silent, and nothing need survive',
      at('silent', { keepData: false }),
      ['charge', 'restart'],
    ],
    ['that is to be older', at('stops', { intent: 'downgrade' }), []],
    ['that is to be another variant', at('runs', { intent: 'variant-change' }), []],
  ])('to a device %s', (_, one, names) => {
    expect(offered(one)).toEqual(names)
  })

  it('is a reset only where nobody is shut out by it', () => {
    const phone = (said: object, family = alder) =>
      offered(at('stops', { family, keepData: false }, said))
    expect(phone({})).toEqual(['restart'])
    expect(phone({ 'owner.account': 'nobody' })).toEqual(['restart'])
    expect(phone({ 'owner.account': 'absent' })).toContain('reset')
    expect(phone({ 'owner.account': 'owner-able' })).toContain('reset')
    const asksNot = { ...alder, account: { ...alder.account, asksAfterReset: false } }
    expect(phone({}, asksNot)).toContain('reset')
  })

  it('says how its family is switched off where it hangs', () => {
    const says = (family: At['family'], starts = 'stops') =>
      lighterOffered(at(starts, { family })).find(({ name }) => name === 'restart')?.say
    const off = tarn.ways.find(({ to, from }) => to === 'off' && from.includes('hang'))
    expect(says(tarn)).toEqual([off?.say])
    const said = { ...tarn, ways: tarn.ways.map((way) => ({ ...way, say: 'so' })) }
    expect(says(said)).toEqual(['so'])
    expect([says(undefined), says(tarn, 'runs')]).toEqual([[], []])
  })
})

describe('what was tried', () => {
  it('is open no more, and nothing is once one cured it', () => {
    const open = (said: object) => lighterOpen(at('silent', {}, said)).map(({ name }) => name)
    expect(open({})).toEqual(['charge', 'restart'])
    expect(open({ 'lighter.charge': 'no-cure' })).toEqual(['restart'])
    expect(open({ 'lighter.charge': 'not-wanted', 'lighter.restart': 'no-cure' })).toEqual([])
    expect(open({ 'lighter.charge': 'cured' })).toEqual([])
    expect(curedBy(linesOf({ 'lighter.charge': 'no-cure' }))).toBe(undefined)
    expect(curedBy(linesOf({ 'lighter.restart': 'cured' }))).toBe('restart')
  })
})
