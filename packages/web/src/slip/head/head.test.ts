import type { Slip } from '@plain-slate/api'
import { describe, expect, it } from 'vitest'
import { changeOf, changedFields, draftOf, follow, settle } from './head.ts'

const slip = (more: Partial<Slip> = {}): Slip => ({
  number: '0417',
  device: 'Brakken H2K',
  model: null,
  customer: 'Ferry line',
  intent: 'update',
  promise: 'tickets',
  words: null,
  stage: 'intake',
  state: 'open',
  due: null,
  openedAt: '2026-10-15T08:35:00.000Z',
  openedBy: 'Ilse Maro',
  withdrawn: false,
  version: 1,
  ...more,
})

describe('the head’s form', () => {
  const base = draftOf(slip())

  it('sends only what was changed, with what it said before', () => {
    const draft = { ...base, promise: 'stored tickets', model: 'BRAK-H2K' }
    expect(changeOf(base, draft)).toEqual({
      model: { from: '', to: 'BRAK-H2K' },
      promise: { from: 'tickets', to: 'stored tickets' },
    })
    expect(changedFields(base, base)).toEqual([])
  })

  it('follows what others write, but never over what is being typed', () => {
    const typing = { ...base, promise: 'all tickets' }
    const theirs = slip({ promise: 'no tickets', device: 'Brakken H2', version: 2 })
    const after = follow(base, typing, theirs)
    expect(after.draft).toMatchObject({ promise: 'all tickets', device: 'Brakken H2' })
    expect(changeOf(after.base, after.draft)).toEqual({
      promise: { from: 'tickets', to: 'all tickets' },
    })
  })

  it('settles a conflict field by field', () => {
    const draft = { ...base, promise: 'all tickets' }
    const other = { field: 'promise', value: 'no tickets', by: 'Pell Ondry', at: '' }
    const theirs = settle(base, draft, other, 'theirs')
    expect(changedFields(theirs.base, theirs.draft)).toEqual([])
    expect(theirs.draft.promise).toBe('no tickets')
    const mine = settle(base, draft, other, 'mine')
    expect(changeOf(mine.base, mine.draft)).toEqual({
      promise: { from: 'no tickets', to: 'all tickets' },
    })
  })
})
