import { describe, expect, it } from 'vitest'
import { reaches } from './people.ts'
import { SLIP_STATES, STAGES, isOver, nextStates } from './slip.ts'

describe('a slip', () => {
  it('has ten stages, from the counter to the hand back', () => {
    expect(STAGES).toHaveLength(10)
    expect(STAGES[0]).toBe('intake')
    expect(STAGES[9]).toBe('hand-back')
  })

  it('that has ended can only be opened again', () => {
    for (const ended of ['stopped', 'declined', 'closed'] as const)
      expect([isOver(ended), nextStates(ended)]).toEqual([true, ['open']])
    expect([isOver('open'), isOver('waiting'), isOver(undefined)]).toEqual([false, false, false])
  })

  it('never goes to the state it is in', () => {
    for (const state of SLIP_STATES) expect(nextStates(state)).not.toContain(state)
  })
})

describe('a role', () => {
  it('may do all that the ones below it may', () => {
    expect(reaches('lead', 'trainee')).toBe(true)
    expect(reaches('technician', 'technician')).toBe(true)
    expect(reaches('trainee', 'technician')).toBe(false)
  })

  it('is not needed for what is open to nobody in particular', () => {
    expect(reaches(undefined, 'nobody')).toBe(true)
    expect(reaches(undefined, 'trainee')).toBe(false)
  })
})
