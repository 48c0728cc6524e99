/** Whether its system comes to its start page, as far as somebody said so at intake. Reads a case's lines. */
import type { Case } from './rule.ts'

/** What is answered of how far it starts: it stops on its way there, or gives no sign of life. */
export const isNoStart = (answer: string | undefined): boolean =>
  answer === 'stops' || answer === 'silent'

export const cannotStart = ({ lines }: Pick<Case, 'lines'>): boolean =>
  isNoStart(lines?.get('history.starts')?.answer)
