/**
 * No account is on it that nobody can sign in to: a device that is wiped asks for it, and stays shut. Settled at
 * intake, before any wipe. What was read of one is not talked away: where "none" was said over an account that was read, it
 * is asked about again.
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
    read: ['cannot-tell'],
    shut: ['does-not-fit'],
  },
  concerns: ({ family, lines, keepData }) =>
    family.account.asksAfterReset && lines !== undefined && !keepData,
  check: ({ accountLock }, { house, lines }) => {
    const said = lines?.get('owner.account')?.answer
    const removed = lines?.get('ready.accounts')?.answer === 'done'
    const isRead = accountLock !== undefined && accountLock !== 'absent'
    if (said === 'absent' && isRead && !removed)
      return { say: 'read', facts: {}, remedy: { kind: 'ask', topic: 'owner.account' } }
    /* An account that was read says nothing of who can sign in to it. */
    const answer = said ?? (isRead ? undefined : accountLock)
    if (answer === 'absent' || (answer === 'owner-able' && removed))
      return { say: 'absent', facts: {} }
    if (answer === 'owner-able' && house.accounts === 'before')
      return { say: 'remove', facts: {}, remedy: { kind: 'ask', topic: 'ready.accounts' } }
    if (answer === 'owner-able') return { say: 'able', facts: {} }
    if (answer !== undefined) return { say: 'shut', facts: {} }
    return { say: 'asked', facts: {}, remedy: { kind: 'ask', topic: 'owner.account' } }
  },
})
