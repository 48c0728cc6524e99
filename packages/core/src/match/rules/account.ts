/**
 * No account is on it that nobody can sign in to: a device that is wiped asks for it, and stays shut. Settled at
 * intake, before any wipe.
 */
import { rule } from '../rule.ts'

export const account = rule({
  id: 'owner.account',
  overruled: 'nobody',
  sees: ['accountLock'],
  reads: ['lines', 'keepData', 'house'],
  says: {
    absent: ['fits'],
    able: ['fits'],
    remove: ['fits-if'],
    asked: ['cannot-tell'],
    shut: ['does-not-fit'],
  },
  concerns: ({ family, lines, keepData }) =>
    family.account.asksAfterReset && lines !== undefined && !keepData,
  check: ({ accountLock }, { house, lines }) => {
    const answer = lines?.get('owner.account')?.answer ?? accountLock
    const removed = lines?.get('ready.accounts')?.answer === 'done'
    if (answer === 'absent' || (answer === 'owner-able' && removed))
      return { say: 'absent', facts: {} }
    if (answer === 'owner-able' && house.accounts === 'before')
      return { say: 'remove', facts: {}, remedy: { kind: 'ask', topic: 'ready.accounts' } }
    if (answer === 'owner-able') return { say: 'able', facts: {} }
    if (answer !== undefined) return { say: 'shut', facts: {} }
    return { say: 'asked', facts: {}, remedy: { kind: 'ask', topic: 'owner.account' } }
  },
})
