import { listed } from '../targets.ts'

/** The board is one that the package lists: another has other parts at other places. */
export const board = listed('board', 'nobody')
