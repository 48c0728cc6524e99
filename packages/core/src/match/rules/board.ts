import { listed } from '../rule.ts'

/** The board is one that the package lists. Never overruled: another board's firmware can kill. */
export const board = listed('board', true)
