/** What shows that a command was carried out crosses processes parsed, and old journals stay readable. */
import { describe, expect, it } from 'vitest'
import { stepSaidSchema } from '../command/said.ts'
import { journalEntrySchema } from './journal.ts'

describe('evidence in a journal', () => {
  const done = (evidence: unknown) =>
    journalEntrySchema.safeParse({ kind: 'done', command: 1, evidence })

  it('is taken as it is, and a plain text of before as a word', () => {
    const met = { is: 'met', serial: 'TRN4490077F31', mode: 'loader' }
    expect(done(met).data).toMatchObject({ evidence: met })
    expect(done('kept').data).toMatchObject({ evidence: { is: 'word', text: 'kept' } })
  })

  it.each([[{ is: 'seen' }], [{ is: 'digest', sha256: 'abc' }], [{ is: 'items', items: -1 }], [7]])(
    'that is none is refused: %j',
    (evidence) => expect(done(evidence).success).toBe(false),
  )
})

describe('a step as it is told', () => {
  it('keeps its kind and what its sentence needs, and no more', () => {
    const raw = { kind: 'slot', facts: { slot: 'b', more: 1 }, number: 3 }
    expect(stepSaidSchema.parse(raw)).toEqual({ kind: 'slot', facts: { slot: 'b' } })
    expect(stepSaidSchema.safeParse({ kind: 'slot', facts: { slot: 'c' } }).success).toBe(false)
    expect(stepSaidSchema.safeParse({ kind: 'leap', facts: {} }).success).toBe(false)
  })

  it('of a plan of before is read as it was', () => {
    const prove = { kind: 'prove', facts: { build: 'x', loader: '', floor: 5 } }
    expect(stepSaidSchema.parse(prove).facts).toEqual({ build: 'x', loader: null, floor: 5 })
    expect(stepSaidSchema.parse({ kind: 'meet', facts: { mode: 'the loader' } }).facts).toEqual({
      mode: 'the loader',
      left: 0,
    })
  })
})
