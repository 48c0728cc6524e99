/** The closed lists of a profile that pages need without its schema: what has a pace, how a row is taken up. */

export const PACE_KEYS = [
  'write',
  'digest',
  'erase',
  'lock',
  'restart',
  'first-start',
  'first-start-wiped',
  'merge',
  /** Bytes to a store, what is pushed apart; a package looked over block by block, and written by the device. */
  'copy',
  'push',
  'check',
  'install',
] as const
export type PaceKey = (typeof PACE_KEYS)[number]

/** The variant part alone, with the data as they are; or with all of the customer's erased. */
export const ADOPTIONS = ['in-place', 'from-new'] as const
export type Adoption = (typeof ADOPTIONS)[number]
