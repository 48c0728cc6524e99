/**
 * Parts that a closed boot lock lets nobody write, signed or not, and packages that ask for an open one: it is opened
 * before. Whoever opens it does so on the
 * device, as its maker has it; nothing is written past it.
 */
import type { Image } from '../../firmware/manifest.ts'
import type { Case, Ground } from '../rule.ts'
import { rule } from '../rule.ts'

export const lockOpen = rule({
  id: 'state.lock-open',
  overruled: 'nobody',
  needs: ['bootLock'],
  reads: ['way'],
  broughtBy: ['open'],
  says: {
    open: ['fits'],
    closed: ['fits-if', 'roles'],
    maker: ['does-not-fit', 'roles'],
    asked: ['fits-if'],
    never: ['does-not-fit'],
  },
  concerns: (at) => at.shelved.manifest.requires.openLock === true || keptIn(at).length > 0,
  check: ({ bootLock }, at) => {
    if (bootLock === 'open') return { say: 'open', facts: {} }
    const kept = keptIn(at)
    const facts = { roles: [...new Set(kept.map(({ role }) => role))].join(', ') }
    const isAsked = kept.length === 0
    if (at.family.lock.opens !== 'command')
      return isAsked ? { say: 'never', facts: {} } : { say: 'maker', facts }
    const remedy = { kind: 'along', act: 'open' } as const
    return isAsked ? { say: 'asked', facts: {}, remedy } : { say: 'closed', facts, remedy }
  },
})

/** Images that go on one by one, and that a closed lock keeps from being written. */
const keptIn = ({
  family: { lock },
  shelved: { manifest },
  way,
}: Ground & Pick<Case, 'way'>): readonly Image[] =>
  way === undefined || way === 'images'
    ? manifest.images.filter(({ role }) => lock.keeps?.includes(role) === true)
    : []
