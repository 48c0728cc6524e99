/** Where good technicians disagree, as two schools each. Reads nothing; gives the questions and what may be answered. */

/**
 * Questions on which there are two schools, the usual one first: which parts are written; over the cable by parts, or
 * installed by the device, where both are open; the newest build, or the one it had, for who wants it as it was; data
 * that need not survive left where they open after, or always from new; from anybody if proven, or its maker alone; any
 * lawful variant, or the one it was bought as; a digest from outside for every package, or not for the maker's own; an
 * owner who proves to be able to sign in, or removes accounts before; a backup always, or when something will be lost;
 * SIM and card out, or left in; a lock that was opened for the job closed again, or left open; a reset by hand after a
 * write only where it does not start, or always; on the way down data tried first, or wiped first; a rescue of its
 * owner's own replaced, or kept; a transfer that failed sent again on the same cable, or on another at once; a long silence
 * acted on past its limit, or never; into a mode by command where one leads there, or by keys; restarts between parts where
 * the family asks for them, or after every part.
 */
export const SCHOOLS = {
  writes: ['least', 'all'],
  way: ['parts', 'install'],
  build: ['same', 'newest'],
  data: ['keep', 'new'],
  source: ['proven', 'maker'],
  variant: ['lawful', 'bought'],
  digests: ['always', 'others'],
  accounts: ['proof', 'before'],
  backup: ['always', 'lost'],
  cards: ['out', 'in'],
  relock: ['close', 'leave'],
  reset: ['needed', 'always'],
  downgrade: ['try', 'first'],
  rescue: ['stock', 'kept'],
  transfer: ['again', 'cable'],
  silence: ['limit', 'wait'],
  into: ['command', 'keys'],
  restarts: ['family', 'every'],
} as const
export type SchoolQuestion = keyof typeof SCHOOLS
export const SCHOOL_QUESTIONS = Object.keys(SCHOOLS) as readonly SchoolQuestion[]
