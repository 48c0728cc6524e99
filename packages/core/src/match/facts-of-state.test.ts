/** What is read of switch, storage and room moves the rules that rest on it, and nothing else does. */
import { describe, expect, it } from 'vitest'
import { readTyped } from '../device/typed.ts'
import { shut, switchedAt } from '../testing/acting.ts'
import { alder } from '../testing/families.ts'
import { case0417 } from '../testing/cases.ts'
import { judge } from './judge.ts'
import type { Case } from './rule.ts'

const MIB = 1024 ** 2
const says = (rule: string, at: Case) => {
  const finding = judge(at).findings.find((one) => one.rule === rule)
  return finding && [finding.verdict, finding.code.split('.').at(-1)].join(' ')
}
const read = (at: Case, fact: 'storageHealth' | 'freeMiB', value: string | number): Case => ({
  ...at,
  identity: { ...at.identity, [fact]: { kind: 'told', value, claims: [] } },
})

describe('the switch for the boot lock', () => {
  it('says by itself whether it is on, off or greyed; unread it is what its family says', () => {
    const { identity, ...at } = switchedAt('on')
    expect(['on', 'off', 'greyed'].map((one) => says('act.open', switchedAt(one)))).toEqual([
      'fits allowed',
      'fits-if switch',
      'fits-if greyed',
    ])
    const unread = { ...at, identity: { ...identity, lockSwitch: { kind: 'missing' } as const } }
    expect(says('act.open', unread)).toBe('fits-if greyed')
  })
})

describe('storage', () => {
  it('that fails takes nothing, a worn one this, and a good one says nothing', () => {
    const health = (value: string) =>
      says('state.storage-health', read(case0417(), 'storageHealth', value))
    expect(['failing', 'worn', 'good'].map(health)).toEqual([
      'does-not-fit failing',
      'fits worn',
      undefined,
    ])
    expect(says('state.storage-health', case0417())).toBe(undefined)
  })

  it('has room by what is free of its own, and not of a card', () => {
    const archives = [{ file: 'one.tar', sha256: 'a'.repeat(64), bytes: MIB }]
    const manifest = { ...shut.shelved.manifest, archives, scale: 8 }
    const at: Case = { ...shut, way: 'storage', shelved: { ...shut.shelved, manifest } }
    const free = (mib: number) => says('state.room', read(at, 'freeMiB', mib))
    expect([free(8), free(7)]).toEqual(['fits fits', 'does-not-fit large'])
    const card = case0417({ way: 'card' })
    expect(says('state.room', read(card, 'freeMiB', 1))).toBe(says('state.room', card))
  })
})

describe('what is typed', () => {
  it('of a fact of few words is one of them, and of a floor a number', () => {
    const typed = (fact: 'bootLock' | 'storageHealth' | 'floorMain', text: string) => {
      const one = readTyped([alder], fact, text)
      return one.ok ? one.value : one.refusal
    }
    expect(typed('bootLock', 'closed')).toBe('closed')
    expect(typed('bootLock', 'Closed')).toEqual({ why: 'word', perhaps: ['closed', 'open'] })
    expect(typed('storageHealth', 'worn')).toBe('worn')
    expect(typed('floorMain', '7')).toBe(7)
    expect(typed('floorMain', 'seven')).toEqual({ why: 'number', perhaps: [] })
  })
})
