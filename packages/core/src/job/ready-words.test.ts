/** Ready, as people sign it: what is asked of them for a plan, and what their word is worth. */
import { describe, expect, it } from 'vitest'
import { USUAL_HOUSE } from '../match/house.ts'
import type { Fate } from '../match/rules/data-fate.ts'
import { alder } from '../testing/families.ts'
import { SIGNED, facts, linesOf, plan } from '../testing/ready.ts'
import { tarn } from '../testing/tarn.ts'
import type { ReadyFacts } from './ready.ts'
import { checksOf, confirmationsOf } from './ready.ts'

describe('what a person makes sure of', () => {
  const open = (more: Partial<ReadyFacts>) =>
    confirmationsOf(facts(more))
      .filter(({ signed }) => !signed)
      .map(({ topic }) => topic)

  it('is signed for this plan: an older signature is none', () => {
    expect(open({ lines: linesOf(SIGNED) })).toEqual([])
    const { 'ready.backup': _, ...forThePlan } = SIGNED
    expect(open({ lines: linesOf(SIGNED, 99) })).toEqual(Object.keys(forThePlan))
    expect(open({ lines: linesOf(SIGNED), plan: { ...plan, takenAt: 201 } })).toEqual(
      Object.keys(forThePlan),
    )
    expect(open({ lines: linesOf(SIGNED), plan: undefined })).toHaveLength(3)
  })

  it('asks its owner again for what these packages need their word for', () => {
    const asks = (consents: readonly ('mark' | 'preview')[], lines = {}) =>
      open({ plan: { ...plan, consents }, lines: linesOf({ ...SIGNED, ...lines }) })
    expect(asks([])).toEqual([])
    expect(asks(['preview', 'mark'])).toEqual(['consent.preview', 'consent.mark'])
    expect(asks(['preview'], { 'consent.preview': 'yes' })).toEqual([])
    expect(asks(['preview'], { 'consent.preview': 'no' })).toEqual(['consent.preview'])
    const before = new Map([...linesOf(SIGNED), ...linesOf({ 'consent.preview': 'yes' }, 99)])
    expect(open({ plan: { ...plan, consents: ['preview'] }, lines: before })).toEqual([
      'consent.preview',
    ])
  })

  it('asks for a backup where data must survive, and for cards where some came', () => {
    expect(open({ keepData: false })).not.toContain('ready.backup')
    expect(open({ lines: linesOf({ 'accessory.sim': 'here' }) })).toContain('ready.out')
    expect(open({ lines: linesOf({ 'accessory.case': 'here' }) })).not.toContain('ready.out')
  })

  it('asks who puts a copy back where something is lost, and tells how long that takes', () => {
    const lost = { ...plan, fates: ['wiped' as const] }
    const made = linesOf({ 'ready.backup': 'opens' })
    const restore = { mib: 512, low: 15, high: 22 }
    const asked = (more: Partial<ReadyFacts>) =>
      confirmationsOf(facts({ plan: lost, lines: made, restore, ...more })).find(
        ({ topic }) => topic === 'ready.restore',
      )
    expect(asked({})).toMatchObject({ answers: ['shop', 'owner'], facts: restore, signed: false })
    expect(asked({ plan })).toBeUndefined()
    expect(asked({ plan: { ...plan, fates: ['unpromised'] } })).toBeUndefined()
    expect(asked({ lines: linesOf({ 'ready.backup': 'not-wanted' }) })).toBeUndefined()
    /* They may go from it, and there is a copy all the same. */
    expect(asked({ keepData: false })).toBeDefined()
    expect(asked({ lines: linesOf({}) })).toBeUndefined()
  })

  it('asks of one that runs what can be done only then, and of one that does not start no copy', () => {
    const leaving: ReadyFacts['leaving'] = {
      family: tarn,
      mode: 'normal',
      here: true,
      inUse: true,
      keepData: true,
      things: [],
      house: { ...USUAL_HOUSE },
      plan,
      looked: false,
      stayedAt: undefined,
      screenLock: undefined,
      percent: 71,
      lines: linesOf({}),
      now: 300,
    }
    const waived = { ...leaving, lines: linesOf({ 'ready.leave': 'waived' }) }
    const tally = (more: Partial<ReadyFacts>) =>
      checksOf(facts(more)).find(({ check }) => check === 'tally')?.holds
    expect(tally({ leaving })).toBe(false)
    expect(tally({ leaving: { ...leaving, looked: true } })).toBe(true)
    expect(tally({ leaving: waived })).toBe(true)
    expect(tally({})).toBe(undefined)
    const wiped = { ...leaving, family: alder, plan: { ...plan, fates: ['wiped'] as const } }
    const before = { ...wiped, house: { ...USUAL_HOUSE, accounts: 'before' as const } }
    expect(open({ leaving: before })).toContain('ready.accounts')
    expect(open({ leaving: wiped })).not.toContain('ready.accounts')
    const own = { ...leaving, plan: { ...plan, keepsOwn: true } }
    expect(open({ leaving: own })).toContain('ready.addons')
    expect(open({ leaving })).not.toContain('ready.addons')
    const first = confirmationsOf(facts({ leaving: waived }))[0]
    expect(first).toMatchObject({ topic: 'ready.backup', answer: 'waived', signed: true })
    const dead = confirmationsOf(facts({ starts: false }))[0]
    expect(dead?.answers).toEqual(['impossible', 'not-wanted'])
  })

  it('takes a copy that opens and an owner who wants none as two answers', () => {
    const backup = confirmationsOf(facts()).find(({ topic }) => topic === 'ready.backup')
    expect(backup?.answers).toEqual(['opens', 'not-wanted'])
    const answer = (said: string) =>
      confirmationsOf(facts({ lines: linesOf({ 'ready.backup': said }) })).find(
        ({ topic }) => topic === 'ready.backup',
      )
    expect(answer('not-wanted')).toMatchObject({ answer: 'not-wanted', signed: true })
  })

  it('asks for the link permission only where a step needs it', () => {
    expect(open({ plan: { ...plan, permission: false } })).not.toContain('ready.permission')
  })

  it('asks the owner’s word for each fate that is not kept, and for none beside', () => {
    const fates = (...fates: readonly Fate[]) =>
      open({ plan: { ...plan, fates }, lines: linesOf(SIGNED) })
    expect(fates('kept')).toEqual([])
    expect(fates('wiped')).toEqual(['fate.wiped', 'ready.restore'])
    expect(fates('kept', 'unreadable', 'unpromised')).toEqual([
      'fate.unreadable',
      'fate.unpromised',
      'ready.restore',
    ])
    const signed = { ...SIGNED, 'ready.restore': 'shop' }
    const wiping = { plan: { ...plan, fates: ['wiped'] as const } }
    expect(open({ ...wiping, lines: linesOf({ ...signed, 'fate.wiped': 'yes' }) })).toEqual([])
    expect(open({ ...wiping, lines: linesOf({ ...signed, 'fate.wiped': 'no' }) })).toEqual([
      'fate.wiped',
    ])
  })
})
