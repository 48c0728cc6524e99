import { describe, expect, it } from 'vitest'
import { ROLES, reaches } from '../terms/people.ts'
import { ACTS, authorise } from './acts.ts'
import type { Actor } from './acts.ts'

const lead: Actor = { id: 'ilse', role: 'lead' }
const technician: Actor = { id: 'tavi', role: 'technician' }
const other: Actor = { id: 'pell', role: 'technician' }
const trainee: Actor = { id: 'juno', role: 'trainee' }

describe('authorise', () => {
  it('lets a trainee note and read, and not change a head', () => {
    expect(authorise(trainee, 'slip.note')).toEqual({ kind: 'allowed' })
    expect(authorise(trainee, 'slip.change')).toEqual({
      kind: 'refused',
      why: 'role',
      needs: 'technician',
    })
  })

  it('never gives a higher role less than a lower one', () => {
    for (const act of ACTS) {
      const allowed = ROLES.map((role) => authorise({ id: 'x', role }, act).kind !== 'refused')
      expect([...allowed].sort()).toEqual(allowed)
    }
  })

  it('asks for a lead beside a technician who withdraws personal text', () => {
    expect(authorise(technician, 'text.withdraw')).toEqual({ kind: 'needs-second', role: 'lead' })
    expect(authorise(technician, 'text.withdraw', lead)).toEqual({ kind: 'allowed' })
    expect(authorise(technician, 'text.withdraw', other)).toMatchObject({
      kind: 'refused',
      needs: 'lead',
    })
  })

  it('asks a lead for somebody too, though not for another lead', () => {
    expect(authorise(lead, 'text.withdraw')).toEqual({ kind: 'needs-second', role: 'technician' })
    expect(authorise(lead, 'text.withdraw', other)).toEqual({ kind: 'allowed' })
    expect(authorise(lead, 'text.withdraw', trainee).kind).toBe('refused')
  })

  it('takes nobody twice', () => {
    expect(authorise(lead, 'text.withdraw', lead)).toEqual({
      kind: 'refused',
      why: 'second-is-same',
    })
    expect(reaches(lead.role, 'lead')).toBe(true)
  })
})
