/** What is tried first after a transfer that failed. Reads what the house decided and how often it was lost; gives a word. */
import type { SCHOOLS } from '../terms/schools.ts'

/** One thing is changed at a time: the same cable once, another after that; or another at once where the house does so. */
export function firstRemedy(
  school: (typeof SCHOOLS)['transfer'][number],
  losses: number,
): 'same' | 'cable' | 'house' {
  if (losses > 1) return 'cable'
  return school === 'cable' ? 'house' : 'same'
}
