/**
 * The boot lock can be opened: by a command, once its owner has let it be, on a page of the settings that some carriers
 * never show and others only days after the first set-up.
 */
import { rule } from '../rule.ts'

export const opening = rule({
  id: 'act.open',
  overruled: 'nobody',
  needs: ['bootLock', 'carrier'],
  sees: ['lockSwitch'],
  acts: ['open'],
  packs: false,
  says: {
    allowed: ['fits'],
    switch: ['fits-if'],
    greyed: ['fits-if', 'days'],
    never: ['does-not-fit', 'carrier'],
    maker: ['does-not-fit'],
    open: ['does-not-fit'],
  },
  check: ({ bootLock, carrier, lockSwitch }, { family: { lock } }) => {
    if (lock.opens !== 'command') return { say: 'maker', facts: {} }
    if (bootLock === 'open') return { say: 'open', facts: {} }
    if (lock.neverOn.includes(String(carrier))) return { say: 'never', facts: { carrier } }
    const marks = [{ kind: 'irreversible' }] as const
    if (lockSwitch === 'on') return { say: 'allowed', facts: {}, marks }
    if (lockSwitch === 'off') return { say: 'switch', facts: {}, marks }
    return lock.greyedDays > 0
      ? { say: 'greyed', facts: { days: lock.greyedDays }, marks }
      : { say: 'switch', facts: {}, marks }
  },
})
