/** What an act makes of the customer's data: what opens or closes the lock as its family says, a reset all of them. */
import { lockChange } from '../../effect/effect.ts'
import type { Case } from '../rule.ts'
import { rule } from '../rule.ts'

export const actData = rule({
  id: 'act.data',
  overruled: 'nobody',
  needs: ['model'],
  reads: ['act', 'keepData', 'data'],
  acts: ['open', 'close', 'reset'],
  packs: false,
  says: {
    keeps: ['fits'],
    opening: ['fits-if'],
    closing: ['fits-if'],
    reset: ['fits-if'],
    'opening-loses': ['does-not-fit'],
    'closing-loses': ['does-not-fit'],
    'reset-loses': ['does-not-fit'],
  },
  check: ({ model }, { family, act, keepData, data }) => {
    if (data !== undefined || !takesData(family, act, String(model)))
      return { say: 'keeps', facts: {} }
    const wish = { kind: 'ask', topic: 'survive' } as const
    const consent = { kind: 'consent' } as const
    const by = act === 'open' ? 'opening' : act === 'close' ? 'closing' : 'reset'
    return keepData
      ? { say: `${by}-loses` as const, facts: {}, remedy: wish }
      : { say: by, facts: {}, remedy: consent }
  },
})

/** Whether nothing of them can be opened after an act. */
export const takesData = (family: Case['family'], act: Case['act'], model: string): boolean =>
  act === 'reset' ||
  (act === 'open' && lockChange(family, 'open', model) !== 'keeps') ||
  (act === 'close' && lockChange(family, 'closed', model) !== 'keeps')
