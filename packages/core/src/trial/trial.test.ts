/** A family is tried before it is taken in: each thing it says happens once, and what can never happen is named. */
import { describe, expect, it } from 'vitest'
import { isNeverWritten } from '../family/never.ts'
import type { Family } from '../family/profile.ts'
import { alder, fen } from '../testing/families.ts'
import { tarn } from '../testing/tarn.ts'
import { trialOf } from './trial.ts'

const changed = (family: Family, change: (family: Family) => unknown): Family => {
  const other = structuredClone(family)
  change(other)
  return other
}
const any = 'any' as const
const lastStart = (family: Family) => trialOf(family).starts.at(-1)

describe('the families of the demo', () => {
  it.each([tarn, alder, fen])('$id does everything that it says', (family) => {
    const { starts, modes, parts, never } = trialOf(family)
    expect(never).toBe(0)
    expect(starts.map(({ fires }) => fires)).toEqual(family.start.map(() => true))
    expect(modes.map(({ mode }) => mode)).toEqual(family.modes.map(({ id }) => id))
    for (const one of parts)
      for (const { role, written } of one.parts)
        expect([role, written === 'never']).toEqual([role, isNeverWritten(family, role)])
  })
})

describe('a start rule that can never be met', () => {
  it('stands behind one that decides each time', () => {
    const after = changed(tarn, ({ start }) =>
      start.push({ when: [{ set: 'torn' }], end: { kind: 'dead' } }),
    )
    expect(lastStart(after)).toEqual({ fires: false, why: 'decided-before', rules: [1] })
    expect(trialOf(after).never).toBe(1)
    const before = changed(tarn, ({ start }) =>
      start.unshift({ when: [{ set: 'torn' }], end: { kind: 'dead' } }),
    )
    expect(trialOf(before).starts[2]).toEqual({ fires: false, why: 'decided-before', rules: [0] })
  })

  it.each<[string, Family['start'][number]['when'][number]]>([
    ['data of a track in a family without tracks', { data: 'later-track' }],
    ['an open lock that nobody but its maker opens', { lock: 'open' }],
    ['a merge where nothing merges', { merge: 'staged' }],
    ['a part of a role that no partition has', { part: ['table'], is: 'torn' }],
  ])('asks for %s', (_, condition) => {
    const asks = changed(tarn, ({ start }) =>
      start.push({ when: [{ data: 'newer-patch' }, condition], end: { kind: 'dead' } }),
    )
    expect(lastStart(asks)).toEqual({ fires: false, why: 'no-device', condition: 1 })
  })

  it('names each rule that decides before it, and no limit that only goes on', () => {
    const either = changed(alder, ({ start }) =>
      start.push({
        when: [{ part: any, is: 'modified' }, { data: 'newer-patch' }],
        end: { kind: 'loop' },
      }),
    )
    expect(lastStart(either)).toEqual({ fires: false, why: 'decided-before', rules: [2] })
    const open = changed(either, ({ start }) => {
      const [first] = start.splice(2, 1)
      if (first !== undefined)
        start.unshift({ when: [{ part: any, is: 'modified' }], end: { kind: 'warns', seconds: 1 } })
    })
    /* The warning goes on: what decides is that the data are newer. */
    expect(lastStart(open)).toMatchObject({ fires: false, why: 'decided-before' })
    expect(lastStart(open)).not.toMatchObject({ rules: [0] })
  })

  it('fires once its family has what it asks for', () => {
    const asks = changed(tarn, ({ start, dataKeys }) => {
      start.push({ when: [{ data: 'later-track' }], end: { kind: 'asks-reset' } })
      dataKeys.tracksBack.push({ from: 'B', to: 'S' })
    })
    expect(lastStart(asks)).toMatchObject({ fires: true, outcome: 'asks-reset' })
  })

  it('asks for what cannot be so at once', () => {
    const asks = changed(alder, ({ start }) =>
      start.push({ when: [{ lock: 'open' }, { lock: 'closed' }], end: { kind: 'loop' } }),
    )
    expect(lastStart(asks)).toEqual({ fires: false, why: 'not-at-once' })
  })
})

describe('a mode', () => {
  it('to which no way leads is never reached', () => {
    const cut = changed(tarn, (family) => {
      family.ways = family.ways.filter(({ to }) => to !== 'rescue')
    })
    expect(trialOf(cut).modes.find(({ mode }) => mode === 'rescue')).toMatchObject({
      reached: 'never',
    })
    expect(trialOf(cut).never).toBe(1)
  })

  it('out of which nothing leads is named', () => {
    const kept = changed(tarn, (family) => {
      family.ways = family.ways.flatMap((way) => {
        if (way.from === 'any') return [way]
        const from = way.from.filter((one) => one !== 'hang')
        return from.length === 0 ? [] : [{ ...way, from }]
      })
    })
    expect(trialOf(kept).modes.find(({ mode }) => mode === 'hang')).toMatchObject({ left: false })
  })

  it('that only the link permission opens says so', () => {
    const keyless = changed(alder, (family) => {
      family.ways = family.ways.filter(({ to, hands }) => to !== 'loader' || !hands)
    })
    const { modes } = trialOf(keyless)
    expect(modes.find(({ mode }) => mode === 'loader')).toMatchObject({
      reached: 'acts',
      permission: true,
    })
    expect(trialOf(alder).modes.find(({ mode }) => mode === 'loader')).toMatchObject({
      permission: false,
    })
  })
})

describe('a part', () => {
  const writtenOn = (family: Family, role: string) =>
    trialOf(family).parts[0]?.parts.find((one) => one.role === role)
  const takesNo = (role: string) =>
    changed(alder, (family) => {
      for (const { takes } of family.modes)
        if (Array.isArray(takes.write)) takes.write = takes.write.filter((one) => one !== role)
    })

  it('is written in the mode that takes it, as fast as the family says', () => {
    const twice = changed(alder, ({ pace }) => {
      pace.write = { mibPerSecond: [36, 84] }
    })
    const [slow, fast] = [writtenOn(alder, 'main'), writtenOn(twice, 'main')]
    expect(slow).toMatchObject({ written: 'link', mode: 'transfer' })
    expect((slow?.seconds ?? 0) / (fast?.seconds ?? 1)).toBeCloseTo(2, 1)
    const renamed = changed(alder, (family) => (family.maker = 'Another'))
    expect(trialOf(renamed)).toEqual(trialOf(alder))
  })

  it('that no mode takes comes by a package, is erased, or stays for ever', () => {
    expect(writtenOn(takesNo('variant'), 'variant')?.written).toBe('install')
    expect(writtenOn(takesNo('cache'), 'cache')?.written).toBe('erased')
    const bare = changed(takesNo('rescue'), (family) => (family.installs = []))
    expect(writtenOn(bare, 'rescue')?.written).toBe('none')
    expect(trialOf(bare).never).toBe(1)
    expect(writtenOn(alder, 'table')?.written).toBe('never')
  })

  it('that the closed lock keeps is written while it is open', () => {
    const keeps = changed(alder, ({ lock }) => (lock.keeps = ['kernel']))
    expect(writtenOn(keeps, 'kernel')?.written).toBe('open')
    expect(writtenOn(keeps, 'modem')?.written).toBe('link')
  })
})
