/** Whether its system comes to its start page, as far as somebody said so at intake. Reads a case's lines. */
import type { Case } from './rule.ts'

/** It stops on its way there, or gives no sign of life. */
export const cannotStart = ({ lines }: Pick<Case, 'lines'>): boolean =>
  ['stops', 'silent'].includes(lines?.get('history.starts')?.answer ?? '')
