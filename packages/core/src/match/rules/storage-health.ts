/** Storage that fails takes no write that lasts, and no firmware cures it; a worn one takes this one, and is said to be worn. */
import { rule } from '../rule.ts'

export const storageHealth = rule({
  id: 'state.storage-health',
  overruled: 'lead',
  sees: ['storageHealth'],
  says: { worn: ['fits'], failing: ['does-not-fit'] },
  check: ({ storageHealth: health }) => {
    if (health === 'failing') return { say: 'failing', facts: {} }
    return health === 'worn' ? { say: 'worn', facts: {} } : undefined
  },
})
