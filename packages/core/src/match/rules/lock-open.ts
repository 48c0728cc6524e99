/**
 * Parts that a closed boot lock lets nobody write, signed or not: it is opened before. Whoever opens it does so on the
 * device, as its maker has it; nothing is written past it.
 */
import { rule } from '../rule.ts'

export const lockOpen = rule({
  id: 'state.lock-open',
  overruled: 'nobody',
  needs: ['bootLock'],
  reads: ['way'],
  broughtBy: ['open'],
  says: { open: ['fits'], closed: ['fits-if', 'roles'], maker: ['does-not-fit', 'roles'] },
  concerns: ({ family: { lock }, shelved, way }) =>
    (way === undefined || way === 'images') &&
    lock.keeps !== undefined &&
    shelved.manifest.images.some(({ role }) => lock.keeps?.includes(role) === true),
  check: ({ bootLock }, { family: { lock }, shelved: { manifest } }) => {
    if (bootLock === 'open') return { say: 'open', facts: {} }
    const kept = manifest.images.filter(({ role }) => lock.keeps?.includes(role) === true)
    const facts = { roles: [...new Set(kept.map(({ role }) => role))].join(', ') }
    return lock.opens === 'command'
      ? { say: 'closed', facts, remedy: { kind: 'along', act: 'open' } }
      : { say: 'maker', facts }
  },
})
